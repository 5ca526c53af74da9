import type { Words } from "./words";

/** A number after X without its degree sign is an angle from here on; below it could be a second leg. */
const LEAST_LEAN = 10;

type Treatment = "CHAMFER" | "ROUND" | "BREAK";
const treatments: Record<string, Treatment> = {
  CHAMFER: "CHAMFER",
  CHAMFERS: "CHAMFER",
  CHAM: "CHAMFER",
  CHAMF: "CHAMFER",
  CHFR: "CHAMFER",
  CHMF: "CHAMFER",
  BEVEL: "CHAMFER",
  FILLET: "ROUND",
  FILLETS: "ROUND",
  ROUND: "ROUND",
  ROUNDS: "ROUND",
  BREAK: "BREAK",
  DEBURR: "BREAK",
  BROKEN: "BREAK",
  CHAMFERED: "CHAMFER",
  ROUNDED: "ROUND",
  FILLETED: "ROUND",
};

/** Chamfers, rounds and broken edges from a print's words: `BREAK ALL EDGES .010`, `.03 X 45° CHAMFER`, `R.06 FILLET VERTICAL`. */
export function edgeText(w: Words, pocket: string | null = null): string | null {
  const said: Said = {
    treatment: null,
    size: null,
    angle: null,
    isRadius: false,
    isOfEdge: false,
    isOfEdges: false,
    isOfCorners: false,
    isDeburred: w.sees("DEBURR"),
    edges: [],
  };
  while (!w.done) if (!takePhrase(said, w, pocket)) return null;
  return edgeRow(said);
}

interface Said {
  treatment: Treatment | null;
  size: string | null;
  angle: string | null;
  isRadius: boolean;
  /** Words said: an edge, several of them, corners, deburring. */
  isOfEdge: boolean;
  isOfEdges: boolean;
  isOfCorners: boolean;
  isDeburred: boolean;
  edges: string[];
}

/** Takes the next phrase; false where it is none of an edge's. */
function takePhrase(said: Said, w: Words, pocket: string | null): boolean {
  if (w.sees("EDGE") || w.sees("EDGES")) said.isOfEdge = true;
  if (w.sees("EDGES") || w.sees("CORNERS")) said.isOfEdges = true;
  if (w.sees("CORNERS") || w.sees("CORNER")) said.isOfCorners = true;
  if (isSilent(w)) return true;
  // `C0.5`: a chamfer of 45 degrees.
  const isLegged = !said.treatment && said.size === null && w.seesAtNumber("C");
  const named = isLegged ? "CHAMFER" : w.here?.is === "word" ? treatments[w.here.text] : undefined;
  if (named && !said.treatment) {
    said.treatment = named;
    w.next();
    return true;
  }
  const found = pocketEdge(w, pocket) ?? edgesHere(w);
  if (found) {
    said.edges.push(...found);
    return true;
  }
  const isLean = w.take("X");
  const s = w.size();
  if (!s) return false;
  if (s.tag === "angle" && said.angle === null) said.angle = s.text;
  else if ((s.tag === null || s.tag === "R") && said.size === null)
    [said.size, said.isRadius] = [s.text, s.tag === "R"];
  else if (s.tag === null && said.angle === null && isLean && Number(s.text) >= LEAST_LEAN) said.angle = s.text;
  else return false;
  return true;
}

function edgeRow(said: Said): string | null {
  const { size, angle, isRadius, isOfEdge, isOfEdges } = said;
  // `ALL AROUND BOTTOM EDGE`: round that rim.
  const isRim = said.edges.some((e) => e.startsWith("OUTER"));
  const edges = said.edges.filter((e) => e !== AROUND || !isRim);
  let { treatment } = said;
  // `BREAK EDGES .01`: all of them.
  if (treatment === "BREAK" && !edges.length && (isOfEdge || isOfEdges || said.isDeburred)) edges.push("ALL SHARP");
  // `1 X 45° ALL SHARP EDGES`, `.06 X 45° TOP`: what leans is a chamfer.
  const isLeaning = angle !== null && edges.length > 0 && (Number(angle) === 45 || isOfEdges);
  if (!treatment && isLeaning) treatment = "CHAMFER";
  // `ROUND CORNERS R.25`, `4X R.38 CORNERS`: the upright ones.
  if (isRadius && said.isOfCorners && !edges.length) edges.push("VERTICAL");
  // A radius on upright edges is a round; on others it may be a fillet of the floor, unless edges are said.
  const isRoundOf = (e: string) => e === "VERTICAL" || e.startsWith("FLOOR") || (isOfEdge && e.startsWith("OUTER"));
  if (!treatment && isRadius && edges.length && edges.every(isRoundOf)) treatment = "ROUND";
  if (!treatment || size === null || !edges.length) return null;
  // `ALL EDGES TOP`: all of those.
  const rims = edges.filter((e) => e.startsWith("OUTER"));
  const isOfRims = isOfEdges && edges.every((e) => e === "ALL SHARP" || rims.includes(e));
  if (rims.length && isOfRims) edges.splice(0, edges.length, ...rims);
  if (isRadius && treatment !== "ROUND") return null;
  // A break leans 45 degrees, and a round not at all.
  if (angle !== null && treatment !== "CHAMFER" && (treatment !== "BREAK" || Number(angle) !== 45)) return null;
  // 45 degrees is what a chamfer is without an angle.
  const lean = angle === null || Number(angle) === 45 ? "" : ` X ${angle}°`;
  return `CUT ${treatment} ${size}${lean} ${[...new Set(edges.map((e) => (e === AROUND ? around(treatment!) : e)))].join(", ")}`;
}

