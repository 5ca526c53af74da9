import { giveSolids } from "@/core/engine/solidFiles";
import * as Comlink from "comlink";
import { apply, type Patches } from "mutative";
import init from "replicad-opencascadejs";
import type { Vec3 } from "@/core/geometry/vec";
import { evaluate, type Evaluation } from "@/core/evaluate/evaluate";
import { prepare } from "@/core/engine/prepare";
import { place } from "@/core/engine/place";
import { solve, Superseded } from "@/core/engine/solve";
import type { DrawnLine, KernelStep, FaceInfo, Mesh, StateMeasure } from "@/core/engine/kernel";
import { viewOf } from "@/core/engine/views";
import type { RowPlanes } from "@/core/engine/planes";
import { ok } from "@/core/base/result";
import { jobOf } from "@/core/job/parts";
import type { Job, JobDocument, Row } from "@/core/job/schema";
import { evaluateParts, type EvaluatedPart } from "@/core/evaluate/parts";
import {
  asPart,
  assemblyOf,
  besideOf,
  type Moment,
  derive,
  evaluateSetups,
  setupsView,
  type EvaluatedSetups,
  type FixtureKind,
  type FixtureWishes,
  type SetupsView,
  type Standing,
} from "@/core/setups";
import { pathFile, type PathFile } from "@/core/paths/file";
import { planPaths, type PathPlan } from "@/core/paths/plan";
import { shopOf, usualShop, type Shop, type ShopSettings } from "@/core/tables";
import { explain, type Mismatch } from "@/core/mismatch";
import { triedFixes, type Trial } from "@/core/evaluate/triedFixes";
import { packStanding } from "@/core/evaluate/standing";
import { OpenCascadeKernel } from "./openCascade";
import { warmUp } from "./warmUp";

/** What the page gets of an evaluation: plain data. */
export interface Evaluated {
  evaluation: Evaluation;
}
/** The wireframe that belongs to an evaluation: planned after it, for whoever waits for the picture does not wait for paths. */
export interface Planned {
  plans: PathPlan[];
  file: PathFile;
}
/** What is told while a job is worked out: the row it has come to, and the part as it stands there. */
export interface News {
  row: number;
  of: number;
  picture: Picture | null;
}
/** A state's picture with what each face is. */
export interface Picture {
  key: string;
  mesh: Mesh;
  faces: FaceInfo[];
  measure: StateMeasure;
}

let kernel: Promise<OpenCascadeKernel> | null = null;
const load = async (): Promise<OpenCascadeKernel> => {
  // One that broke in its own memory is replaced by a new one.
  if ((await kernel)?.broken) kernel = null;
  return (kernel ??= start());
};
const start = async (): Promise<OpenCascadeKernel> => {
  const oc = await init({ locateFile: () => "/kernel/kernel.wasm", print: () => {}, printErr: () => {} });
  return new OpenCascadeKernel(oc);
};

/** The figures the shop works with. */
let shop: Shop = usualShop;

