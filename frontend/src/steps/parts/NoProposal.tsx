import { Link } from "react-router";
import { useStore } from "../../app/context";
import { stepOf } from "../../app/steps";
import { ToCome } from "../../app/ToCome";
import { ByHand, notStanding } from "./ByHand";
import parts from "./parts.module.css";
import { StepHead } from "./StepHead";

/** What a step says when the engine cannot make a proposal from what is known, and where that is mended. */
export function NoProposal({ title }: { title: string }) {
  const { server } = useStore();
  if (server.to_come)
    return (
      <>
        <StepHead title={title} />
        <ToCome />
      </>
    );
  return (
    <>
      <StepHead title={title} />
      <div className={parts.tableBox} role="alert">
        <p>No proposal can be made yet:</p>
        <ul>
          {server.problem.map((fault) => {
            const step = stepOf(fault.field);
            return (
              <li key={fault.field + fault.message}>
                {fault.name && `${fault.name}: `}
                {fault.message}.{" "}
                {fault.field === "choices.pinned" ? (
                  <ByHand heads={notStanding(server)} />
                ) : (
                  step && <Link to={`/fittings/${server.id}/${step.path}`}>Go to {step.name}</Link>
                )}
              </li>
            );
          })}
        </ul>
      </div>
    </>
  );
}
