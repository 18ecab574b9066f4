import { Button, PasswordInput, TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import classes from "./Session.module.css";
import { useSignIn } from "./session";

/** E-mail and password; what is wrong is said above the button. */
export function SignInForm({ email = "", onDone }: { email?: string; onDone?: () => void }) {
  const [address, setAddress] = useState(email);
  const [password, setPassword] = useState("");
  const signIn = useSignIn();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    signIn.mutate({ email: address, password }, { onSuccess: onDone });
  };
  return (
    <form className={classes.form} onSubmit={submit}>
      <TextInput
        label="E-mail"
        type="email"
        autoComplete="username"
        required
        withAsterisk={false}
        autoFocus={email === ""}
        value={address}
        onChange={(e) => setAddress(e.currentTarget.value)}
      />
      <PasswordInput
        label="Password"
        autoComplete="current-password"
        required
        withAsterisk={false}
        autoFocus={email !== ""}
        data-autofocus={email !== "" || undefined}
        value={password}
        onChange={(e) => setPassword(e.currentTarget.value)}
      />
      {signIn.isError && (
        <p role="alert" className={classes.error}>
          {signIn.error.message}
        </p>
      )}
      <Button type="submit" loading={signIn.isPending} fullWidth size="md">
        Sign in
      </Button>
    </form>
  );
}
