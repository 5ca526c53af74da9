import { z } from "zod";
import { allKeepable } from "../base/keepable";
import { nameText } from "../base/name";
import { numberText, type LengthUnit, unitNames } from "../number";
import { checkSchema } from "./checkKinds";
import { outlineSchema } from "../outline/items";
import { holdingSchema, viseSchema } from "./holdings";
import { partKindIds } from "./partKinds";
import { generalClasses } from "../tables";
import { toleranceSchema } from "./toleranceKinds";
import { place3, stockSchema } from "./stockForms";
import { sides } from "../geometry/vec";
import { namedPlaneSchema, planeRef, rowBodySchema, threadText, type RowBody } from "../rows";

/**
 * Version of the document form. A change comes with its migration (migrate.ts) and a kept old document in
 * tests/documents.
 */
export type { Stock } from "./stockForms";
export const JOB_FORMAT = "sgorbia.job";
export const JOB_VERSION = 3;

/** The most outlines a job holds. */
export const MOST_OUTLINES = 2000;
/** The most balloons a job holds. */
export const MOST_BALLOONS = 2000;

const name = nameText;
/** A revision, as a card writes it after REV. */
const revisionText = nameText.max(20);
const id = z.string().min(1).max(64);
const place2 = z.strictObject({ x: numberText, y: numberText });

/**
 * A feature of the solid by its meaning: a face that a row made. Where several are alike, the one nearest to `near`
 * is meant.
 */
const featureSchema = z.strictObject({
  row: id,
  role: z.string().max(20),
  instance: z.number().int().min(0),
  surface: z.string().max(20),
  near: z.tuple([z.number(), z.number(), z.number()]),
});
export type Feature = z.infer<typeof featureSchema>;

export const balloonKinds = ["linear", "diameter", "radius", "angle", "depth", "count", "thread", "chamfer"] as const;
const balloonSchema = z.strictObject({
  number: z.number().int().min(1).max(9999),
  kind: z.enum(balloonKinds),
  /** The dimension as printed; for a thread, left out. */
  value: numberText.optional(),
  /** Second number of a chamfer: its angle. */
  angle: numberText.optional(),
  thread: threadText.optional(),
  count: numberText.optional(),
  tolerance: toleranceSchema,
  reference: z.literal(true).optional(),
  /** A basic (boxed) dimension: theoretically exact, no tolerance of its own. */
  basic: z.literal(true).optional(),
  /** Printed THRU: goes through. */
  thru: z.literal(true).optional(),
  /** Drives with the middle of its limits instead of its nominal. */
  middle: z.literal(true).optional(),
  /** Shorter leg of an angle, for the general classes. */
  leg: numberText.optional(),
  note: z.string().max(500).optional(),
  /** Zone of the sheet, `B3`. */
  zone: z.string().max(10).optional(),
  place: z
    .strictObject({ print: id, page: z.number().int().min(1).optional(), x: z.number(), y: z.number() })
    .optional(),
  /** What it is measured on, picked by hand; without it the measurement is found by itself. */
  measure: z.strictObject({ a: featureSchema, b: featureSchema.optional() }).optional(),
});
export type Balloon = z.infer<typeof balloonSchema>;

/** A value with a name of its own, used by rows and balloons. */
const namedValueSchema = z.strictObject({
  name: z.string().regex(/^[A-Za-z_][A-Za-z0-9_]{0,39}$/),
  value: numberText,
  note: z.string().max(200).optional(),
});
export type NamedValue = z.infer<typeof namedValueSchema>;

/** Which way is up in a setup: a side of the part, a plane of a row or with a name, or an index angle about an axis. */
const upSchema = z.union([
  z.enum(sides),
  z.strictObject({ plane: planeRef }),
  z.strictObject({ index: numberText, about: z.enum(["x", "y", "z"]) }),
]);
export type Up = z.infer<typeof upSchema>;

const ofWhat = { of: z.enum(["part", "stock"]).optional() };
/** Where X0 Y0 Z0 is, as the piece lies in its setup. */
const datumSchema = z.discriminatedUnion("at", [
  z.strictObject({ at: z.literal("centre"), ...ofWhat }),
  z.strictObject({ at: z.literal("corner"), x: z.enum(["left", "right"]), y: z.enum(["front", "back"]), ...ofWhat }),
  z.strictObject({ at: z.literal("axis"), row: id }),
  /** The fixed jaw and its stop; Z0 is the top of the jaws. */
  z.strictObject({ at: z.literal("jaw") }),
  /** The face of the chuck, on its axis. */
  z.strictObject({ at: z.literal("chuck") }),
]);
export type Datum = z.infer<typeof datumSchema>;

/** A setup: the machine, the side that looks up, how the piece is held, and the rows cut in it. */
const setupSchema = z.strictObject({
  op: z.number().int().min(1).max(9999),
  machine: z.enum(["mill", "lathe", "index"]),
  up: upSchema,
  datum: datumSchema.optional(),
  hold: holdingSchema.nullable(),
  /** Rows it cuts, in order; without it, every row it can see. */
  rows: z.array(id).max(2000).optional(),
});
export type Setup = z.infer<typeof setupSchema>;

