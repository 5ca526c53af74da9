import { fork, type ChildProcess } from "node:child_process";
import path from "node:path";
import type { JobDocument, JobSummary } from "@/core/job";
import type { Result } from "@/core/base/result";
import type { ShopSettings } from "@/core/tables";
import type { ExportKind } from "@/io/exportJob";

/** What is asked of the process that has the solid kernel. */
export type KernelWish = (
  { want: "summary"; job: JobDocument } | { want: "file"; job: JobDocument; kind: ExportKind; of: FileOf }
) & {
  /** The files of the job's solids, by their content. */
  files: Record<string, Uint8Array>;
  shop: ShopSettings;
};
/** What of a job a file is of: one of its setups, or another part; without either the workpiece. */
export interface FileOf {
  setup?: number;
  part?: string;
}
type KernelAnswer<W extends KernelWish> = W["want"] extends "summary" ? JobSummary : Result<Uint8Array>;
export interface Asked {
  id: number;
  wish: KernelWish;
}
export type Answered = { id: number } & ({ value: unknown } | { error: string });

/** A picture or file that takes longer than this is given up, ms: its process is ended with it. */
const PATIENCE = 180_000;

interface Waiting {
  done(value: unknown): void;
  failed(e: Error): void;
}
// One process however often this module is loaded: the server bundles it once a route.
const desk = ((
  globalThis as { sgorbiaKernelDesk?: { child: ChildProcess | null; waiting: Map<number, Waiting>; last: number } }
).sgorbiaKernelDesk ??= { child: null, waiting: new Map(), last: 0 });

function host(): ChildProcess {
  if (desk.child) return desk.child;
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), "scripts", "kernel.mjs");
  const child = fork(file, [], {
    serialization: "advanced",
    stdio: ["ignore", "ignore", "inherit", "ipc"],
  });
  desk.child = child;
  const gone = (why: string) => {
    if (desk.child !== child) return;
    desk.child = null;
    const waiting = [...desk.waiting.values()];
    desk.waiting.clear();
    for (const w of waiting) w.failed(new Error(why));
  };
  child.on("message", (m) => {
    const answer = m as Answered,
      w = desk.waiting.get(answer.id);
    desk.waiting.delete(answer.id);
    if ("error" in answer) w?.failed(new Error(answer.error));
    else w?.done(answer.value);
    // Nothing of it keeps the server from ending while nobody waits.
    if (desk.waiting.size === 0) rest(child);
  });
  child.on("exit", () => gone("the solid kernel stopped"));
  child.on("error", (e) => gone(`the solid kernel could not be started (${e.message})`));
  return child;
}
const rest = (c: ChildProcess) => {
  c.unref();
  c.channel?.unref();
};
const wake = (c: ChildProcess) => {
  c.ref();
  c.channel?.ref();
};

/**
 * Asks the kernel's own process: a row that takes seconds holds up nobody's save. @throws when it stops or takes too
 * long
 */
export function askKernelHost<W extends KernelWish>(wish: W): Promise<KernelAnswer<W>> {
  const child = host(),
    id = ++desk.last;
  wake(child);
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => {
      child.kill("SIGKILL");
    }, PATIENCE);
    const end =
      <T>(f: (v: T) => void) =>
      (v: T) => {
        clearTimeout(timer);
        f(v);
      };
    desk.waiting.set(id, { done: end((v) => resolve(v as KernelAnswer<W>)), failed: end(reject) });
    child.send({ id, wish } satisfies Asked, (e) => {
      if (e) {
        desk.waiting.get(id)?.failed(e);
        desk.waiting.delete(id);
      }
    });
  });
}
