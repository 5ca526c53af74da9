import { valueOf } from "../engine/numbers";
import type { SolvedRow } from "../engine/solve";
import type { FaceInfo } from "../engine/kernel";
import type { Balloon } from "../job/schema";
import { citedIn, threadMeant } from "../balloons/threads";
import { findThread, isUsualClass } from "../tables";
import { CONTACT } from "../geometry/tolerance";
import { claimed, deciding, type Claim } from "./claims";
import type { Draft, LedgerContext } from "./ledger";
import { saysLeftHand, unheldWords } from "./words";

/** A thread that a row makes, and what of it stands on the solid. */
interface Made {
  row: SolvedRow;
  designation: string;
  inside: boolean;
  /** The balloon its thread is taken from by number; null where it is written. */
  cites: number | null;
  /** How often it stands; null where that was not looked at. */
  standing: number | null;
  lead: string;
}

/**
 * What a thread claims: its size and pitch with its blank on the solid, its class and hand as the rows have them, and
 * how many.
 */
export function threadEntry(b: Balloon, own: Omit<Draft, "state">, rows: SolvedRow[], c: LedgerContext): Draft {
  const made = rows.flatMap((r) => madeBy(r, c) ?? []);
  const known = made.filter((m) => m.standing !== null);
  const standing = known.reduce((n, m) => n + m.standing!, 0);
  const lead = made.map((m) => m.lead).join("");
  const count = b.count === undefined ? null : valueOf(b.count, "count", c.scope);
  const wanted = count?.ok ? count.value.value : null;
  const on = made.map((m) => ({ row: m.row.row.id }));
  const value: Claim = {
    of: "value",
    says: `${b.thread} on the solid`,
    // At every row that makes it: one that was drilled away is not made up for by another.
    state: !known.length ? "unexamined" : known.every((m) => m.standing! > 0) ? "true" : "false",
    by: `${standing} made for ${b.thread} on the solid${lead}`,
    on,
  };
  const claims = [value, ...made.flatMap((m) => kindClaims(b, m)), ...unheldWords(b)];
  if (wanted !== null && known.length)
    claims.push({
      of: "count",
      says: `${wanted} of them`,
      state: standing === wanted ? "true" : "false",
      by: `${standing} on the solid, ${wanted} on the print`,
      on,
    });
  const state = claimed(claims);
  const reason = deciding(claims);
  return {
    ...own,
    state,
    claims,
    measured: standing,
    by:
      reason && (reason.of === "thread" || reason.of === "words")
        ? reason.by
        : `${value.by}${reason?.of === "count" ? `; ${reason.by}` : ""}`,
    on: rows.map((r) => r.row.id),
  };
}

function madeBy(r: SolvedRow, c: LedgerContext): Made | null {
  const { feature } = r;
  if (feature?.is !== "hole" && feature?.is !== "thread") return null;
  if (!feature.thread) return null;
  const text = "thread" in r.row.body ? threadMeant(String(r.row.body.thread), c.job.balloons) : null;
  const designation = text?.ok ? text.value : feature.thread.designation;
  const cites = "thread" in r.row.body ? citedIn(String(r.row.body.thread)) : null;
  if (feature.is === "thread") {
    const blank = blankOf(feature.shaft, feature.thread.major, c.faces);
    return { row: r, designation, cites, inside: false, standing: blank, lead: "" };
  }
  const { diameter, depth, thread } = feature;
  const drilled = new Set(c.faces.filter((f) => isDrilled(f, r.row.id, diameter)).map((f) => f.tag!.instance));
  const lead =
    thread.full !== "thru" && depth !== "thru"
      ? `; drilled ${((depth - thread.full) / thread.pitch).toFixed(1)} pitches deeper than its thread, for the tap's lead`
      : "";
  return { row: r, designation, cites, inside: true, standing: drilled.size, lead };
}

const isDrilled = (f: FaceInfo, row: string, diameter: number): boolean =>
  f.tag?.row === row &&
  f.surface === "cylinder" &&
  f.sweep! > 2 * Math.PI - 0.01 &&
  Math.abs(2 * f.radius! - diameter) < CONTACT;

/** A blank is no larger than the major diameter, and no less than this share of it: our own figure, no source. */
const LEAST_BLANK = 0.9;
/** Whether a face is the blank of an outside thread on its shaft. */
export const isBlankOf = (f: FaceInfo, shaft: string, major: number): boolean =>
  f.tag?.row === shaft &&
  f.surface === "cylinder" &&
  !f.hollow &&
  2 * f.radius! < major + CONTACT &&
  2 * f.radius! > LEAST_BLANK * major;

/** How often the blank of an outside thread stands on its shaft. */
const blankOf = (shaft: string, major: number, faces: FaceInfo[]): number =>
  faces.some((f) => isBlankOf(f, shaft, major)) ? 1 : 0;

/** Size, side, class and hand of a thread as a row makes it, against what the print says. */
function kindClaims(b: Balloon, m: Made): Claim[] {
  const claim = (says: string, state: Claim["state"], by: string): Claim => ({ of: "thread", says, state, by, on: [] });
  const printed = findThread(b.thread ?? "");
  const made = findThread(m.designation);
  const where = `row ${m.row.number}`;
  const claims: Claim[] = [];
  if (!printed || !made) return claims;
  if (printed.external !== null && printed.external === m.inside)
    claims.push(
      claim(printed.external ? "an outside thread" : "an inside thread", "false", `${where} makes the other`),
    );
  if (printed.class !== null) {
    const isSame = made.class === null ? isUsualClass(printed) : made.class === printed.class;
    claims.push(
      claim(
        `class ${printed.class}`,
        isSame ? "true" : made.class === null ? "unexamined" : "false",
        made.class === null ? `${where} says no class` : `${where} makes ${made.class}`,
      ),
    );
  }
  const wants = printed.leftHand === true || saysLeftHand(b);
  // A row that takes its thread from this balloon takes what its note says with it.
  const has = made.leftHand === true || (m.cites === b.number && wants);
  if (wants || has)
    claims.push(
      claim(
        wants ? "left hand" : "right hand",
        wants === has ? "true" : "false",
        `${where} makes a ${has ? "left" : "right"}-hand thread`,
      ),
    );
  return claims;
}
