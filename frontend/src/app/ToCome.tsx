import { useStore } from "./context";

/** The set is being worked out: nothing is wrong. */
export function ToCome() {
  const { unheard } = useStore();
  return (
    <p role="status" style={{ padding: "14px 16px" }}>
      {unheard ? "No set came from the server. It is asked for again." : "Working out the set …"}
    </p>
  );
}