/** Plain jaws of the first setup, with the side that looks up in it. */
export type Hold = z.infer<typeof viseSchema> & { up: "top" | "bottom" };

/** Which view of the part a stretch of a page shows, and how: two of its points, and what they are on the part. */
const regionSchema = z.strictObject({
  view: z.enum(["top", "bottom", "front", "back", "left", "right"]),
  page: z.number().int().min(1).max(500),
  a: z.strictObject({ x: z.number(), y: z.number() }),
  b: z.strictObject({ x: z.number(), y: z.number() }),
  distance: numberText,
  direction: z.enum(["x", "y"]),
  place: place2,
  /** The stretch of the page it covers; without it the whole page. */
  box: z.strictObject({ x0: z.number(), y0: z.number(), x1: z.number(), y1: z.number() }).optional(),
});
export type Region = z.infer<typeof regionSchema>;

const printMedia = ["image/png", "image/jpeg", "image/svg+xml", "application/pdf", "image/vnd.dxf"] as const;
const printSchema = z.strictObject({
  id,
  name,
  attachment: z.string().regex(/^[0-9a-f]{64}$/),
  mediaType: z.enum(printMedia),
  /** Quarter turns clockwise it is shown with. */
  turn: z.union([z.literal(1), z.literal(2), z.literal(3)]).optional(),
  regions: z.array(regionSchema).max(50),
});
export type Print = z.infer<typeof printSchema>;

const solidFileSchema = z.strictObject({ name: name.min(1), attachment: z.string().regex(/^[0-9a-f]{64}$/) });
export type SolidFile = z.infer<typeof solidFileSchema>;

const rowSchema = z.strictObject({
  id,
  name: name.optional(),
  off: z.literal(true).optional(),
  body: rowBodySchema,
});
export type Row = { id: string; name?: string; off?: true; body: RowBody };

const cutterSchema = z.strictObject({
  name,
  diameter: z.number().positive(),
  reach: z.number().positive(),
  feed: z.number().positive(),
});

/** Another part laid in this one: which of its sides looks up, how it is turned, where its zero comes to lie. */
const placementSchema = z.strictObject({
  part: name.min(1),
  at: place3,
  up: z.enum(["top", "bottom", "front", "back", "left", "right"]).optional(),
  turn: numberText.optional(),
  /** The place is for the middle of its underside as it lies, not for its zero. */
  middle: z.literal(true).optional(),
  /** As this setup left it; without it as it is finished. */
  setup: z.number().int().min(0).max(9999).optional(),
});
export type Placement = z.infer<typeof placementSchema>;

const partSchema = z.strictObject({
  id,
  name,
  kind: z.enum(partKindIds),
  stock: stockSchema.nullable(),
  outlines: z.array(outlineSchema).max(MOST_OUTLINES),
  /** Planes with a name of their own. */
  planes: z.array(namedPlaneSchema).max(500).optional(),
  /** Its own material and check values, where it is not the workpiece. */
  material: z.strictObject({ name, density: numberText.optional() }).optional(),
  checks: z.array(checkSchema).max(200).optional(),
  /** Where other parts lie in it: one a station. */
  places: z.array(placementSchema).max(200).optional(),
  rows: z.array(rowSchema).max(2000),
});
export type Part = Omit<z.infer<typeof partSchema>, "rows"> & { rows: Row[] };

/** A record of a job: what tells it from the others of its list, and what is said where it is there twice. */
interface KeyedRecord {
  key: string;
  path: PropertyKey[];
  twice: string;
}

/** Every list of a job in which a record is there once. */
function recordsOf(job: z.infer<typeof jobShape>): KeyedRecord[][] {
  const named = (
    part: z.infer<typeof partSchema>,
    k: number,
    what: "outlines" | "planes",
    word: string,
  ): KeyedRecord[] =>
    (part[what] ?? []).map(({ name }: { name: string }, i) => ({
      key: name.toLowerCase(),
      path: ["parts", k, what, i, "name"],
      twice: `${word} "${name}" is there twice`,
    }));
  const own = (what: "names" | "solids", twice: (name: string) => string): KeyedRecord[] =>
    (job[what] ?? []).map(({ name }: { name: string }, i) => ({
      key: name.toLowerCase(),
      path: [what, i, "name"],
      twice: twice(name),
    }));
  return [
    job.parts.flatMap((p, k) =>
      p.rows.map((r, i) => ({ key: r.id, path: ["parts", k, "rows", i, "id"], twice: "two rows have the same id" })),
    ),
    ...job.parts.flatMap((p, k) => [named(p, k, "outlines", "outline"), named(p, k, "planes", "plane")]),
    job.parts.map((p, i) => ({ key: p.id, path: ["parts", i, "id"], twice: "two parts have the same id" })),
    job.setups.map((s, i) => ({
      key: String(s.op),
      path: ["setups", i, "op"],
      twice: `setup ${s.op} is there twice`,
    })),
    own("names", (n) => `${n} is named twice`),
    own("solids", (n) => `a file named "${n}" is there twice`),
    job.balloons.map((b, i) => ({
      key: String(b.number),
      path: ["balloons", i, "number"],
      twice: `balloon #${b.number} is there twice`,
    })),
  ];
}

