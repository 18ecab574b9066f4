import { Kbd, Modal, TextInput } from "@mantine/core";
import { useHotkeys, useWindowEvent } from "@mantine/hooks";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { useStore } from "./context";
import classes from "./Keys.module.css";
import { STEPS } from "./steps";
import { useKeep } from "./useKeep";

interface Command {
  name: string;
  hint: string;
  run: () => void;
}

interface Props {
  current: string;
  palette: boolean;
  onPalette: (open: boolean) => void;
}

/** Keys of the whole frame, the palette on `/` and the list of keys on `?`. */
export function Keys({ current, palette, onPalette }: Props) {
  const navigate = useNavigate();
  const store = useStore();
  const keep = useKeep();
  const [help, setHelp] = useState(false);
  const go = (key: string) => navigate(`/fittings/${store.server.id}/${key}`);
  const turn = (by: number) => {
    const at = STEPS.findIndex((step) => step.key === current);
    const next = STEPS[(at + by + STEPS.length) % STEPS.length];
    if (next) go(next.key);
  };
  useHotkeys([
    ...STEPS.map((step): [string, () => void] => [step.hotkey === "-" ? "Minus" : step.hotkey, () => go(step.key)]),
    ["-", () => go("log")],
    // on Strikes the two buttons of a remote choose station and club
    ["PageDown", () => current !== "strikes" && turn(1)],
    ["PageUp", () => current !== "strikes" && turn(-1)],
    ["/", () => onPalette(true)],
    ["shift+?", () => setHelp(true)],
    ["?", () => setHelp(true)],
    ["K", () => keep.mutate()],
  ]);
  useHotkeys(
    [
      ["mod+Z", store.undo],
      ["mod+shift+Z", store.redo],
      ["mod+Y", store.redo],
    ],
    [],
  );

  useWindowEvent("keydown", (event) => {
    const field = event.target;
    if (event.key !== "Escape" || event.defaultPrevented || !(field instanceof HTMLElement)) return;
    if (!field.matches("input, textarea, select") || field.closest("[role=dialog]")) return;
    field.blur();
    document.getElementById("work")?.focus();
  });

  const commands: Command[] = [
    ...STEPS.map((step) => ({ name: step.name, hint: step.hotkey, run: () => go(step.key) })),
    { name: "Keep this proposal", hint: "K", run: () => keep.mutate() },
    { name: "Kept proposals", hint: "", run: () => go("kept") },
    { name: "Strikes from a file", hint: "", run: () => go("import") },
    { name: "Shot desk", hint: "", run: () => navigate("/desk") },
    { name: "Undo", hint: "Ctrl Z", run: store.undo },
    { name: "Redo", hint: "Ctrl Shift Z", run: store.redo },
    { name: "Sessions and password", hint: "", run: () => navigate("/account") },
    { name: "All players", hint: "", run: () => navigate("/") },
    { name: "Keys", hint: "?", run: () => setHelp(true) },
  ];
  return (
    <>
      <Palette opened={palette} onClose={() => onPalette(false)} commands={commands} />
      <Modal opened={help} onClose={() => setHelp(false)} title="Keys">
        <dl className={classes.keys}>
          {STEPS.map((step) => (
            <div key={step.key}>
              <dt>
                <Kbd>{step.hotkey}</Kbd>
              </dt>
              <dd>{step.name}</dd>
            </div>
          ))}
          {[
            ["Page Up / Page Down", "step before, step after; on Strikes: next club, next station"],
            ["S / C", "on Strikes: next station, next club; with Shift the one before"],
            ["/", "search and commands"],
            ["K", "keep this proposal"],
            ["C / G / T", "on Soles: next head, pin the comparison, table"],
            ["← →", "on the sole pass: move the entry"],
            ["M / U", "on Strikes and Carries: the last strike was a mishit; undo it"],
            ["Enter, arrows", "on Carries, measuring: take the ball, choose the cell"],
            ["Ctrl Z", "undo the last act; with Shift do it again"],
            ["?", "this list"],
          ].map(([key, words]) => (
            <div key={key}>
              <dt>
                <Kbd>{key}</Kbd>
              </dt>
              <dd>{words}</dd>
            </div>
          ))}
        </dl>
      </Modal>
    </>
  );
}

function Palette({ opened, onClose, commands }: { opened: boolean; onClose: () => void; commands: Command[] }) {
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const found = useMemo(
    () => commands.filter((c) => c.name.toLowerCase().includes(text.trim().toLowerCase())),
    [commands, text],
  );
  const close = () => {
    setText("");
    setAt(0);
    onClose();
  };
  const run = (command: Command | undefined) => {
    close();
    command?.run();
  };
  return (
    <Modal opened={opened} onClose={close} withCloseButton={false} padding="sm" yOffset="12vh">
      <TextInput
        data-autofocus
        aria-label="Step or command"
        placeholder="Step or command"
        value={text}
        onChange={(e) => {
          setText(e.currentTarget.value);
          setAt(0);
        }}
        onKeyDown={(e) => {
          if (e.key === "ArrowDown") setAt((i) => Math.min(i + 1, found.length - 1));
          else if (e.key === "ArrowUp") setAt((i) => Math.max(i - 1, 0));
          else if (e.key === "Enter") run(found[at]);
          else return;
          e.preventDefault();
        }}
      />
      <ul className={classes.found}>
        {found.map((command, index) => (
          <li key={command.name}>
            <button type="button" data-on={index === at} onClick={() => run(command)} tabIndex={-1}>
              {command.name} <span>{command.hint}</span>
            </button>
          </li>
        ))}
        {found.length === 0 && <li className={classes.none}>Nothing by that name.</li>}
      </ul>
    </Modal>
  );
}
