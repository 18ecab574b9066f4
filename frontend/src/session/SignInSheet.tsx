import { Button, Modal } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import type { Session } from "../api/client";
import classes from "./Session.module.css";
import { SignInForm } from "./SignInForm";
import type { Ended } from "./session";

interface Props {
  ended: Ended;
  session: Session;
  onLeave: () => void;
}

/** Over the page as it stands: text, place and what waits stay, and go on once the same fitter is signed in again. */
export default function SignInSheet({ ended, session, onLeave }: Props) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const leave = async () => {
    // who is signed in now is asked first: the page is then theirs, or nobody's
    await client.refetchQueries({ queryKey: ["session"] });
    navigate("/");
    onLeave();
  };
  return (
    <Modal
      opened
      onClose={() => {}}
      withCloseButton={false}
      closeOnEscape={false}
      closeOnClickOutside={false}
      title={ended === "other_fitter" ? "Somebody else signed in on this browser" : "You are signed out"}
    >
      <p className={classes.words}>
        {ended === "other_fitter" ? "This page is still " : "Everything on this page stays as it is, "}
        {ended === "other_fitter"
          ? `${session.fitter}'s. Sign in as ${session.fitter} to go on; what waits here is sent then, and by nobody else.`
          : `${session.fitter}. What waits here is sent as soon as you are signed in again.`}
      </p>
      <SignInForm email={session.email ?? ""} />
      <div className={classes.ways}>
        <Button variant="subtle" onClick={leave}>
          {ended === "other_fitter" ? "Go on as the other" : "Leave this page"}
        </Button>
      </div>
    </Modal>
  );
}
