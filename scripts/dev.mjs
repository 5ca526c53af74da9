// `npm run dev`: live reload.
import { ensureKernelFiles, needPackages } from "./ensure.mjs";

needPackages();
ensureKernelFiles();
const { serve } = await import("./server.mjs");
process.exit(await serve("dev"));
