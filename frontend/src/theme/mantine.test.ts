import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";

const files = readdirSync("src", { recursive: true, encoding: "utf8" }).filter((name) => /\.tsx?$/.test(name));

it("imports the styles of every Mantine component that is used", () => {
  const styles = readFileSync("src/theme/mantine.css", "utf8");
  const used = new Set(
    files.flatMap((name) =>
      [...readFileSync(join("src", name), "utf8").matchAll(/import \{([^}]*)\} from "@mantine\/core"/g)].flatMap(
        (found) => (found[1] ?? "").split(",").map((one) => one.replace("type ", "").trim()),
      ),
    ),
  );
  const missing = [...used].filter(
    (name) => existsSync(`node_modules/@mantine/core/styles/${name}.css`) && !styles.includes(`/${name}.css`),
  );
  expect(used.size).toBeGreaterThan(10);
  expect(missing).toEqual([]);
});
