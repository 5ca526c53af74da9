import type { Hold, Job, JobDocument, Part, Setup } from "./schema";

/** Op number of a part's first setup. */
const FIRST_OP = 10;

const holds = new WeakMap<Setup, Hold | null>();
/** How a setup holds, with the side that looks up: the same object for the same setup. */
function holdOf(setup: Setup | undefined): Hold | null {
  if (!setup?.hold) return null;
  const known = holds.get(setup) ?? { ...setup.hold, up: setup.up };
  holds.set(setup, known);
  return known;
}

const seen = new WeakMap<JobDocument, Map<string, Job>>();
/**
 * A job as one of its parts is worked on; without a name for it, the workpiece. The same object for the same document,
 * and everything in it the document's own.
 */
export function jobOf(document: JobDocument, part: string = document.parts[0].id): Job {
  const views = seen.get(document) ?? new Map<string, Job>();
  seen.set(document, views);
  const known = views.get(part);
  if (known) return known;
  const { parts, setups, ...common } = document;
  const { stock, outlines, planes, rows } = parts.find((p) => p.id === part) ?? parts[0];
  const job: Job = { ...common, stock, outlines, ...(planes ? { planes } : {}), rows, hold: holdOf(setups[0]) };
  views.set(part, job);
  return job;
}

/** The document of a job of one part, as a card gives it. */
export function documentOf(job: Job): JobDocument {
  const { stock, outlines, planes, rows, hold, ...common } = job;
  const work: Part = { id: "work", name: "", kind: "work", stock, outlines, ...(planes ? { planes } : {}), rows };
  return { ...common, parts: [work], setups: hold ? [setupOf(hold)] : [] };
}

/** A first setup that holds so. */
function setupOf({ up, ...hold }: Hold, setup: Omit<Setup, "up" | "hold"> = { op: FIRST_OP, machine: "mill" }): Setup {
  return { ...setup, up, hold };
}

/** A document that is being edited, looked at as the job of one part: what is set there is set in the part. */
export class PartDraft {
  private readonly at: Part;
  constructor(
    private readonly document: JobDocument,
    part: string = document.parts[0].id,
  ) {
    this.at = document.parts.find((p) => p.id === part) ?? document.parts[0];
  }
  get rows() {
    return this.at.rows;
  }
  get outlines() {
    return this.at.outlines;
  }
  get planes() {
    return this.at.planes;
  }
  set planes(planes: Job["planes"]) {
    if (planes) this.at.planes = planes;
    else delete this.at.planes;
  }
  get stock() {
    return this.at.stock;
  }
  get hold() {
    return holdOf(this.document.setups[0]);
  }
  set stock(stock: Job["stock"]) {
    this.at.stock = stock;
  }
  set hold(hold: Hold | null) {
    const [first] = this.document.setups;
    if (!hold) this.document.setups.shift();
    else if (first) Object.assign(first, setupOf(hold, first));
    else this.document.setups.push(setupOf(hold));
  }
}
