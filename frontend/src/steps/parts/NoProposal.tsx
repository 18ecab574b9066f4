import { useStore } from "../../app/context";
import { ToCome } from "../../app/ToCome";
import parts from "./parts.module.css";
import { StepHead } from "./StepHead";

/** What a step says when the engine cannot make a proposal from what is known. */
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
          {server.problem.map((fault) => (
            <li key={fault.field + fault.message}>
              {fault.message}{" "}
              <span className={parts.unit}>({fault.field.replaceAll("_", " ").replaceAll(".", ", ")})</span>
            </li>
          ))}
        </ul>
      </div>
    </>
  );
}
