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
  id: number;
  wish: KernelWish;
  /** How often the kernel has stopped over it. */
  crashes: number;
  done(value: unknown): void;
  failed(e: Error): void;
}
interface Desk {
  child: ChildProcess | null;
  /** In the order they are worked on: the first is in the kernel's hands. */
  waiting: Waiting[];
  last: number;
  timer: ReturnType<typeof setTimeout> | null;
}
// One process however often this module is loaded: the server bundles it once a route.
const desk: Desk = ((globalThis as { sgorbiaKernelDesk?: Desk }).sgorbiaKernelDesk ??= {
  child: null,
  waiting: [],
  last: 0,
  timer: null,
});

/** A wish is given up when the kernel has stopped over it this often. */
const MOST_CRASHES = 2;

function host(): ChildProcess {
  if (desk.child) return desk.child;
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), "scripts", "kernel.mjs");
  const child = fork(file, [], {
    serialization: "advanced",
    stdio: ["ignore", "ignore", "inherit", "ipc"],
  });
  desk.child = child;
  child.on("message", (m) => {
    const answer = m as Answered;
    const w = takeOff(answer.id);
    if ("error" in answer) w?.failed(new Error(answer.error));
    else w?.done(answer.value);
    watchFirst();
    // Nothing of it keeps the server from ending while nobody waits.
    if (desk.waiting.length === 0) rest(child);
  });
  child.on("exit", () => stopped(child, "the solid kernel stopped"));
  child.on("error", (e) => stopped(child, `the solid kernel could not be started (${e.message})`));
  return child;
}

function takeOff(id: number): Waiting | undefined {
  const at = desk.waiting.findIndex((w) => w.id === id);
  return at < 0 ? undefined : desk.waiting.splice(at, 1)[0];
}

/** The kernel is gone: the wish it was at is tried once more, after the others, and those lose nothing. */
function stopped(child: ChildProcess, why: string): void {
  if (desk.child !== child) return;
  desk.child = null;
  const [first, ...others] = desk.waiting;
  if (!first) return;
  desk.waiting = others;
  if (++first.crashes >= MOST_CRASHES) first.failed(new Error(why));
  else desk.waiting.push(first);
  if (!desk.waiting.length) return watchFirst();
  const next = host();
  wake(next);
  for (const w of desk.waiting) send(next, w);
  watchFirst();
}

/** The wish that is being worked on is given up after a while; those behind it have not begun. */
function watchFirst(): void {
  if (desk.timer) clearTimeout(desk.timer);
  desk.timer = null;
  const [first] = desk.waiting;
  if (!first) return;
  desk.timer = setTimeout(() => {
    takeOff(first.id);
    first.failed(new Error("the solid kernel took too long over it"));
    const child = desk.child;
    desk.child = null;
    child?.kill("SIGKILL");
    if (!desk.waiting.length) return;
    const next = host();
    wake(next);
    for (const w of desk.waiting) send(next, w);
    watchFirst();
  }, PATIENCE);
}

const send = (child: ChildProcess, { id, wish }: Waiting): void => {
  // What cannot be sent any more is sent again to the next one, when this one's end is told.
  child.send({ id, wish } satisfies Asked, () => undefined);
};
const rest = (c: ChildProcess) => {
  c.unref();
  c.channel?.unref();
};
const wake = (c: ChildProcess) => {
  c.ref();
  c.channel?.ref();
};

/**
 * Asks the kernel's own process: a row that takes seconds holds up nobody's save. When it stops, what waits is asked
 * once more of a new one. @throws when it stops over this wish twice, or takes too long
 */
export function askKernelHost<W extends KernelWish>(wish: W): Promise<KernelAnswer<W>> {
  const child = host();
  wake(child);
  return new Promise((resolve, reject) => {
    const waiting: Waiting = {
      id: ++desk.last,
      wish,
      crashes: 0,
      done: (v) => resolve(v as KernelAnswer<W>),
      failed: reject,
    };
    desk.waiting.push(waiting);
    if (desk.waiting.length === 1) watchFirst();
    send(child, waiting);
  });
}
