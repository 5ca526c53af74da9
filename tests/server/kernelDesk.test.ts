import { spawn } from "node:child_process";
import { readCard } from "@/core/callout";
import { noSettings } from "@/core/tables";
import { askKernelHost } from "@/server/kernelDesk";

const wish = (text: string) => {
  const { document, errors } = readCard(`UNIT mm\n${text}`);
  if (errors.length) throw new Error(errors[0].message);
  return { want: "summary" as const, job: document, files: {}, shop: noSettings };
};
/** The kernel's process, as the desk has it. */
const kernelPid = () =>
  (globalThis as { sgorbiaKernelDesk?: { child: { pid?: number } | null } }).sgorbiaKernelDesk?.child?.pid;
const isAlive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};
const until = async (test: () => boolean, ms: number) => {
  for (const end = Date.now() + ms; !test() && Date.now() < end;) await new Promise((r) => setTimeout(r, 50));
  return test();
};
afterAll(async () => {
  const pid = kernelPid();
  if (pid) process.kill(pid, "SIGKILL");
  // Its end is heard before the test's own world is taken down.
  await until(() => kernelPid() === undefined, 5000);
});

describe("the server's kernel", () => {
  it("that is killed loses nobody's wish: all are answered by the next one", async () => {
    await askKernelHost(wish("LEAVE BLOCK 9 X 9 X 9"));
    const first = kernelPid()!;
    const rows = Array.from({ length: 20 }, (_, i) => `CUT ⌀3 THRU AT ${i * 5 - 50},0`).join("\n");
    const asked = [1, 2, 3].map((n) => askKernelHost(wish(`LEAVE BLOCK 120 X 40 X ${n}\n${rows}`)));
    process.kill(first, "SIGKILL");
    const answers = await Promise.all(asked);
    expect(answers.map((a) => a.failed)).toEqual([0, 0, 0]);
    expect(kernelPid()).not.toBe(first);
  }, 120_000);

  it("ends with the server that started it, in the middle of a row too", async () => {
    const server = spawn(process.execPath, ["--import", "tsx", "tests/helpers/kernelServer.mts"], {
      stdio: ["ignore", "pipe", "inherit"],
      env: { ...process.env, NODE_OPTIONS: "" },
    });
    const pid = Number(await new Promise((told) => server.stdout.once("data", (d) => told(String(d)))));
    // Long enough for the library to be loaded and the rows begun.
    await new Promise((r) => setTimeout(r, 4000));
    expect(isAlive(pid)).toBe(true);
    server.kill("SIGKILL");
    expect(await until(() => !isAlive(pid), 5000)).toBe(true);
  }, 60_000);
});
