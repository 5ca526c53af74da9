import { z } from "zod";
import { CalloutError, Reader } from "../grammar/reader";
import {
  numbersOf,
  readCallout,
  setPath,
  writeCallout,
  type Draft,
  type NumberField,
  type RowNames,
} from "../grammar/grammar";
import type { NumberText, Quantity } from "../number";
import { cutBoreGroove, type CutBoreGroove } from "./cutBoreGroove";
import { cutBreak, type CutBreak } from "./cutBreak";
import { cutCounterbore, type CutCounterbore } from "./cutCounterbore";
import { cutCountersink, type CutCountersink } from "./cutCountersink";
import { cutSlot, type CutSlot } from "./cutSlot";
import { cutChamfer, type CutChamfer } from "./cutChamfer";
import { cutFace, type CutFace } from "./cutFace";
import { cutHoles, type CutHoles } from "./cutHoles";
import { cutPocket, type CutPocket } from "./cutPocket";
import { cutRingGroove, type CutRingGroove } from "./cutRingGroove";
import { cutRound, type CutRound } from "./cutRound";
import { cutStep, type CutStep } from "./cutStep";
import { cutTapped, type CutTapped } from "./cutTapped";
import { cutOutline, type CutOutline } from "./cutOutline";
import { cutTurned, type CutTurned } from "./cutTurned";
import { cutEngrave, type CutEngrave } from "./cutEngrave";
import { leaveTurned, type LeaveTurned } from "./leaveTurned";
import { leavePrism, type LeavePrism } from "./leavePrism";
import { leaveBlock, type LeaveBlock } from "./leaveBlock";
import { leavePolygon, type LeavePolygon } from "./leavePolygon";
import { leaveRing, type LeaveRing } from "./leaveRing";
import { leaveRound, type LeaveRound } from "./leaveRound";
import { leaveStrip, type LeaveStrip } from "./leaveStrip";
import { leaveRib, type LeaveRib } from "./leaveRib";
import { leaveTube, type LeaveTube } from "./leaveTube";
import { leaveSolid, type LeaveSolid } from "./leaveSolid";
import { leaveText, type LeaveText } from "./leaveText";
import { cutTube, type CutTube } from "./cutTube";
import { cutTaper, type CutTaper } from "./cutTaper";
import { cutShaftGroove, type CutShaftGroove } from "./cutShaftGroove";
import { cutVeeGroove, type CutVeeGroove } from "./cutVeeGroove";
import { cutThread, type CutThread } from "./cutThread";
import { cutKnurl, type CutKnurl } from "./cutKnurl";
import { cutShell, type CutShell } from "./cutShell";
import { repeat, type Repeat } from "./repeat";
import { mirror, type Mirror } from "./mirror";
import type { Resolved, RowKind, Verb } from "./kind";

export type RowBody =
  | LeaveBlock
  | LeaveRound
  | LeavePolygon
  | LeaveRing
  | LeavePrism
  | LeaveTurned
  | CutOutline
  | CutTurned
  | CutEngrave
  | CutFace
  | CutStep
  | CutPocket
  | CutSlot
  | CutCounterbore
  | CutCountersink
  | CutRingGroove
  | CutBoreGroove
  | CutTapped
  | CutHoles
  | CutChamfer
  | CutRound
  | CutBreak
  | LeaveStrip
  | LeaveRib
  | LeaveTube
  | LeaveSolid
  | LeaveText
  | CutTube
  | CutTaper
  | CutShaftGroove
  | CutVeeGroove
  | CutThread
  | CutKnurl
  | CutShell
  | Repeat
  | Mirror;

// One line a row kind. Order matters only where two could start alike: threads before plain holes.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
const kinds: RowKind<any>[] = [
  leaveBlock,
  leaveRound,
  leavePolygon,
  leaveRing,
  leavePrism,
  leaveTurned,
  cutFace,
  cutStep,
  cutTurned,
  cutEngrave,
  cutOutline,
  cutPocket,
  cutSlot,
  cutCounterbore,
  cutCountersink,
  cutRingGroove,
  cutBoreGroove,
  cutChamfer,
  cutRound,
  cutBreak,
  leaveStrip,
  leaveRib,
  leaveTube,
  leaveSolid,
  leaveText,
  cutTube,
  cutTaper,
  cutShaftGroove,
  cutVeeGroove,
  cutThread,
  cutKnurl,
  cutShell,
  repeat,
  mirror,
  cutTapped,
  cutHoles,
];

