// `npm run job -- …`: the headless command. It never installs: what is missing is said in one line.
import path from "node:path";
import { needPackages, root } from "./ensure.mjs";

needPackages();
const cwd = process.env.INIT_CWD ?? process.cwd();
// Files are named from where the command was called; the program itself runs in the project.
const args = process.argv.slice(2).map((a, i, all) => (i === 1 || all[i - 1] === "--out" ? path.resolve(cwd, a) : a));
process.argv = [process.execPath, "job", ...args];
process.chdir(root);
const { importBundled } = await import("./bundle.mjs");
await importBundled("src/cli/job.ts");
