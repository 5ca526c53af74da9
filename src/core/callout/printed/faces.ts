import { figureOf } from "./figure";
import { Places } from "./places";
import type { Words } from "./words";

const heads = ["FACE", "STEP", "GROOVE", "FLAT"] as const;
type Head = (typeof heads)[number];
/** Taking a skin off a face, as people say it. */
const facing = [["SKIM"], ["CLEAN", "UP"], ["FLY", "CUT"], ["FACE", "MILL"]];
const headOf = (w: Words): Head | null => {
  if (facing.some((words) => w.take(...words))) return "FACE";
  return w.takeOne(["RABBET", "REBATE", "SHOULDER"]) ? "STEP" : w.takeOne(heads);
};

/** `LEFT`, `FROM LEFT`, `ON THE LEFT SIDE`, `AT THE BACK`: which side a step runs along. */
function sideOfStep(w: Words): string | null {
  const save = w.mark();
  w.takeOne(["FROM", "ON", "AT", "ALONG"]);
  w.take("THE");
  const side = w.takeOne(["LEFT", "RIGHT", "FRONT", "BACK"]);
  if (!side) w.back(save);
  else if (!w.take("SIDE")) w.take("EDGE");
  return side;
}

/** Facing, steps and ring grooves from a print's words: `FACE .03 DEEP`, `STEP LEFT .75 WIDE .3 DEEP`, `GROOVE 1.5 OD 1.36 ID .06 DEEP`. */
export function faceText(w: Words): string | null {
  if (!w.take("ORING")) w.take("RING");
  let head = headOf(w);
  const said: FaceSaid["said"] = {};
  const bare: string[] = [];
  const rounds: string[] = [];
  const places = new Places();
  let side: string | null = null;
  let plane: string | null = null;
  while (!w.done) {
    if (w.take(",") || w.take("/") || w.take("X") || w.take("TYP") || w.take("MILL") || w.take("TO", "CLEAN", "UP"))
      continue;
    if (w.take("TO", "CLEAN")) continue;
    // Its name may stand behind its sizes.
    head ??= w.sees("OFF", "TOP") || w.sees("OFF", "BOTTOM") ? "FACE" : headOf(w);
    if (w.done) break;
    if (side === null && (head === "STEP" || head === null) && (side = sideOfStep(w))) continue;
    if (head === "FACE" && plane === null) {
      // `FACE .06 OFF TOP`, `FACE TOP .03`.
      const isOff = w.take("OFF");
      w.take("THE");
      const off = w.takeOne(["TOP", "BOTTOM", "FRONT", "BACK", "LEFT", "RIGHT"]);
      if (isOff && !off && !w.here) return null;
      if (off) {
        plane = off === "TOP" ? "" : ` ON ${off}`;
        continue;
      }
    }
    if (w.done) break;
    const size = w.size();
    if (!size) {
      if (!places.take(w)) return null;
      continue;
    }
    if (size.tag === null) bare.push(size.text);
    // `GROOVE ⌀40/⌀34`: its outside and its inside.
    else if (size.tag === "⌀" && head === "GROOVE" && rounds.length < 2) rounds.push(size.text);
    else if ((size.tag === "deep" || size.tag === "wide" || size.tag === "OD" || size.tag === "ID") && !said[size.tag])
      said[size.tag] = size.text;
    else return null;
  }
  return head && faceRow({ head, said, bare, rounds, side, plane, places });
}

interface FaceSaid {
  head: Head;
  said: Partial<Record<"deep" | "wide" | "OD" | "ID", string>>;
  /** Sizes without a word, and diameters that do not say of which side. */
  bare: string[];
  rounds: string[];
  side: string | null;
  plane: string | null;
  places: Places;
}

function faceRow({ head, said, bare, rounds, side, plane, places }: FaceSaid): string | null {
  if (rounds.length === 2) [said.ID, said.OD] = rounds.sort((a, b) => figureOf(a) - figureOf(b));
  else if (rounds.length) return null;
  // A step's second size is how deep, a ring groove's only one.
  const isLast = bare.length === (head === "STEP" && said.wide === undefined ? 2 : 1);
  const deep = said.deep ?? (isLast && head !== "FLAT" ? bare.pop() : undefined);
  if (!deep) return null;
  // Off one side and on another: two planes.
  if (plane !== null && places.text) return null;
  // `FLAT 2 DEEP ON LEFT`: a skin off that side, which has to be said.
  const isSided = plane !== null || places.text.includes(" ON ");
  if (head === "FLAT" && !isSided) return null;
  if (head === "FACE" || head === "FLAT")
    return bare.length ? null : `CUT FACE DEEP ${deep}${plane ?? ""}${places.text}`;
  if (head === "GROOVE")
    return said.OD && said.ID && !said.wide && !bare.length
      ? `CUT GROOVE OD ${said.OD} ID ${said.ID} DEEP ${deep}${places.text}`
      : null;
  const wide = said.wide ?? bare.shift();
  return side && wide && !bare.length ? `CUT STEP ${side} ${wide} DEEP ${deep}${places.text}` : null;
}
