import { slipsBetween } from "../../base/slips";

/** Words a callout is made of, as far as they are long enough to be misspelt. */
const known = [
  "LEAVE",
  "BLOCK",
  "ROUND",
  "POLYGON",
  "RING",
  "PRISM",
  "TURNED",
  "PLATE",
  "FACE",
  "STEP",
  "POCKET",
  "SLOT",
  "GROOVE",
  "BORE",
  "CBORE",
  "COUNTERBORE",
  "COUNTERSINK",
  "CHAMFER",
  "FILLET",
  "BREAK",
  "ENGRAVE",
  "THRU",
  "THROUGH",
  "DEEP",
  "DEPTH",
  "DRILL",
  "REAM",
  "WIDE",
  "THICK",
  "HIGH",
  "LONG",
  "FLAT",
  "POINT",
  "GRID",
  "LINE",
  "FROM",
  "TURN",
  "START",
  "CORNER",
  "OUTER",
  "BOTTOM",
  "FRONT",
  "BACK",
  "LEFT",
  "RIGHT",
  "FLOOR",
  "MOUTH",
  "VERTICAL",
  "SHARP",
  "EDGES",
  "HOLES",
  "PLACES",
  "EQUALLY",
  "SPACED",
  "CIRCLE",
  "DIAMETER",
  "RADIUS",
  "SPOTFACE",
  "AROUND",
];

/** A line with each word that is none put as the one it is nearest to. */
export const nearestWords = (text: string): string =>
  text.replace(/[A-Za-z]{4,}/g, (word) => nearest(word.toUpperCase()) ?? word);

function nearest(word: string): string | null {
  if (known.includes(word)) return word;
  const most = word.length > 6 ? 2 : 1;
  let best: string | null = null,
    least = most + 1;
  for (const k of known) {
    if (Math.abs(k.length - word.length) > most) continue;
    const d = slipsBetween(word, k);
    if (d < least) [best, least] = [k, d];
  }
  return best;
}
