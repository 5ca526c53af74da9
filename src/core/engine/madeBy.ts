import type { FaceInfo, BodyStep, SingleStep } from "./kernel";
import type { SolvedRow } from "./solve";

/**
 * A body that a row took or left at its places: its own, or a copy of an earlier row's. Its faces carry the tag of the
 * row that is copied, each with the number of its place among all of that row's.
 */
export interface Made {
  /** The row whose tag the faces carry. */
  of: string;
  step: BodyStep;
  /** Which copy of a repeat or mirror it is, counted from 2; none for what the row itself put there. */
  copy?: number;
}

const isBody = (s: SingleStep): s is BodyStep => s.op === "cut" || s.op === "leave";

/** Every body a row put on the part, those of copies among them; none of a row that is not made. */
export function madeBy(row: SolvedRow): Made[] {
  if (row.state !== "ok") return [];
  const id = row.row.id;
  if (row.recipe?.op !== "repeat") {
    const { step = null, more = [] } = row.placed ?? {};
    return [...(step ? [step] : []), ...more].filter(isBody).map((s) => ({ of: id, step: s }));
  }
  return (row.planes?.elements ?? []).flatMap((e) => {
    const own = e.moves?.find((m) => m.by === id);
    return e.steps.filter(isBody).map((step) => ({ of: e.row, step, ...(own ? { copy: own.motion + 2 } : {}) }));
  });
}

/** How many outlines a place of a body has: its faces are numbered by them. */
const partsOf = ({ body }: BodyStep): number => (body.body === "prism" ? 1 + (body.more?.length ?? 0) : 1);

/** The number of each place of a body among all places of its row. */
export const numbersOf = ({ step }: Made): number[] => step.places.map((_, i) => step.instances?.[i] ?? i);

/** The place of a body that a face stands at, among all of its row's. */
export const placeOfFace = (made: Made, face: FaceInfo): number => Math.floor(face.tag!.instance / partsOf(made.step));

/** Whether a face was made by a row: by itself and not by a copy of it, or as one of its copies. */
export function makes(row: SolvedRow): (face: FaceInfo) => boolean {
  const made = madeBy(row);
  return made.length ? isOneOf(made) : (f) => f.tag?.row === row.row.id;
}

/** Whether a face was made by one of some bodies. */
export function isOneOf(made: Made[]): (face: FaceInfo) => boolean {
  const numbers = made.map((m) => ({ m, at: new Set(numbersOf(m)) }));
  return (f) => numbers.some(({ m, at }) => f.tag?.row === m.of && at.has(placeOfFace(m, f)));
}
