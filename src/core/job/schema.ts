import { z } from 'zod';
import { numberText } from '../number';
import { rowBodySchema, type RowBody } from '../rows';

/** Version of the document form. A change comes with its migration (migrate.ts) and a kept old document in the tests. */
export const JOB_FORMAT = 'sgorbia.job';
export const JOB_VERSION = 1;

const name = z.string().max(120);
const id = z.string().min(1).max(64);
const place2 = z.strictObject({ x: numberText, y: numberText });

export const toleranceSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('plusMinus'), value: numberText }),
  z.strictObject({ kind: z.literal('sided'), plus: numberText, minus: numberText }),
  z.strictObject({ kind: z.literal('byDecimals') }),
]);
export type Tolerance = z.infer<typeof toleranceSchema>;

export const balloonKinds = ['linear', 'diameter', 'radius', 'angle', 'depth', 'count', 'thread', 'chamfer'] as const;
export const balloonSchema = z.strictObject({
  number: z.number().int().min(1).max(9999),
  kind: z.enum(balloonKinds),
  /** The dimension as printed; for a thread, left out. */
  value: numberText.optional(),
  /** Second number of a chamfer: its angle. */
  angle: numberText.optional(),
  thread: z.string().max(40).optional(),
  count: numberText.optional(),
  tolerance: toleranceSchema,
  reference: z.literal(true).optional(),
  note: z.string().max(500).optional(),
  place: z.strictObject({ print: id, x: z.number(), y: z.number() }).optional(),
});
export type Balloon = z.infer<typeof balloonSchema>;

export const checkSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('mass'), value: numberText, unit: z.enum(['g', 'kg', 'lb', 'oz']), tolerance: numberText.optional() }),
  z.strictObject({ kind: z.literal('volume'), value: numberText, tolerance: numberText.optional() }),
  z.strictObject({ kind: z.literal('area'), of: z.enum(['top', 'bottom', 'front', 'back', 'left', 'right']), value: numberText, tolerance: numberText.optional() }),
  z.strictObject({ kind: z.literal('size'), of: z.enum(['x', 'y', 'z']), value: numberText, tolerance: numberText.optional() }),
]);
export type CheckValue = z.infer<typeof checkSchema>;

const at3 = z.strictObject({ x: numberText, y: numberText, z: numberText });
export const stockSchema = z.discriminatedUnion('shape', [
  z.strictObject({ shape: z.literal('plate'), length: numberText, width: numberText, height: numberText, at: at3.optional() }),
  z.strictObject({ shape: z.literal('round'), diameter: numberText, height: numberText, at: at3.optional() }),
]);
export type Stock = z.infer<typeof stockSchema>;

export const holdSchema = z.strictObject({
  fixture: z.literal('vise'),
  /** Direction in which the jaws close. */
  across: z.enum(['x', 'y']),
  /** How deep the part stands in the jaws. */
  grip: numberText,
  /** Which side of the part looks up. */
  up: z.enum(['top', 'bottom']),
  jawWidth: numberText.optional(),
  jawHeight: numberText.optional(),
});
export type Hold = z.infer<typeof holdSchema>;

export const printSchema = z.strictObject({
  id,
  name,
  attachment: z.string().regex(/^[0-9a-f]{64}$/),
  mediaType: z.enum(['image/png', 'image/jpeg', 'image/svg+xml']),
  /** Which view of the part the picture is laid over, and how: two points of the picture, and what they are on the part. */
  calibration: z.strictObject({
    view: z.enum(['top', 'bottom', 'front', 'back', 'left', 'right']),
    a: z.strictObject({ x: z.number(), y: z.number() }), b: z.strictObject({ x: z.number(), y: z.number() }),
    distance: numberText, direction: z.enum(['x', 'y']), place: place2,
  }).optional(),
});
export type Print = z.infer<typeof printSchema>;

export const rowSchema = z.strictObject({ id, name: name.optional(), off: z.literal(true).optional(), body: rowBodySchema });
export type Row = { id: string; name?: string; off?: true; body: RowBody };

export const cutterSchema = z.strictObject({ name, diameter: z.number().positive(), reach: z.number().positive(), feed: z.number().positive() });

export const jobSchema = z.strictObject({
  format: z.literal(JOB_FORMAT),
  version: z.literal(JOB_VERSION),
  name: name.min(1),
  revision: z.string().max(20),
  unit: z.enum(['in', 'mm']),
  material: z.strictObject({ name, density: numberText.optional() }),
  title: z.strictObject({
    drawing: name.optional(), projection: z.enum(['first', 'third']).optional(), finish: name.optional(), notes: z.string().max(4000).optional(),
    /** "Break all edges": the size the print asks for. */
    edgeBreak: numberText.optional(),
    /** Default tolerances by number of decimals: index 1 is for one decimal. */
    tolerances: z.array(numberText.nullable()).max(5).optional(),
  }),
  stock: stockSchema.nullable(),
  balloons: z.array(balloonSchema).max(2000),
  checks: z.array(checkSchema).max(200),
  rows: z.array(rowSchema).max(2000),
  hold: holdSchema.nullable(),
  crib: z.array(cutterSchema).max(200).optional(),
  /** Cutters chosen by hand, by row; the others are proposed. */
  cutters: z.array(z.strictObject({ row: id, cutter: name })).max(2000).optional(),
  prints: z.array(printSchema).max(50),
  waivers: z.array(z.strictObject({ rule: name, row: id.optional(), reason: z.string().min(1).max(500) })).max(500),
  signOff: z.strictObject({ by: name.min(1), on: z.string().max(40), revision: z.string().max(20) }).optional(),
}).superRefine((job, context) => {
  const ids = new Set<string>();
  job.rows.forEach((r, i) => {
    if (ids.has(r.id)) context.addIssue({ code: 'custom', path: ['rows', i, 'id'], message: 'two rows have the same id' });
    ids.add(r.id);
  });
  const numbers = new Set<number>();
  job.balloons.forEach((b, i) => {
    if (numbers.has(b.number)) context.addIssue({ code: 'custom', path: ['balloons', i, 'number'], message: `balloon #${b.number} is there twice` });
    numbers.add(b.number);
  });
});
export type Job = Omit<z.infer<typeof jobSchema>, 'rows'> & { rows: Row[] };

/** A job with nothing in it yet: unit and material come first. */
export const emptyJob = (jobName: string, unit: 'in' | 'mm', material: string): Job => ({
  format: JOB_FORMAT, version: JOB_VERSION, name: jobName, revision: 'A', unit, material: { name: material }, title: {},
  stock: null, balloons: [], checks: [], rows: [], hold: null, prints: [], waivers: [],
});
