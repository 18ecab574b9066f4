import { useStore } from "./context";

/** The set is being worked out: nothing is wrong. */
export function ToCome() {
  const { unheard } = useStore();
  return (
    <p role="status" style={{ padding: "14px 16px" }}>
      {unheard ? "The server does not answer. The set is asked for again." : "Working out the set …"}
    </p>
  );
}