const isSilent = (w: Words): boolean =>
  w.take(",") ||
  w.take("ON") ||
  w.take("TO") ||
  w.take("AT") ||
  w.take("THE") ||
  w.take("EDGE") ||
  w.take("EDGES") ||
  w.take("CORNERS") ||
  w.take("CORNER", "RADIUS") ||
  w.take("CORNER", "RADII") ||
  w.take("REMOVE", "ALL", "BURRS") ||
  w.take("REMOVE", "BURRS") ||
  w.take("MAX") ||
  w.take("TYP") ||
  w.take("AND") ||
  w.take("&") ||
  w.take("RIM") ||
  w.take("RIMS");

/** All round the piece: of a break every sharp edge, of a chamfer or round the rim of its top. */
const AROUND = "all around";
const around = (treatment: Treatment): string => (treatment === "BREAK" ? "ALL SHARP" : "OUTER TOP");

/** `4 CORNERS`, `ALL CORNERS`: the upright ones of a block. */
function fourCorners(w: Words): boolean {
  const save = w.mark();
  // `4X R.38 CORNERS`, `.25 R, 4 PLACES VERTICAL`
  if (w.count() === "4" && (w.sees("R") || w.take("VERTICAL"))) return true;
  w.back(save);
  if (upright.some((words) => w.take(...words))) return true;
  const n = w.count() ?? w.number();
  if (n?.replace(/[()]/g, "") === "4" && w.take("CORNERS")) return true;
  w.back(save);
  return false;
}

const upright = [
  ["ALL", "CORNERS"],
  ["ALL", "FOUR", "CORNERS"],
  ["ALL", "OUTSIDE", "CORNERS"],
  ["FOUR", "CORNERS"],
  ["OUTSIDE", "CORNERS"],
  ["ALL", "UPRIGHT"],
];

/** `BOTTOM OF POCKET`, `MOUTH OF POCKET`, where there is one pocket. */
function pocketEdge(w: Words, pocket: string | null): string[] | null {
  const save = w.mark();
  const of = w.takeOne(["BOTTOM", "FLOOR"]) ? "FLOOR" : w.takeOne(["MOUTH", "TOP"]) ? "MOUTH" : null;
  const isOf = w.take("OF");
  w.take("THE");
  const isPockets = of !== null && isOf && w.takeOne(["POCKET", "SLOT", "RECESS"]) !== null;
  const row = isPockets ? (w.take("ROW"), w.number() ?? pocket) : null;
  if (row !== null) return [`${of} OF ${row}`];
  w.back(save);
  return null;
}

/** Edges as a print and as a card names them; null where none are named here. */
function edgesHere(w: Words): string[] | null {
  if (w.take("OUTER", "TOP") || w.take("TOP", "OUTER")) return ["OUTER TOP"];
  if (w.take("OUTER", "BOTTOM") || w.take("BOTTOM", "OUTER")) return ["OUTER BOTTOM"];
  if (w.take("BOTH", "SIDES") || w.take("BOTH", "ENDS") || w.take("TOP", "AND", "BOTTOM"))
    return ["OUTER TOP", "OUTER BOTTOM"];
  if (w.take("FAR", "SIDE")) return ["OUTER BOTTOM"];
  if (w.take("NEAR", "SIDE")) return ["OUTER TOP"];
  if (w.take("VERTICAL") || fourCorners(w)) return ["VERTICAL"];
  if (w.take("ALL", "VERTICAL")) return ["VERTICAL"];
  if (w.take("ALL", "AROUND") || w.take("ALL", "ROUND")) return [AROUND];
  if (w.take("ALL", "SHARP") || w.take("SHARP") || w.take("ALL", "OVER") || w.take("ALL")) return ["ALL SHARP"];
  const of = w.take("MOUTH", "OF") ? "MOUTH" : w.take("FLOOR", "OF") ? "FLOOR" : null;
  if (of) {
    w.take("ROW");
    const row = w.number();
    return row === null ? null : [`${of} OF ${row}`];
  }
  // `BOTTOM OF POCKET` is another edge than the foot of the piece.
  if (w.sees("BOTTOM", "OF") || w.sees("TOP", "OF")) return null;
  if (w.take("TOP")) return ["OUTER TOP"];
  return w.take("BOTTOM") ? ["OUTER BOTTOM"] : null;
}
