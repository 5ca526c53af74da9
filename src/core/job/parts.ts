import type { RowNames } from "../grammar/grammar";
import { rowNames } from "./names";
import type { Hold, Job, JobDocument, OtherPart, Part, Setup } from "./schema";

/** Op number of a part's first setup. */
const FIRST_OP = 10;

const holds = new WeakMap<Setup, Hold | null>();
/** How a setup holds, with the side that looks up: the same object for the same setup. */
export function holdOf(setup: Setup | undefined): Hold | null {
  if (setup?.hold?.fixture !== "vise" || (setup.up !== "top" && setup.up !== "bottom")) return null;
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
  const job = viewOf(document, document.parts.find((p) => p.id === part) ?? document.parts[0], []);
  views.set(part, job);
  return job;
}

/** What a part is called by the others: the workpiece without a name of its own by the job's. */
export const partName = (document: Pick<JobDocument, "name" | "parts">, part: Part): string =>
  part.name || (part === document.parts[0] ? document.name : part.id);

/**
 * @param from the parts this one is looked at from: none of them is looked at again. The part at hand knows all others,
 * those know only what their own outlines take
 */
function viewOf(document: JobDocument, at: Part, from: Part[]): Job {
  const { parts, setups, ...common } = document;
  const { stock, outlines, planes, rows, id, name, kind } = at;
  const isWork = at === parts[0];
  const known = from.length ? partsTaken(outlines) : parts.map((p) => partName(document, p));
  const others = known.flatMap((wanted): OtherPart[] => {
    const other = parts.find((p) => partName(document, p).toLowerCase() === wanted.toLowerCase());
    if (!other || other === at || from.includes(other)) return [];
    const places = (at.places ?? []).filter((p) => p.part.toLowerCase() === wanted.toLowerCase());
    return [{ name: wanted, job: viewOf(document, other, [...from, at]), places }];
  });
  return {
    ...common,
    ...(isWork
      ? {}
      : { part: { id, name, kind }, checks: at.checks ?? NONE, material: at.material ?? common.material }),
    stock,
    outlines,
    ...(planes ? { planes } : {}),
    rows,
    hold: isWork ? holdOf(setups[0]) : null,
    ...(isWork && setups.length ? { setups } : {}),
    ...(others.length ? { others } : {}),
  };
}
const NONE: Job["checks"] = [];

/** Names of the other parts that outlines take lines from. */
export const partsTaken = (outlines: Part["outlines"]): string[] => [
  ...new Set(outlines.flatMap((o) => o.items.flatMap((i) => ("part" in i && i.part ? [i.part] : [])))),
];

/** How the rows of a job are named in text, those of the parts it takes lines from too. */
export const namesOf = (job: Pick<Job, "rows" | "others"> & Partial<Pick<Job, "balloons">>): RowNames => ({
  ...rowNames(job.rows),
  ...(job.balloons && {
    threads: new Set(job.balloons.flatMap((b) => (b.thread === undefined ? [] : `#${b.number}`))),
  }),
  ofPart: (name) => {
    const other = job.others?.find((o) => o.name.toLowerCase() === name.toLowerCase());
    return other && rowNames(other.job.rows);
  },
});

/** The document of a job of one part, as a card gives it. */
export function documentOf(job: Job, all?: Part[]): JobDocument {
  const { stock, outlines, planes, rows, hold, setups, part: _part, others: _others, ...common } = job;
  const work: Part = { id: "work", name: "", kind: "work", stock, outlines, ...(planes ? { planes } : {}), rows };
  return { ...common, parts: all ?? [work], setups: setups ?? (hold ? [setupOf(hold)] : []) };
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
  get checks() {
    return this.at === this.document.parts[0] ? this.document.checks : (this.at.checks ?? []);
  }
  set checks(checks: Job["checks"]) {
    if (this.at === this.document.parts[0]) this.document.checks = checks;
    else this.at.checks = checks;
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