function eachOnce(job: z.infer<typeof jobShape>, context: z.RefinementCtx): void {
  for (const list of recordsOf(job)) {
    const seen = new Set<string>();
    for (const { key, path, twice } of list) {
      if (seen.has(key)) context.addIssue({ code: "custom", path, message: twice });
      seen.add(key);
    }
  }
}

/** A job as it is kept: what is said of all of it, its parts (the workpiece first) and its setups. */
const jobShape = z.strictObject({
  format: z.literal(JOB_FORMAT),
  version: z.literal(JOB_VERSION),
  name: name.min(1),
  revision: revisionText,
  unit: z.enum(unitNames),
  material: z.strictObject({ name, density: numberText.optional() }),
  title: z.strictObject({
    drawing: name.optional(),
    projection: z.enum(["first", "third"]).optional(),
    finish: name.optional(),
    notes: z.string().max(4000).optional(),
    /** "Break all edges": the size the print asks for. */
    edgeBreak: numberText.optional(),
    /** Default tolerances by number of decimals: index 1 is for one decimal. */
    tolerances: z.array(numberText.nullable()).max(5).optional(),
    /** Default tolerances of angles, degrees, and of dimensions given as fractions. */
    angleTolerance: numberText.optional(),
    fractionTolerance: numberText.optional(),
    /** General class of ISO 2768-1 for every dimension without a tolerance. */
    general: z.enum(generalClasses).optional(),
    /** Whether inches are written with a zero before the point. */
    leadingZero: z.literal(true).optional(),
  }),
  /** Named values: `wall = 3`. */
  names: z.array(namedValueSchema).max(500),
  parts: z.array(partSchema).min(1).max(50),
  setups: z.array(setupSchema).max(100),
  balloons: z.array(balloonSchema).max(MOST_BALLOONS),
  checks: z.array(checkSchema).max(200),
  crib: z.array(cutterSchema).max(200).optional(),
  /** Cutters chosen by hand, by row; the others are proposed. */
  cutters: z
    .array(z.strictObject({ row: id, cutter: name }))
    .max(2000)
    .optional(),
  prints: z.array(printSchema).max(50),
  /** Solids that came as STEP files, by their names. */
  solids: z.array(solidFileSchema).max(50).optional(),
  waivers: z.array(z.strictObject({ rule: name, row: id.optional(), reason: z.string().min(1).max(500) })).max(500),
  /** What was proved, on what, when: the record. An entry whose basis has changed since is stale. */
  proofs: z
    .array(
      z.strictObject({
        number: z.number().int(),
        measured: z.number().nullable(),
        by: z.string().max(300),
        basis: z.string().max(60),
        on: z.string().max(40),
        revision: z.string().max(20),
      }),
    )
    .max(2000),
  signOff: z
    .strictObject({
      by: name.min(1),
      on: z.string().max(40),
      revision: z.string().max(20),
      /** What stood in the document when it was signed (`contentOf`): anything else since is a change. */
      content: z.string().max(60).optional(),
      /** Why it was signed with something off, stale or stopped. */
      reason: z.string().min(1).max(500).optional(),
    })
    .optional(),
});
export const jobSchema = allKeepable(jobShape.superRefine(eachOnce));
export type JobDocument = Omit<z.infer<typeof jobSchema>, "parts"> & { parts: Part[] };

/**
 * A job as one of its parts is worked on: what is said of all of it, and that part's stock, outlines, rows and
 * holding. Everything that is computed of a part takes this.
 */
export type Job = Omit<JobDocument, "parts" | "setups"> &
  Pick<Part, "stock" | "outlines" | "planes" | "rows"> & {
    hold: Hold | null;
    /** The setups it is cut in: the workpiece's. */
    setups?: Setup[];
    /** Which part this is, where it is not the workpiece. */
    part?: Pick<Part, "id" | "name" | "kind">;
    /** The other parts of the job, which its outlines may take lines from, and where each lies in it. */
    others?: OtherPart[];
  };
export interface OtherPart {
  name: string;
  job: Job;
  places: Placement[];
}

/** A job with nothing in it yet: unit and material come first. */
export const emptyJob = (jobName: string, unit: LengthUnit, material: string): Job => ({
  format: JOB_FORMAT,
  version: JOB_VERSION,
  name: jobName,
  revision: "A",
  unit,
  material: { name: material },
  title: {},
  names: [],
  stock: null,
  balloons: [],
  checks: [],
  outlines: [],
  rows: [],
  hold: null,
  prints: [],
  waivers: [],
  proofs: [],
});
