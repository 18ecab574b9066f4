import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import { type Build, RequestError } from "../../api/client";
import { lastFailure } from "../../api/lastFailure";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { useQueue } from "../../strikes/queue";
import { QueueState } from "../../strikes/StrikeList";
import { showMoment } from "../../units/days";
import { counted, plain } from "../../units/units";
import classes from "./Build.module.css";
import { ticksAhead, useOrder } from "./useBuild";

type Order = NonNullable<Build["order"]>;

/** How the sheet stands with the bench: given to it or not, what is missing until it can be signed, what went before. */
export function OrderPanel({ sheet }: { sheet: Build }) {
  const { server } = useStore();
  const order = sheet.order ?? null;
  const acts = useOrder();
  const pending = [acts.beginning, acts.anew, acts.cancel, acts.sign].some((act) => act.isPending);
  const failed = lastFailure(acts.beginning, acts.anew, acts.cancel, acts.sign);
  const base = `/api/fittings/${server.id}/build`;
  const heads = sheet.clubs.filter((club) => club.action === "replace").map((club) => club.name);
  return (
    <section className={classes.order} aria-label="Order">
      {order ? (
        <AtTheBench sheet={sheet} order={order} acts={acts} pending={pending} />
      ) : (
        <div className={classes.acts}>
          <Button size="xs" disabled={pending || sheet.faults.length > 0} onClick={acts.begin}>
            Give it to the bench
          </Button>
          <span>
            {server.document.rack
              ? "This fitting brings its own rack: nothing is taken from the studio's."
              : heads.length > 0
                ? `Takes ${heads.join(", ")} from the rack's stock.`
                : "Takes nothing from the rack."}
          </span>
        </div>
      )}
      {failed && (
        <div role="alert" className={classes.note} data-off="true">
          {(failed instanceof RequestError && failed.body?.faults?.length
            ? failed.body.faults.map((one) => [one.name, one.message].filter(Boolean).join(" "))
            : [failed.message]
          ).map((words) => (
            <p key={words}>{words}</p>
          ))}
        </div>
      )}
      {sheet.faults.length === 0 && (
        <p className={classes.note}>
          The sheet as it stands: <a href={`${base}/sheet.pdf`}>PDF</a>, <a href={`${base}/sheet.csv`}>CSV</a>.
        </p>
      )}
      {sheet.earlier.length > 0 && (
        <ul className={classes.earlier} aria-label="Earlier orders">
          {sheet.earlier.map((one) => (
            <li key={one.id}>
              {one.state === "built" ? "Signed" : "Cancelled"} {one.ended_at && showMoment(one.ended_at)} by{" "}
              {one.ended_by}: {one.clubs.join(", ")}; total {plain(one.total, 2)}.{" "}
              {one.reason && `Outside tolerance and left so: ${one.reason}. `}
              <a href={`${base}/orders/${one.id}/sheet.pdf`}>PDF</a>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

interface BenchProps {
  sheet: Build;
  order: Order;
  acts: ReturnType<typeof useOrder>;
  pending: boolean;
}

function AtTheBench({ sheet, order, acts, pending }: BenchProps) {
  const queue = useQueue();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useRemembered(`as-built-${order.id}`, "");
  const done = ticksAhead(order, queue.ahead).length;
  const work = sheet.clubs.reduce((sum, club) => sum + club.operations.length, 0);
  const open = order.changed.length > 0 || order.missing.length > 0;
  return (
    <>
      <p className={classes.note}>
        <strong>
          At the bench: {done} of {counted(work, "piece")} of work done.
        </strong>{" "}
        Given by {order.made_by}, {showMoment(order.made_at)}
        {order.heads.length > 0 && `; set aside from the rack: ${order.heads.join(", ")}`}.
      </p>
      <QueueState queue={queue} />
      {order.changed.map((words) => (
        <p key={words} className={classes.note} data-changed>
          {words}
        </p>
      ))}
      {order.missing.length > 0 && (
        <ul className={classes.missing} aria-label="Missing before it can be signed">
          {order.missing.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
      {order.off > 0 && !open && (
        <TextInput
          label={`${order.off === 1 ? "One reading is" : `${order.off} readings are`} outside tolerance: why does it stay so?`}
          value={reason}
          maxLength={TABLES.most.why}
          onChange={(event) => setReason(event.currentTarget.value)}
        />
      )}
      <div className={classes.acts}>
        {order.changed.length > 0 && (
          <Button size="xs" disabled={pending || sheet.faults.length > 0} onClick={() => acts.anew.mutate(order.id)}>
            Take the changes to the bench
          </Button>
        )}
        {!open && (
          <Button
            size="xs"
            disabled={pending || (order.off > 0 && reason.trim() === "")}
            onClick={() => acts.sign.mutate({ order_id: order.id, reason })}
          >
            Sign it as built
          </Button>
        )}
        {asking ? (
          <>
            <span>Cancel it? The heads go back to the rack; the sheet stays.</span>
            <Button size="xs" color="rust" disabled={pending} onClick={() => acts.cancel.mutate(order.id)}>
              Cancel the order
            </Button>
            <Button size="xs" variant="default" onClick={() => setAsking(false)}>
              Keep it
            </Button>
          </>
        ) : (
          <Button size="xs" variant="default" onClick={() => setAsking(true)}>
            Cancel the order …
          </Button>
        )}
      </div>
      {!open && (
        <p className={classes.note}>
          Signed, the sheet is never rewritten, the bag holds these clubs, and what they were is kept beside it.
        </p>
      )}
    </>
  );
}
