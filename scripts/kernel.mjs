// The process that has the solid kernel on the server's side, started by the server.
import { importBundled } from "./bundle.mjs";
import { useKernelCode } from "./kernelCode.mjs";

useKernelCode();
await importBundled("src/server/kernelHost.ts");
