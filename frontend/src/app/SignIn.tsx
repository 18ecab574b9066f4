import { Button, PasswordInput, TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import classes from "./SignIn.module.css";
import { useSignIn } from "./session";

export default function SignIn() {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const signIn = useSignIn();

  const submit = (event: FormEvent) => {
    event.preventDefault();
    signIn.mutate({ email, password });
  };

  return (
    <main className={classes.page}>
      <form className={classes.form} onSubmit={submit}>
        <h1 className={classes.mark}>Oblatus</h1>
        <p className={classes.line}>Wedges chosen for the swing, the turf and the sand.</p>
        <TextInput
          label="Address"
          type="email"
          autoComplete="username"
          required
          withAsterisk={false}
          autoFocus
          value={email}
          onChange={(e) => setEmail(e.currentTarget.value)}
        />
        <PasswordInput
          label="Password"
          autoComplete="current-password"
          required
          withAsterisk={false}
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
    </main>
  );
}
