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
    const d = distance(word, k);
    if (d < least) [best, least] = [k, d];
  }
  return best;
}

/** Slips between two words: a letter more, fewer, other, or two swapped (optimal string alignment). */
function distance(a: string, b: string): number {
  const d = Array.from({ length: a.length + 1 }, (_, i) =>
    Array.from({ length: b.length + 1 }, (_, j) => (i === 0 ? j : j === 0 ? i : 0)),
  );
  for (let i = 1; i <= a.length; i++)
    for (let j = 1; j <= b.length; j++) {
      d[i][j] = Math.min(d[i - 1][j] + 1, d[i][j - 1] + 1, d[i - 1][j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1));
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        d[i][j] = Math.min(d[i][j], d[i - 2][j - 2] + 1);
    }
  return d[a.length][b.length];
}
