import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";

const root = path.resolve(import.meta.dirname, "..");
const sources = (folder) =>
  readdirSync(folder, { withFileTypes: true })
    .flatMap((e) => (e.isDirectory() ? sources(path.join(folder, e.name)) : [path.join(folder, e.name)]))
    .filter((f) => /\.ts$/.test(f) && !/\.test\.ts$/.test(f))
    .sort();

/** What the engine is made of, as a short key: whatever it computed goes with it. */
export function engineVersion() {
  const hash = createHash("sha256");
  for (const folder of ["src/core", "src/kernel"])
    for (const file of sources(path.join(root, folder))) hash.update(readFileSync(file));
  const { dependencies } = JSON.parse(readFileSync(path.join(root, "package.json"), "utf8"));
  hash.update(JSON.stringify(dependencies));
  return hash.digest("hex").slice(0, 16);
}
