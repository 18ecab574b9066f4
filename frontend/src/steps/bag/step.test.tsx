import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { TABLES, usualOf } from "../../api/tables";
import { inFitting, server, show, showAlone } from "../../testing/show";
import BagStep from "./BagStep";

const edit = vi.fn();
beforeEach(() => {
  edit.mockClear();
  server({});
});
const wedge = (name: string) => ({
  ...usualOf(TABLES.head), name, stamped_loft_deg: 56, loft_deg: 56, bounce_deg: 10, measured: true, loft_typed: false,
  make: "forged", bend_limit_deg: 2, wear_class: "fresh", wear: "", photos: [], bends_deg: [], built: null,
}); // biome-ignore format: one line a few things
const BAG = {
  wedges: [wedge("gap"), wedge("sand"), wedge("lob")], pitching_wedge_loft_deg: 46, nine_iron_loft_deg: 41,
  pitching_wedge_bounce_deg: 6, other_clubs: 11, former: [],
}; // biome-ignore format: one line a few things
const step = (bag: object = BAG, room = 3) =>
  show(<BagStep />, {
    server: {
      id: "f",
      wedge_room: room,
      owned: [],
      recommendation: null,
      document: { rack: null, bag: { wedges: [] } },
    },
    draft: { bag },
    edit,
  });
const names = () => edit.mock.lastCall?.[1].wedges.map((one: { name: string }) => one.name);

it("a wedge that is added is one more, assumed until it is measured", () => {
  step();
  expect(screen.getByText("room for 3 wedges in 14 clubs")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Add a wedge they own" }));
  expect(names()).toEqual(["gap", "sand", "lob", "wedge 4"]);
  expect(edit.mock.lastCall?.[1].wedges[3]).toMatchObject({ measured: false, loft_typed: false, built: null });
});

it("the wedge that is removed is the one in sight, and the others keep their places", async () => {
  step();
  fireEvent.click(screen.getByRole("button", { name: /sand/ }));
  expect((screen.getByLabelText("Name") as HTMLInputElement).value).toBe("sand");
  fireEvent.click(await screen.findByRole("button", { name: "Remove this wedge" }));
  expect(names()).toEqual(["gap", "lob"]);
});

it("what is typed goes to the wedge in sight alone", () => {
  step();
  fireEvent.click(screen.getByRole("button", { name: /lob/ }));
  fireEvent.change(screen.getByLabelText("Measured loft"), { target: { value: "60.5" } });
  expect(edit.mock.lastCall?.[1].wedges.map((one: { loft_deg: number }) => one.loft_deg)).toEqual([56, 56, 60.5]);
  fireEvent.change(screen.getByLabelText("Clubs that are not wedges"), { target: { value: "12" } });
  expect(edit).toHaveBeenLastCalledWith("bag", { ...BAG, other_clubs: 12 });
  edit.mockClear();
  fireEvent.change(screen.getByLabelText("Pitching-wedge loft"), { target: { value: "" } });
  expect(edit).not.toHaveBeenCalled();
});

it("the wedge in sight stays in sight where another leaves the bag on another screen, with what is being typed", () => {
  const part = (wedges: object[]) =>
    inFitting(<BagStep />, {
      server: {
        id: "f",
        wedge_room: 3,
        owned: [],
        recommendation: null,
        document: { rack: null, bag: { wedges: [] } },
      },
      draft: { bag: { ...BAG, wedges } },
      edit,
    });
  const { again } = showAlone(part(BAG.wedges));
  fireEvent.click(screen.getByRole("button", { name: /lob/ }));
  const loft = () => screen.getByLabelText("Measured loft") as HTMLInputElement;
  fireEvent.change(loft(), { target: { value: "60.5." } });
  again(part(BAG.wedges.slice(1)));
  expect((screen.getByLabelText("Name") as HTMLInputElement).value).toBe("lob");
  expect(loft().value).toBe("60.5.");
  fireEvent.change(loft(), { target: { value: "60.5" } });
  expect(edit.mock.lastCall?.[1].wedges.map((one: { loft_deg: number }) => one.loft_deg)).toEqual([56, 60.5]);
  again(part([wedge("sand")]));
  expect((screen.getByLabelText("Name") as HTMLInputElement).value).toBe("sand");
});

it("a photo that takes its time joins those of its wedge, in the bag as it is by then", async () => {
  let arrive: (photo: object) => void = () => {};
  server({ "POST photos": new Promise((done) => (arrive = done)) });
  step();
  fireEvent.click(screen.getByRole("button", { name: /lob/ }));
  const file = new File(["x"], "sole.jpg", { type: "image/jpeg", lastModified: 1 });
  fireEvent.change(await screen.findByLabelText("Photo of lob"), { target: { files: [file] } });
  fireEvent.click(screen.getByRole("button", { name: /sand/ }));
  arrive({ id: "new" });
  await waitFor(() => expect(edit).toHaveBeenCalledOnce());
  const bag = edit.mock.lastCall?.[1]({ ...BAG, wedges: [wedge("sand"), { ...wedge("lob"), wear: "worn" }] });
  expect(bag.wedges[1]).toMatchObject({ name: "lob", wear: "worn", photos: ["new"] });
  expect(bag.wedges[0].photos).toEqual([]);
});

it("a ninth wedge is not asked for, and a bag with room for one says so", () => {
  step({ ...BAG, wedges: Array.from({ length: 8 }, (_, n) => wedge(`w${n}`)) }, 1);
  expect(screen.getByRole("button", { name: "Add a wedge they own" }).hasAttribute("disabled")).toBe(true);
  expect(screen.getByText("room for 1 wedge in 14 clubs")).toBeTruthy();
});