let newest = 0;
let stopped = -1;
let stoppedRun = -1;
/** Lets waiting messages in, so that a newer edit can supersede this one between rows. */
const breathe = () =>
  new Promise<void>((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
let lastPause = 0;

/** How long nothing may be told, ms. */
const TELL_EVERY = 400;
/** The job as the page last said it, kept here so that an edit brings only what it changed. */
let held: { turn: number; job: Job } | null = null;
let last: { turn: number; job: Job; evaluation: Evaluation; planned?: Planned } | null = null;

/** A body that stands in a setup: its picture, and where its own X Y Z lie in the setup's. */
export interface StandingBody extends Pick<Standing, "is" | "name" | "place" | "opens"> {
  mesh: Mesh;
}
export interface SetupsTold {
  view: SetupsView;
  bodies: StandingBody[];
}

/** The setups of the document that was asked for last: looked at one after the other they are worked out once. */
let lastSetups: { of: string; by: OpenCascadeKernel; parts: EvaluatedPart[]; evaluated: EvaluatedSetups } | null = null;
async function setupsOf(document: JobDocument, k: OpenCascadeKernel) {
  const of = JSON.stringify(document);
  if (lastSetups?.of === of && lastSetups.by === k && isStillThere(lastSetups.evaluated, k)) return lastSetups;
  await giveSolids(document.solids, k, attachment);
  const { limits } = shop;
  const parts = await evaluateParts(document, await evaluate(jobOf(document), k, { limits }), k, limits);
  return (lastSetups = { of, by: k, parts, evaluated: evaluateSetups({ document, parts, kernel: k, shop }) });
}

/** Whether the solids of setups that were worked out are still kept. */
const isStillThere = ({ setups }: EvaluatedSetups, k: OpenCascadeKernel): boolean =>
  setups.every((s) => (!s.standing || k.has(s.standing.piece.before)) && s.lying.every((l) => k.has(l.holder)));

/** A job as it comes: whole, or as what became of the one of an earlier turn. */
export type Told = { whole: Job } | { from: number; patches: Patches };

/** The job that was told; null where the one it was made from is not here. */
function heldAfter(told: Told, turn: number): Job | null {
  if ("whole" in told) held = { turn, job: told.whole };
  else if (held?.turn !== told.from) return null;
  else held = { turn, job: told.patches.length ? (apply(held.job as object, told.patches) as Job) : held.job };
  return held.job;
}

/** A file of the job, from the server this page came from. */
async function attachment(hash: string): Promise<Uint8Array | null> {
  try {
    const answer = await fetch(`/api/attachments/${hash}`);
    return answer.ok ? new Uint8Array(await answer.arrayBuffer()) : null;
  } catch {
    return null;
  }
}

const pictureOf = (k: OpenCascadeKernel, key: string): Picture | null =>
  k.has(key) ? { key, mesh: k.mesh(key), faces: k.faces(key), measure: k.measure(key) } : null;

const pause = async () => {
  if (performance.now() - lastPause < 20) return;
  await breathe();
  lastPause = performance.now();
};
const planned = (of: NonNullable<typeof last>): Planned => {
  const plans = planPaths(of.job, of.evaluation.solved.rows, of.evaluation.stock?.placed.box);
  return (of.planned ??= { plans, file: pathFile(of.job, of.evaluation, plans) });
};

/** What became of an evaluation: done, given up for a newer one, stopped at a row, or asked for the whole job. */
export type Outcome =
  | { is: "done"; evaluation: Evaluation }
  | { is: "superseded" }
  | { is: "stopped"; row: number; of: number }
  | { is: "unknown job" };

/** The worker's door: the page asks, the solid kernel works here and never on the page's own thread. */
const door = {
  /** Everything is judged and proposed by these figures from now on; what was worked out by others is forgotten. */
  async setShop(settings: ShopSettings): Promise<void> {
    shop = shopOf(settings);
    last = null;
    lastSetups = null;
  },
  /** Evaluates a job, telling how far it is. */
  async evaluate(told: Told, turn: number, tell: (news: News) => void): Promise<Outcome> {
    newest = Math.max(newest, turn);
    const job = heldAfter(told, turn);
    if (!job) return { is: "unknown job" };
    const k = await load();
    await giveSolids(job.solids, k, attachment);
    let said = performance.now();
    let shown: string | null = null;
    let at = { row: 0, of: job.rows.length };
    const say = (row: number, of: number, key: string | null) => {
      said = performance.now();
      const picture = key !== null && key !== shown ? pictureOf(k, key) : null;
      shown = key;
      tell({ row, of, picture });
    };
    try {
      const evaluation = await evaluate(job, k, {
        limits: shop.limits,
        before: last,
        solved: async (key) => {
          say(job.rows.length, job.rows.length, key);
          await breathe();
          if (turn < newest) throw new Superseded();
        },
        patience: {
          reached: (row, of, key) => {
            at = { row, of };
            if (performance.now() - said > TELL_EVERY) say(row, of, key);
          },
          pause,
          cancelled: () => turn < newest || stopped >= turn,
        },
      });
      last = { turn, job, evaluation };
      // Nothing to do yet: the first row that is typed will find the library warm. A job with rows warms it itself.
      if (!job.rows.length) setTimeout(() => warmUp(k), 0);
      return { is: "done", evaluation };
    } catch (e) {
      if (!(e instanceof Superseded)) throw e;
      return stopped >= turn && turn === newest ? { is: "stopped", ...at } : { is: "superseded" };
    }
  },
  /** Ends an `evaluate` of this turn or an older one between two rows: the rows that stand are kept. */
  async stop(turn: number): Promise<void> {
    stopped = Math.max(stopped, turn);
  },
  /** Gives up a run of `explain`. */
  async stopExplaining(run: number): Promise<void> {
    stoppedRun = Math.max(stoppedRun, run);
  },
  /**
   * Fixes of the last evaluation, each tried on the solid, told as they are known; given up when a newer one has come.
   */
  async tryFixes(turn: number, told: (key: string, trial: Trial) => void): Promise<void> {
    if (last?.turn !== turn || turn < newest) return;
    const { job, evaluation } = last;
    const patience = { pause, cancelled: () => turn < newest };
    const ground = { job, evaluation, kernel: await load(), limits: shop.limits, patience };
    await triedFixes(ground, told).catch((e: unknown) => {
      if (!(e instanceof Superseded)) throw e;
    });
  },
  /** The paths of the last evaluation; null when a newer one has come. */
  async plans(turn: number): Promise<Planned | null> {
    return last?.turn === turn && turn >= newest ? planned(last) : null;
  },
  /**
   * All that is known of the last evaluation, packed for the server to keep, and the lines of the shelf's picture; null
   * when a newer one has come.
   */
  async standing(turn: number): Promise<{ bytes: Uint8Array; lines: DrawnLine[] } | null> {
    const k = await load();
    const key = last?.evaluation.solved.finalKey ?? null;
    if (last?.turn !== turn || turn < newest || key === null) return null;
    const picture = pictureOf(k, key);
    if (!picture) return null;
    const bytes = await packStanding({ evaluated: { evaluation: last.evaluation }, planned: planned(last) }, picture);
    return Comlink.transfer({ bytes, lines: k.drawing(key, viewOf.pictorial, false) }, [bytes.buffer as ArrayBuffer]);
  },
  /**
   * Looks for the slip behind each check value that is off, telling what it has as it goes; null when it was stopped
   * or a newer edit came.
   */
  async explain(
    turn: number,
    run: number,
    progress: (done: number, of: number) => void,
    found: (sofar: Mismatch[]) => void,
  ): Promise<Mismatch[] | null> {
    const k = await load();
    if (held?.turn !== turn) return null;
    const { job } = held;
    const patience = { pause, cancelled: () => turn < newest || stoppedRun >= run };
    try {
      const standing =
        last?.turn === turn ? last.evaluation : await evaluate(job, k, { limits: shop.limits, patience });
      return await explain(job, standing, k, { patience, progress, found });
    } catch (e) {
      if (e instanceof Superseded) return null;
      throw e;
    }
  },
  /** Everything that follows from a job's setups, and what stands in the one that is looked at. */
  async setups(document: JobDocument, op: number | null, moment: Moment): Promise<SetupsTold> {
    const k = await load();
    const { parts, evaluated } = await setupsOf(document, k);
    const found = evaluated.setups.find((s) => s.setup.op === op);
    const scope = prepare(parts[0].job).scope;
    const name = parts[0].name;
    const standing = found ? [...assemblyOf(found, k, scope, name, moment), ...besideOf(found, name, moment)] : [];
    const bodies = standing.flatMap(({ key, is, name, place: at, opens }): StandingBody[] =>
      k.has(key) ? [{ mesh: k.mesh(key), is, name, place: at, opens }] : [],
    );
    return { view: setupsView(evaluated), bodies };
  },
  /** What stands in a setup as one STEP file, on its datum; or one of the things that hold, by its name, as it is made. */
  async setupStep(document: JobDocument, op: number, name: string | null): Promise<Uint8Array | null> {
    const k = await load();
    const { parts, evaluated } = await setupsOf(document, k);
    const found = evaluated.setups.find((s) => s.setup.op === op);
    const all = found ? assemblyOf(found, k, prepare(parts[0].job).scope, parts[0].name) : [];
    const wanted = name === null ? all : all.filter((s) => s.name === name).map((s) => ({ key: s.key, name: s.name }));
    return wanted.length ? k.step(wanted) : null;
  },
  /** The part an assistant writes for a setup, or why it writes none. */
  async derive(document: JobDocument, kind: FixtureKind, op: number, wishes: FixtureWishes, prefix: string) {
    const k = await load();
    const { parts } = await setupsOf(document, k);
    const made = derive({ document, parts, kernel: k, shop }, kind, op, wishes);
    if (!made.ok) return made;
    const part = asPart(document, made.value, prefix);
    return part.ok ? ok({ part: part.value, setups: made.value.setups }) : part;
  },
  async picture(key: string): Promise<Picture | null> {
    const k = await load();
    return pictureOf(k, key);
  },
  async section(key: string, origin: Vec3, normal: Vec3) {
    const k = await load();
    return k.has(key) ? k.section(key, origin, normal) : null;
  },
  /** Tool solids of rows that are being typed, standing from `at` on in the list of the job of a turn. */
  async ghost(turn: number, rows: Row[], at: number): Promise<Mesh | null> {
    const k = await load();
    if (held?.turn !== turn) return null;
    const prepared = prepare({ ...held.job, rows: [...held.job.rows.slice(0, at), ...rows] });
    const before = await solve({ ...prepared, rows: prepared.rows.slice(0, at) }, k);
    const planes = new Map<string, RowPlanes>(
      before.rows.flatMap((r) => (r.planes ? [[r.row.id, r.planes] as const] : [])),
    );
    const seat = { kernel: k, key: before.finalKey, earlier: planes, nameOf: (id: string) => id };
    const volume = before.finalKey === null ? 0 : k.measure(before.finalKey).volume;
    const state = { key: before.finalKey, plate: null, volume };
    const steps = prepared.rows.slice(at).flatMap(({ row, recipe }): KernelStep[] => {
      if (!recipe || recipe.op === "edges") return [];
      const placed = place(recipe, row.id, seat, state);
      return placed.ok && placed.value.step ? [placed.value.step, ...(placed.value.more ?? [])] : [];
    });
    return k.ghost(steps);
  },
};
export type EngineDoor = typeof door;

Comlink.expose(door);
