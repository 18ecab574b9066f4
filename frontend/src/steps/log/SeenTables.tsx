import { counted, plain, showPercent } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import { signed } from "./signed";
import { CALLS, type Log } from "./useLog";

/** Strokes a shot by situation, and club by club. */
export function Situations({ lines, clubs }: { lines: Log["situations"]; clubs: Log["clubs"] }) {
  return (
    <CopyTable caption="By situation and club, strokes a shot">
      <thead>
        <tr>
          <th>situation</th>
          <th>club</th>
          <th className={parts.num}>shots</th>
          <th className={parts.num}>seen</th>
          <th className={parts.num}>expected</th>
          <th className={parts.num}>difference</th>
          <th className={parts.num}>8 of 10</th>
          <th>says</th>
        </tr>
      </thead>
      <tbody>
        {lines.flatMap((line) => [
          <Row key={line.key} line={line} strong />,
          ...clubs
            .filter((club) => club.key === line.key)
            .map((club) => <Row key={`${line.key}|${club.club}`} line={club} />),
        ])}
      </tbody>
    </CopyTable>
  );
}

function Row({ line, strong }: { line: Log["clubs"][number]; strong?: boolean }) {
  const { seen } = line;
  return (
    <tr data-kind={strong ? "whole" : undefined}>
      <td>{strong ? <strong>{line.name}</strong> : ""}</td>
      <td>{strong ? "every club" : line.club}</td>
      <td className={parts.num}>{seen.shots}</td>
      <td className={parts.num}>{plain(seen.seen, 2)}</td>
      <td className={parts.num}>{plain(seen.expected, 2)}</td>
      <td className={parts.num}>{signed(seen.difference)}</td>
      <td className={parts.num}>
        {signed(seen.low)} to {signed(seen.high)}
      </td>
      <td data-call={seen.call}>{CALLS[seen.call]}</td>
    </tr>
  );
}

/** Lines of a log with what each says. */
export function LineTable({ caption, first, lines }: { caption: string; first: string; lines: Log["months"] }) {
  return (
    <CopyTable caption={caption}>
      <thead>
        <tr>
          <th>{first}</th>
          <th className={parts.num}>shots</th>
          <th className={parts.num}>difference</th>
          <th className={parts.num}>8 of 10</th>
          <th>says</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line) => (
          <tr key={line.key}>
            <td>{line.name}</td>
            <td className={parts.num}>{line.seen.shots}</td>
            <td className={parts.num}>{signed(line.seen.difference)}</td>
            <td className={parts.num}>
              {signed(line.seen.low)} to {signed(line.seen.high)}
            </td>
            <td>{CALLS[line.seen.call]}</td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}

/** Where strokes go by the model, and moved by the log. */
export function Leaks({ log }: { log: Log }) {
  if (log.leaks.length === 0) return null;
  return (
    <CopyTable caption="Where strokes go, a round over a scratch player with the best tool">
      <thead>
        <tr>
          <th>situation</th>
          <th className={parts.num}>shots seen</th>
          <th className={parts.num}>by the model</th>
          <th className={parts.num}>with the log</th>
        </tr>
      </thead>
      <tbody>
        {log.leaks.map((leak) => (
          <tr key={leak.situation}>
            <td>{leak.name}</td>
            <td className={parts.num}>{leak.shots}</td>
            <td className={parts.num}>{plain(leak.model, 2)}</td>
            <td className={parts.num}>{plain(leak.seen, 2)}</td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}

/** One line a head and kind of ground: model, proof and log add up. */
export function Heads({ log }: { log: Log }) {
  if (log.heads.length === 0) return null;
  return (
    <CopyTable caption="Heads, strokes a shot">
      <thead>
        <tr>
          <th>head</th>
          <th>ground</th>
          <th className={parts.num}>model</th>
          <th className={parts.num}>proof</th>
          <th className={parts.num}>log</th>
          <th className={parts.num}>together</th>
          <th>log counts</th>
        </tr>
      </thead>
      <tbody>
        {log.heads.map((head) => (
          <tr key={`${head.club}|${head.surface}`}>
            <td>{head.name}</td>
            <td>{head.surface}</td>
            <td className={parts.num}>{plain(head.model, 2)}</td>
            <td className={parts.num}>
              {head.proof_balls > 0 ? `${signed(head.proof)}, ${counted(head.proof_balls, "ball")}` : "–"}
            </td>
            <td className={parts.num}>
              {signed(head.log)}, {counted(head.log_shots, "shot")}
            </td>
            <td className={parts.num}>{plain(head.total, 2)}</td>
            <td>
              {showPercent(head.log_weight)}
              {head.called
                ? ""
                : head.alone === "worse" || head.alone === "better"
                  ? `; its shots went ${head.alone} than expected, by head or player`
                  : "; it may be chance"}
            </td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}
