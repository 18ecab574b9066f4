import "@mantine/spotlight/styles.css";
import { Kbd, Modal } from "@mantine/core";
import { useHotkeys, useWindowEvent } from "@mantine/hooks";
import { Spotlight } from "@mantine/spotlight";
import { useState } from "react";
import { useNavigate } from "react-router";
import { useStore } from "./context";
import classes from "./Keys.module.css";
import { STEPS } from "./steps";
import { useKeep } from "./useKeep";

/** Keys of the whole frame, the palette on `/` and the list of keys on `?`. */
export function Keys({ current }: { current: string }) {
  const navigate = useNavigate();
  const store = useStore();
  const keep = useKeep();
  const [help, setHelp] = useState(false);
  const go = (key: string) => navigate(`/fittings/${store.server.id}/${key}`);
  // whatever had the focus, the step's heading has it then
  const press = (key: string) => {
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    if (key === current) document.querySelector<HTMLElement>("#work h1")?.focus();
    else go(key);
  };
  const turn = (by: number) => {
    const at = STEPS.findIndex((step) => step.key === current);
    const next = STEPS[(at + by + STEPS.length) % STEPS.length];
    if (next) press(next.key);
  };
  useHotkeys([
    ...STEPS.map((step): [string, () => void] => [step.hotkey === "-" ? "Minus" : step.hotkey, () => press(step.key)]),
    ["-", () => press("log")],
    // on Strikes the two buttons of a remote choose station and club
    ["PageDown", () => current !== "strikes" && turn(1)],
    ["PageUp", () => current !== "strikes" && turn(-1)],
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

  const command = (label: string, hint: string, run: () => void) => ({
    id: label,
    label,
    rightSection: <span className={classes.hint}>{hint}</span>,
    onClick: run,
  });
  const commands = [
    ...STEPS.map((step) => command(step.name, step.hotkey, () => go(step.key))),
    command("Keep this proposal", "K", () => keep.mutate()),
    command("Kept proposals", "", () => go("kept")),
    command("Strikes from a file", "", () => go("import")),
    command("Shot desk", "", () => navigate("/desk")),
    command("Undo", "Ctrl Z", store.undo),
    command("Redo", "Ctrl Shift Z", store.redo),
    command("Sessions and password", "", () => navigate("/account")),
    command("All players", "", () => navigate("/")),
    command("Save to file", "", () => saveFile(`/api/fittings/${store.server.id}/export`)),
    command("Print this step", "Ctrl P", () => setTimeout(() => window.print(), 300)),
    command("Keys", "?", () => setHelp(true)),
  ];
  return (
    <>
      <Spotlight
        attributes={{ content: { "aria-label": "Find a step or a command" } }}
        actions={commands}
        shortcut="/"
        scrollable
        maxHeight={440}
        nothingFound="Nothing by that name."
        searchProps={{ "aria-label": "Step or command", placeholder: "Step or command" }}
      />
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
            ["G / H / T / L / O", "on Proof: the ball was good, heavy, thin, left in, over; U takes the last out"],
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

/** A file of the server is saved as by a link. */
function saveFile(href: string) {
  const link = document.createElement("a");
  link.href = href;
  link.download = "";
  link.click();
}
