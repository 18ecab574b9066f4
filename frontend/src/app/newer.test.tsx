import { act, screen } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { api } from "../api/client";
import { hearProgram } from "../api/program";
import { server, showAlone } from "../testing/show";
import { Newer } from "./Newer";

const says = (name?: string) => new Response("{}", { headers: name ? { "X-Oblatus-Program": name } : {} });
function begun(name: string) {
  const script = document.createElement("script");
  script.type = "module";
  script.src = `/assets/${name}`;
  document.head.append(script);
}
const told = () => screen.queryByRole("alert", { name: "A newer Oblatus" });
const hear = (name?: string) => act(() => hearProgram(says(name)));

afterEach(() => {
  for (const script of document.querySelectorAll("script")) script.remove();
});

it("a page of before an upgrade says so, and no longer where the upgrade is taken back", async () => {
  begun("index-old.js");
  showAlone(<Newer />);
  for (const same of ["index-old.js", undefined]) {
    hear(same);
    expect(told()).toBeNull();
  }
  hear("index-new.js");
  expect(told()?.textContent).toContain("What is saved stays");
  hear("index-old.js");
  expect(told()).toBeNull();
});

it("it is heard of every answer of the server", async () => {
  begun("index-old.js");
  showAlone(<Newer kept={false} />);
  server({});
  const fetched = globalThis.fetch;
  globalThis.fetch = async (...asked) => {
    const answer = await fetched(...asked);
    answer.headers.set("X-Oblatus-Program", "index-new.js");
    return answer;
  };
  await act(() => api.GET("/api/fittings"));
  expect(told()?.textContent).toContain("What is not saved yet goes with this page");
  hear("index-old.js");
});

it("a page that is served while it is worked on has no name, and nothing is said of it", () => {
  showAlone(<Newer />);
  hear("index-new.js");
  expect(told()).toBeNull();
});
