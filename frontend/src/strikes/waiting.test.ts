import { expect, it } from "vitest";
import type { Act } from "./actStore";
import { newStrike } from "./newStrike";
import { waitingWords } from "./waiting";

const take = (id: string): Act => ({ kind: "take", strike: { ...newStrike("pw", 46, "full"), id } });
const tick = (operation: number): Act => ({
  kind: "tick",
  id: `o.0.${operation}`,
  order: "o",
  club: 0,
  operation,
  done: true,
});
const feel = (block: number): Act => ({ kind: "feel", proof: "p", id: "p", block, value: 3 });

it("a strike is one strike, whatever was said of it since", () => {
  const said: Act[] = [take("a"), { kind: "tell", id: "a", changes: { note: "wet" } }, { kind: "undo", id: "a" }];
  expect(waitingWords(said)).toEqual({ words: "1 strike", one: true });
  expect(waitingWords([...said, take("b")])).toEqual({ words: "2 strikes", one: false });
});

it("what is no strike is not called one", () => {
  expect(waitingWords([tick(0), tick(1)])).toEqual({ words: "2 ticks", one: false });
  expect(waitingWords([feel(0)])).toEqual({ words: "1 feel of a block", one: true });
  expect(waitingWords([feel(0), feel(1), take("a"), tick(0)]).words).toBe("2 feels of blocks, 1 strike, 1 tick");
});

it("the same tick put and taken off again is one", () => {
  expect(waitingWords([tick(0), { ...tick(0), done: false } as Act]).words).toBe("1 tick");
});
