import { expect, it } from "vitest";
import { base64Of, textInBase64, textOf } from "./files";

it("a file is sent as it is, however long and whatever it holds", async () => {
  const bytes = Uint8Array.from({ length: 100_000 }, (_, n) => n % 256);
  const sent = Uint8Array.from(atob(await base64Of(new File([bytes], "a.xlsx"))), (one) => one.charCodeAt(0));
  expect(sent).toEqual(bytes);
  const text = "Düne;−1\r\n";
  expect(await base64Of(new File([text], "a.csv"))).toBe(textInBase64(text));
  expect(await textOf(new File([text], "a.json"))).toBe(text);
});

it("a file that is gone since it was chosen says so", async () => {
  const gone = {
    text: () => Promise.reject(new Error("NotReadable")),
    arrayBuffer: () => Promise.reject(new Error("")),
  };
  await expect(textOf(gone as unknown as File)).rejects.toThrow("cannot be read");
  await expect(base64Of(gone as unknown as File)).rejects.toThrow("Choose it again");
});
