import type { NumberText, Quantity } from "../number";
import type { OutlineItem } from "./items";

/** One number of an outline's line: what it is, and where it stands in the line. */
export interface ItemNumber {
  at: (string | number)[];
  label: string;
  quantity: Quantity;
  role: "length" | "diameter" | "radius" | "angle" | "count";
  text: NumberText;
}

type Maybe<T> = T | undefined;
interface Spot {
  x?: NumberText;
  y?: NumberText;
  diameter?: true;
}

/** Every number of a line, said kind by kind: nothing else of a line is ever taken for one. */
export function numbersOfItem(i: OutlineItem): ItemNumber[] {
  const out: ItemNumber[] = [];
  const put =
    (role: ItemNumber["role"], quantity: Quantity) =>
    (text: Maybe<NumberText>, ...at: (string | number)[]) => {
      if (text !== undefined) out.push({ at, label: String(at[at.length - 1]), quantity, role, text });
    };
  const length = put("length", "coordinate");
  const diameter = put("diameter", "coordinate");
  const radius = put("radius", "coordinate");
  const angle = put("angle", "angle");
  const count = put("count", "count");
  const spot = (p: Maybe<Spot>, ...at: (string | number)[]) => {
    if (!p) return;
    (p.diameter ? diameter : length)(p.x, ...at, "x");
    length(p.y, ...at, "y");
  };
  const placed = (p: { at?: Spot; turn?: NumberText }) => {
    spot(p.at, "at");
    angle(p.turn, "turn");
  };
  switch (i.item) {
    case "start":
      spot(i.at, "at");
      break;
    case "line":
      spot(i.to, "to");
      spot(i.by, "by");
      length(i.length, "length");
      angle(i.angle, "angle");
      break;
    case "arc":
      spot(i.to, "to");
      spot(i.by, "by");
      radius(i.radius, "radius");
      spot(i.centre, "centre");
      angle(i.sweep, "sweep");
      break;
    case "relation":
      break;
    case "dimension":
      (i.dimension === "angle"
        ? angle
        : i.dimension === "radius"
          ? radius
          : i.dimension === "diameter"
            ? diameter
            : length)(i.value, "value");
      break;
    case "circle":
      diameter(i.diameter, "diameter");
      placed(i);
      break;
    case "rectangle":
      length(i.length, "length");
      length(i.width, "width");
      radius(i.radius, "radius");
      placed(i);
      break;
    case "slot":
      length(i.length, "length");
      length(i.width, "width");
      placed(i);
      break;
    case "polygon":
      count(i.sides, "sides");
      length(i.size, "size");
      radius(i.radius, "radius");
      placed(i);
      break;
    case "star":
      count(i.points, "points");
      diameter(i.outer, "outer");
      diameter(i.inner, "inner");
      placed(i);
      break;
    case "ring":
      diameter(i.outer, "outer");
      diameter(i.inner, "inner");
      placed(i);
      break;
    case "link":
      diameter(i.first, "first");
      spot(i.firstAt, "firstAt");
      diameter(i.second, "second");
      spot(i.secondAt, "secondAt");
      break;
    case "segment":
      diameter(i.diameter, "diameter");
      length(i.height, "height");
      length(i.chord, "chord");
      placed(i);
      break;
    case "text":
      length(i.height, "height");
      diameter(i.around?.diameter, "around", "diameter");
      angle(i.around?.from, "around", "from");
      placed(i);
      break;
    case "face":
    case "edges":
    case "use":
    case "join":
    case "cutout":
    case "overlap":
      placed(i);
      break;
    case "section":
      length(i.at, "at");
      break;
    case "trim":
    case "break":
      spot(i.at, "at");
      break;
    case "extend":
      length(i.length, "length");
      break;
    case "mend":
      length(i.gap, "gap");
      break;
    case "offset":
      length(i.by, "by");
      break;
    case "mirror":
      if (typeof i.about === "object") {
        spot(i.about.from, "about", "from");
        spot(i.about.to, "about", "to");
      }
      break;
    case "repeat":
      repeated(i.pattern, { length, angle, count, spot });
      break;
    case "fullRound":
      break;
    case "corners":
      (i.treatment === "round" ? radius : length)(i.size, "size");
      break;
  }
  return out;
}

type Put = (text: Maybe<NumberText>, ...at: (string | number)[]) => void;
function repeated(
  p: Extract<OutlineItem, { item: "repeat" }>["pattern"],
  put: { length: Put; angle: Put; count: Put; spot: (p: Maybe<Spot>, ...at: (string | number)[]) => void },
): void {
  switch (p.kind) {
    case "around":
      put.count(p.n, "pattern", "n");
      put.spot(p.centre, "pattern", "centre");
      put.angle(p.step, "pattern", "step");
      break;
    case "line":
      put.count(p.n, "pattern", "n");
      put.length(p.by, "pattern", "by");
      put.angle(p.turn, "pattern", "turn");
      break;
    case "grid":
      put.count(p.nx, "pattern", "nx");
      put.count(p.ny, "pattern", "ny");
      put.length(p.dx, "pattern", "dx");
      put.length(p.dy, "pattern", "dy");
      break;
  }
}
