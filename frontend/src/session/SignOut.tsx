import { Button, Modal } from "@mantine/core";
import { useState } from "react";
import { draftedFittings, forgetDrafts } from "../app/drafts";
import { type Act, actsLeft, forgetActs } from "../strikes/actStore";
import { waitingWords } from "../strikes/waiting";
import { counted } from "../units/units";
import classes from "./Session.module.css";
import { useFitterId, useSignOut } from "./session";

interface Left {
  acts: Act[];
  drafts: number;
}

/** Sign out. What the server does not have yet is said first, and stays for the next time unless it is let go. */
export function SignOut({ onLeave }: { onLeave: () => void }) {
  const fitter = useFitterId();
  const signOut = useSignOut(onLeave);
  const [left, setLeft] = useState<Left | null>(null);
  const leave = () => signOut.mutate();
  const ask = async () => {
    const acts = await actsLeft(fitter).catch(() => []); // a browser that keeps nothing has nothing left
    const drafts = draftedFittings(fitter).length;
    if (acts.length + drafts === 0) return leave();
    setLeft({ acts, drafts });
  };
  const letGo = async () => {
    await forgetActs(fitter).catch(() => {});
    forgetDrafts(fitter);
    leave();
  };
  return (
    <>
      <Button variant="default" size="xs" loading={signOut.isPending} onClick={ask}>
        Sign out
      </Button>
      {signOut.isError && !left && (
        <span role="alert" className={classes.error}>
          {signOut.error.message}
        </span>
      )}
      <Modal opened={left !== null} onClose={() => setLeft(null)} title="Not everything is on the server yet">
        <p className={classes.words}>
          {left && words(left)} on the way. Kept here, {left && isOne(left) ? "it is" : "they are"} sent when you sign
          in on this browser again; nobody else sees them. Let go, they are lost.
        </p>
        {signOut.isError && (
          <p role="alert" className={classes.error}>
            {signOut.error.message}
          </p>
        )}
        <div className={classes.ways}>
          <Button variant="default" onClick={() => setLeft(null)}>
            Stay
          </Button>
          <Button variant="subtle" color="rust" onClick={letGo}>
            Let go and sign out
          </Button>
          <Button data-autofocus onClick={leave} loading={signOut.isPending}>
            Keep here and sign out
          </Button>
        </div>
      </Modal>
    </>
  );
}

const isOne = ({ acts, drafts }: Left) => (acts.length === 0 ? drafts === 1 : drafts === 0 && waitingWords(acts).one);

function words(left: Left) {
  const { acts, drafts } = left;
  const parts = [
    acts.length > 0 ? waitingWords(acts).words : "",
    drafts > 0 ? `edits of ${counted(drafts, "fitting")}` : "",
  ].filter(Boolean);
  return `${parts.join(" and ")} ${isOne(left) ? "is" : "are"}`;
}
