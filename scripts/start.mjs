// `npm start`: sets everything up on a fresh machine and serves the demo.
import { ensureBuild, ensureKernelFiles, ensurePackages } from "./ensure.mjs";

ensurePackages();
ensureKernelFiles();
ensureBuild();
const { serve } = await import("./server.mjs");
process.exit(await serve("start"));
