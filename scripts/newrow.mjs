// Makes the folder of a new row kind from the ring groove's: npm run newrow cutSomething
import { cpSync, existsSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { root, say } from "./ensure.mjs";

const name = process.argv[2] ?? "";
if (!/^(cut|leave)[A-Z][A-Za-z]+$/.test(name)) {
  say("A row kind is named cutSomething or leaveSomething.");
  process.exit(2);
}
const folder = path.join(root, "src/core/rows", name);
if (existsSync(folder)) {
  say(`${name} is there already.`);
  process.exit(2);
}
cpSync(path.join(root, "src/core/rows/cutRingGroove"), folder, { recursive: true });
const file = path.join(folder, "index.ts");
writeFileSync(
  file,
  readFileSync(file, "utf8")
    .replaceAll("cutRingGroove", name)
    .replaceAll("CutRingGroove", name[0].toUpperCase() + name.slice(1)),
);
say(`src/core/rows/${name}/index.ts is made; docs/extend.md says what comes next.`);
