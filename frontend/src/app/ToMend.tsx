import { Popover } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import { useStore } from "./context";
import classes from "./Frame.module.css";
import { stepOf } from "./steps";

/** How many fields the server did not take; pressed, which, why, and the way to each. */
export function ToMend() {
  const { faults, server } = useStore();
  const [open, setOpen] = useState(false);
  return (
    <Popover opened={open} onChange={setOpen} position="bottom-end" width="min(360px, 92vw)" trapFocus returnFocus>
      <Popover.Target>
        <button type="button" className={classes.toMend} aria-expanded={open} onClick={() => setOpen(!open)}>
          not saved: {faults.length} to mend
        </button>
      </Popover.Target>
      <Popover.Dropdown className={classes.mend} aria-label="To mend">
        <ul>
          {faults.map((fault) => {
            const step = stepOf(fault.field);
            return (
              <li key={`${fault.field} ${fault.message}`}>
                <strong>{fault.name || step?.name || "Fitting"}</strong> {fault.message}.{" "}
                {step && (
                  <Link to={`/fittings/${server.id}/${step.path}`} onClick={() => setOpen(false)}>
                    Go to {step.name}
                  </Link>
                )}
              </li>
            );
          })}
        </ul>
      </Popover.Dropdown>
    </Popover>
  );
}
