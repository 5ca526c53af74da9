import * as Comlink from "comlink";
import init from "replicad-opencascadejs";
import type { Vec3 } from "@/core/geometry/vec";
import { evaluate, type Evaluation } from "@/core/evaluate/evaluate";
import { prepare } from "@/core/engine/prepare";
import { place } from "@/core/engine/place";
import { solve, Superseded } from "@/core/engine/solve";
import type { FaceInfo, Mesh, StateMeasure } from "@/core/engine/kernel";
import type { RowPlanes } from "@/core/engine/planes";
import type { Job, Row } from "@/core/job/schema";
import { pathFile, type PathFile } from "@/core/paths/file";
import { planPaths, type PathPlan } from "@/core/paths/plan";
import { explain, type Mismatch } from "@/core/mismatch";
import { OpenCascadeKernel } from "./openCascade";

/** What the page gets of an evaluation: plain data, and the wireframe that belongs to it. */
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
  const k = new OpenCascadeKernel(oc);
  k.warmUp();
  return k;
};

let newest = 0;
let stopped = -1;
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
let last: { turn: number; job: Job; evaluation: Evaluation } | null = null;
const pictureOf = (k: OpenCascadeKernel, key: string): Picture | null =>
  k.has(key) ? { key, mesh: k.mesh(key), faces: k.faces(key), measure: k.measure(key) } : null;

/** The worker's door: the page asks, the solid kernel works here and never on the page's own thread. */
const door = {
  async ready(): Promise<void> {
    await load();
  },
  /** Evaluates a job, telling how far it is; null when a newer edit has come meanwhile. */
  async evaluate(job: Job, turn: number, tell: (news: News) => void): Promise<Evaluated | null> {
    newest = Math.max(newest, turn);
    const k = await load();
    let told = performance.now();
    let shown: string | null = null;
    const say = (row: number, of: number, key: string | null) => {
      told = performance.now();
      const picture = key !== null && key !== shown ? pictureOf(k, key) : null;
      shown = key;
      tell({ row, of, picture });
    };
    try {
      const evaluation = await evaluate(job, k, {
        solved: async (key) => {
          say(job.rows.length, job.rows.length, key);
          await breathe();
          if (turn < newest) throw new Superseded();
        },
        patience: {
          reached: (row, of, key) => {
            if (performance.now() - told > TELL_EVERY) say(row, of, key);
          },
          pause: async () => {
            if (performance.now() - lastPause < 20) return;
            await breathe();
            lastPause = performance.now();
          },
          cancelled: () => turn < newest,
        },
      });
      last = { turn, job, evaluation };
      return { evaluation };
    } catch (e) {
      if (e instanceof Superseded) return null;
      throw e;
    }
  },
  /** The paths of the last evaluation; null when a newer one has come. */
  async plans(turn: number): Promise<Planned | null> {
    if (last?.turn !== turn || turn < newest) return null;
    const { job, evaluation } = last;
    const plans = planPaths(job, evaluation.solved.rows, evaluation.stock?.placed.box);
    return { plans, file: pathFile(job, evaluation, plans) };
  },
  /**
   * Looks for the slip behind each check value that is off, telling what it has as it goes; null when it was stopped
   * or a newer edit came.
   */
  async explain(
    job: Job,
    turn: number,
    progress: (done: number, of: number) => void,
    found: (sofar: Mismatch[]) => void,
  ): Promise<Mismatch[] | null> {
    newest = Math.max(newest, turn);
    const k = await load();
    const patience = {
      pause: async () => {
        if (performance.now() - lastPause < 20) return;
        await breathe();
        lastPause = performance.now();
      },
      cancelled: () => turn < newest || stopped >= turn,
    };
    try {
      return await explain(job, await evaluate(job, k, { patience }), k, { patience, progress, found });
    } catch (e) {
      if (e instanceof Superseded) return null;
      throw e;
    }
  },
  /** Gives up an `explain` of this turn or an older one. */
  async stopExplaining(turn: number): Promise<void> {
    stopped = Math.max(stopped, turn);
  },
  async picture(key: string): Promise<Picture | null> {
    const k = await load();
    return pictureOf(k, key);
  },
  async section(key: string, origin: Vec3, normal: Vec3) {
    const k = await load();
    return k.has(key) ? k.section(key, origin, normal) : null;
  },
  /** Tool solid of a row that is being typed, standing at `at` in the list. */
  async ghost(job: Job, row: Row, at: number): Promise<Mesh | null> {
    const k = await load();
    const prepared = prepare({ ...job, rows: [...job.rows.slice(0, at), row] });
    const mine = prepared.rows[at];
    if (!mine.recipe || mine.recipe.op === "edges") return null;
    const before = await solve({ ...prepared, rows: prepared.rows.slice(0, at) }, k);
    const planes = new Map<string, RowPlanes>(
      before.rows.flatMap((r) => (r.planes ? [[r.row.id, r.planes] as const] : [])),
    );
    const placed = place(mine.recipe, row.id, k, before.finalKey, planes, (id) => id);
    return placed.ok && placed.value.step ? k.ghost(placed.value.step) : null;
  },
};
export type EngineDoor = typeof door;

Comlink.expose(door);