/** A row with its numbers worked out: millimetres, radians or plain. */
export type ResolvedRow = Resolved<RowBody>;

export const rowKinds: readonly RowKind<RowBody>[] = kinds;
export const kindOf = (body: { kind: string }): RowKind<RowBody> => kinds.find((k) => k.kind === body.kind)!;

const [firstSchema, ...otherSchemas] = kinds.map((k): z.ZodObject & z.ZodType<RowBody> => k.schema);
export const rowBodySchema: z.ZodType<RowBody> = z.discriminatedUnion("kind", [firstSchema, ...otherSchemas]);

export const rowNumbers = (body: RowBody): NumberField[] => numbersOf(kindOf(body).callout, body);

/**
 * What a number of a row is measured in, whether the row has it or may yet get it.
 * @returns undefined where a row as it stands cannot have that number
 */
export function quantityAt(body: RowBody, path: string): Quantity | undefined {
  const withIt = structuredClone(body);
  setPath(withIt, path, "1");
  return rowNumbers(withIt).find((n) => n.path === path)?.quantity;
}

export const writeRowBody = (body: RowBody, names: RowNames): string =>
  `${kindOf(body).verb.toUpperCase()} ${writeCallout(kindOf(body).callout, body, names)}`;

/** A row kind after a count (`4X POCKET`, `4X ⌀.25`): looks past the count for what stands there. */
function startsAt(kind: RowKind<RowBody>, r: Reader, afterCount: number): boolean {
  const save = r.pos;
  if (kind.traits?.counted) r.pos = afterCount;
  const starts = (kind.starts ?? kind.callout.head.starts)(r);
  r.pos = save;
  return starts;
}

/** Offset after a count such as `6X`, or the reading point when there is none. */
function afterCount(r: Reader): number {
  const probe = new Reader(r.text, r.named);
  probe.pos = r.pos;
  probe.skip();
  if (!/[-+.0-9(#?`]/.test(r.text[probe.pos] ?? "") && !probe.seesNumber()) return r.pos;
  try {
    probe.number("count");
    return probe.take("X") ? probe.pos : r.pos;
  } catch (e) {
    if (e instanceof CalloutError) return r.pos;
    throw e;
  }
}

/**
 * Reads a row after its optional OFF and name: `LEAVE ...` or `CUT ...`.
 * @throws CalloutError with the offset at fault
 */
export function readRowBody(r: Reader, verb: Verb, names: RowNames): RowBody {
  const after = verb === "cut" || verb === "leave" ? afterCount(r) : r.pos;
  const kind = kinds.find((k) => k.verb === verb && startsAt(k, r, after));
  if (!kind) {
    const list =
      verb === "leave"
        ? "BLOCK, ROUND, POLYGON, RING, PRISM, TURNED, STRIP, RIB, TUBE, TEXT or SOLID"
        : "FACE, STEP, POCKET, SLOT, CBORE, CSK, TURNED, ENGRAVE, GROOVE, TAPER, TUBE, SHELL, CHAMFER, ROUND, BREAK, THREAD, KNURL, a thread or ⌀";
    const start = r.pos;
    r.pos = after;
    if (verb === "leave" && after > start && kinds.some((k) => k.verb === "leave" && k.callout.head.starts(r)))
      return r.fail("the row without a count, once for every place", "a LEAVE row takes no count", start);
    return r.fail(list, r.here ? `${JSON.stringify(r.here)} is no row` : "the row is missing");
  }
  const draft: Draft = { kind: kind.kind, ...kind.blank() };
  readCallout(kind.callout, r, draft, names);
  return draft as RowBody;
}

/** A copy of a row with one number set; an empty optional number is taken away. */
export function withNumber(body: RowBody, path: string, text: NumberText | undefined): RowBody {
  const copy = structuredClone(body) as Draft;
  const keys = path.split(".");
  let o = copy;
  for (const k of keys.slice(0, -1)) o = o[k] ??= {};
  if (text === undefined) delete o[keys[keys.length - 1]];
  else o[keys[keys.length - 1]] = text;
  return copy;
}
