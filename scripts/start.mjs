// `npm start`: sets everything up on a fresh machine and serves the demo.
// `npm start -- --restore FILE`: the same with a kept copy of a shelf put into an empty data folder first.
import { existsSync } from "node:fs";
import path from "node:path";
import { parseArgs } from "node:util";
import { ensureBuild, ensureKernelFiles, ensurePackages, say } from "./ensure.mjs";

const wanted = asked();
ensurePackages();
ensureKernelFiles();
ensureBuild();
const { serve } = await import("./server.mjs");
process.exit(await serve("start", wanted.restore ? { SGORBIA_RESTORE: path.resolve(wanted.restore) } : {}));

function asked() {
  try {
    const { values } = parseArgs({ options: { restore: { type: "string" } } });
    if (values.restore !== undefined && !existsSync(values.restore))
      throw new Error(`there is no file ${values.restore}`);
    return values;
  } catch (e) {
    say(`${e.message}\nnpm start [-- --restore FILE]`);
    process.exit(2);
  }
}
