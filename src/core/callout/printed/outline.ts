import { negated } from "../../number";
const number = String.raw`-?(?:\d+\.?\d*|\.\d+|#\d+|\([^()]*\))`;
const move = new RegExp(String.raw`^(RIGHT|LEFT|UP|DOWN)\s+(?:BY\s+)?(${number})\s*,?\s*`, "i");
const place = new RegExp(String.raw`^(?:TO\s+)?(${number})\s*,\s*(${number})$`, "i");

const cornerWords: Record<string, string> = { ROUND: "ROUND", FILLET: "ROUND", FILLETS: "ROUND", ROUNDS: "ROUND" };
const corners = new RegExp(
  String.raw`^(ROUNDS?|FILLETS?)\s+R?\s*(${number})\s+((?:ALL|INSIDE|OUTSIDE|AT(?:\s+P\d+)+))(?:\s+CORNERS)?$`,
  "i",
);

/**
 * A line of an outline as it is said aloud, in the card's words: `LINE RIGHT 1`, `UP .5`, `0,0`. Null where it is none.
 * @param isFirst nothing stands before it: a place is where the walk starts
 */
export function printedOutlineLine(typed: string, isFirst: boolean): string | null {
  const text = typed
    .trim()
    .replace(/^LINE\s+/i, "")
    .replace(/[−–]/g, "-");
  const corner = corners.exec(text);
  if (corner) return `${cornerWords[corner[1].toUpperCase()]} ${corner[2]} ${corner[3].toUpperCase()}`;
  const to = place.exec(text);
  if (to) return `${isFirst ? "START" : "LINE TO"} ${to[1]},${to[2]}`;
  const by: { x?: string; y?: string } = {};
  let rest = text;
  for (let m = move.exec(rest); m; m = move.exec(rest)) {
    const word = m[1].toUpperCase();
    const axis = word === "RIGHT" || word === "LEFT" ? "x" : "y";
    if (by[axis] !== undefined) return null;
    by[axis] = word === "LEFT" || word === "DOWN" ? negated(m[2]) : m[2];
    rest = rest.slice(m[0].length);
  }
  if (rest !== "" || (by.x === undefined && by.y === undefined)) return null;
  if (by.x !== undefined && by.y !== undefined) return `LINE BY ${by.x},${by.y}`;
  return by.x === undefined ? `LINE BY Y ${by.y}` : `LINE BY X ${by.x}`;
}
