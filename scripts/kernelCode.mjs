import v8 from "node:v8";

/**
 * A flag for the JavaScript engine: the solid kernel's code is made quick only where it runs long. It is 22 MB, and
 * making all of it quick that runs a little costs short runs (a test, one command) a third of their time. Measured over
 * test files and `check`: 60 million is better than 2 (the engine's own), 20, and never making it quick.
 */
export const kernelCode = "--wasm-tiering-budget=60000000";

/** The same for this process; called before the kernel is loaded. */
export const useKernelCode = () => v8.setFlagsFromString(kernelCode);
