// `npm run job -- …`: the headless command. It never installs: what is missing is said in one line.
import { spawnSync } from "node:child_process";
import path from "node:path";
import { needPackages, root } from "./ensure.mjs";

needPackages();
const cwd = process.env.INIT_CWD ?? process.cwd();
// Files are named from where the command was called; the program itself runs in the project.
const args = process.argv.slice(2).map((a, i, all) => (i === 1 || all[i - 1] === "--out" ? path.resolve(cwd, a) : a));
const run = spawnSync(process.execPath, ["--import", "tsx", "src/cli/job.ts", ...args], {
  cwd: root,
  stdio: "inherit",
});
process.exit(run.status ?? 3);
