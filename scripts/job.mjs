// `npm run job -- …`: the headless command. It never installs: what is missing is said in one line.
import { needPackages, root } from "./ensure.mjs";

needPackages();
// Files are named from where the command was called; the program itself runs in the project.
process.env.SGORBIA_CWD = process.env.INIT_CWD ?? process.cwd();
process.argv = [process.execPath, "job", ...process.argv.slice(2)];
process.chdir(root);
const { useKernelCode } = await import("./kernelCode.mjs");
useKernelCode();
const { importBundled } = await import("./bundle.mjs");
await importBundled("src/cli/job.ts");
