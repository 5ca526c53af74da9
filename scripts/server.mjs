// Starts Next on this computer only, on a free port, and ends it cleanly.
import { spawn } from "node:child_process";
import { createServer } from "node:net";
import path from "node:path";
import { root, say } from "./ensure.mjs";

const free = (port) =>
  new Promise((resolve) => {
    const s = createServer();
    s.once("error", () => resolve(false));
    s.listen(port, "127.0.0.1", () => s.close(() => resolve(true)));
  });

/** The wanted port, or the next one that is free. */
export async function freePort(wanted) {
  for (let p = wanted; p < wanted + 50; p++) if (await free(p)) return p;
  throw new Error(`no free port from ${wanted} to ${wanted + 49}`);
}

/** Whether the server has its data folder and answers; false when it ended before. */
async function ready(port, gone) {
  while (!gone()) {
    if (
      await fetch(`http://127.0.0.1:${port}/api/ready`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return true;
    await new Promise((resolve) => setTimeout(resolve, 150));
  }
  return false;
}

/** Runs `next dev` or `next start`; Ctrl-C or a kill of this process ends it. @returns its exit code */
export async function serve(mode, more = {}) {
  const wanted = Number(process.env.PORT ?? 4310);
  const port = await freePort(wanted);
  if (port !== wanted) say(`Port ${wanted} is taken, using ${port}.`);
  const next = path.join(root, "node_modules/next/dist/bin/next");
  // The channel tells the server when this process is gone, so that it never stays behind alone with the data folder.
  const child = spawn(process.execPath, [next, mode, "-H", "127.0.0.1", "-p", String(port)], {
    cwd: root,
    stdio: ["ignore", "pipe", "inherit", "ipc"],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", ...more },
  });
  child.stdout.on("data", (d) => {
    if (mode === "dev") process.stdout.write(d);
  });
  let gone = false;
  child.on("exit", () => {
    gone = true;
  });
  void ready(port, () => gone).then((is) => {
    if (is) console.log(`Sgorbia is at http://127.0.0.1:${port}  (Ctrl-C ends it)`);
  });
  let ending = false;
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"])
    process.on(signal, () => {
      if (ending) return;
      ending = true;
      child.kill("SIGTERM");
      setTimeout(() => child.kill("SIGKILL"), 5000).unref();
    });
  return new Promise((resolve) => child.on("exit", (code) => resolve(ending ? 0 : (code ?? 1))));
}
