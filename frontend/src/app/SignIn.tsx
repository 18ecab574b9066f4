import { SignInForm } from "../session/SignInForm";
import classes from "./SignIn.module.css";

export default function SignIn() {
  return (
    <main className={classes.page}>
      <div className={classes.form}>
        <h1 className={classes.mark}>Oblatus</h1>
        <p className={classes.line}>Wedges chosen for the swing, the turf and the sand.</p>
        <SignInForm />
      </div>
    </main>
  );
}
