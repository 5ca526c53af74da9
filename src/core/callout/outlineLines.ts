import { dimensions, relations, type OutlineItem } from "../outline/items";
import type { NumberText } from "../number";
import type { RowNames } from "./grammar";
import type { Reader } from "./reader";

export type XY = { x: NumberText; y: NumberText; diameter?: true };
export type Some = { x?: NumberText; y?: NumberText; diameter?: true };

const round = (r: Reader) => (r.take("⌀") ? { diameter: true as const } : {});
const point = (r: Reader, path: string): XY => {
  const diameter = round(r);
  const x = r.number(`${path}.x`, "a coordinate x");
  r.skip();
  if (r.text[r.pos] !== ",") r.fail("a comma and y");
  r.pos++;
  return { x, y: r.number(`${path}.y`, "a coordinate y"), ...diameter };
};
/** `10,20`, or only what changes: `X 10`, `Y 20`. */
const some = (r: Reader, path: string): Some => {
  if (r.take("X")) {
    const diameter = round(r);
    return {
      x: r.number(`${path}.x`, "a coordinate x"),
      ...diameter,
      ...(r.take("Y") ? { y: r.number(`${path}.y`, "a coordinate y") } : {}),
    };
  }
  if (r.take("Y")) return { y: r.number(`${path}.y`, "a coordinate y") };
  return point(r, path);
};
const quoted = (r: Reader): string => {
  const name = r.quoted().trim();
  if (!name) r.fail("the name of an outline");
  return name.slice(0, 120);
};

/** `P3`, `C2`, `4`, `X`, `Y`: points, centres, elements, the axes. */
function refs(r: Reader, least: number, most: number): (number | string)[] {
  const out: (number | string)[] = [];
  while (out.length < most) {
    r.skip();
    const m = /^(?:([PC])(\d{1,4})|(\d{1,4})(?![\d.])|([XY])(?![A-Za-z]))/i.exec(r.text.slice(r.pos));
    if (!m) break;
    if (m[3] && !(Number(m[3]) >= 1 && Number(m[3]) <= 5000))
      r.fail("an element counted from 1, as the steps of the walk are", `there is no element ${m[3]}`);
    r.pos += m[0].length;
    out.push(m[1] ? `${m[1].toUpperCase()}${m[2]}` : m[3] ? Number(m[3]) : m[4].toUpperCase());
    r.take("OF");
    r.take("ABOUT");
  }
  if (out.length < least)
    r.fail(
      least === 1 ? "an element such as 3 or a point such as P2" : "another element such as 3 or point such as P2",
    );
  return out;
}

const placed = (r: Reader): { at?: XY; turn?: NumberText } => {
  const out: { at?: XY; turn?: NumberText } = {};
  for (;;) {
    if (r.take("AT")) out.at = point(r, "at");
    else if (r.take("TURN")) out.turn = r.angle("turn");
    else return out;
  }
};

/** Values of a line or arc, in any order. */
function step(r: Reader, item: "line" | "arc"): OutlineItem {
  const s: Record<string, unknown> = { item, ...(item === "arc" ? { side: "ccw" } : {}) };
  const once = (key: string, word: string) => {
    if (s[key] !== undefined) r.fail("each value once", `${word} is given twice`, r.pos - word.length);
  };
  while (!r.done) {
    if (r.take("TO")) {
      once("to", "TO");
      s.to = some(r, "to");
    } else if (r.take("BY")) {
      once("by", "BY");
      s.by = some(r, "by");
    } else if (r.take("TANGENT")) s.tangent = true;
    else if (r.take("CLOSE")) s.close = true;
    else if (r.take("NEAR")) {
      once("near", "NEAR");
      s.near = point(r, "near");
    } else if (item === "line" && r.take("L")) {
      once("length", "L");
      s.length = r.number("length", "a length");
    } else if (item === "line" && r.take("A")) {
      once("angle", "A");
      s.angle = r.angle("angle");
    } else if (item === "arc" && r.take("R")) {
      once("radius", "R");
      s.radius = r.number("radius", "a radius");
    } else if (item === "arc" && (r.take("CENTRE") || r.take("CENTER"))) {
      once("centre", "CENTRE");
      s.centre = point(r, "centre");
    } else if (item === "arc" && r.take("SWEEP")) {
      once("sweep", "SWEEP");
      s.sweep = r.angle("sweep");
    } else if (item === "arc" && r.take("CCW")) s.side = "ccw";
    else if (item === "arc" && r.take("CW")) s.side = "cw";
    else if (item === "arc" && r.take("LONG")) s.long = true;
    else
      r.fail(
        item === "line"
          ? "TO, BY, L, A, TANGENT, NEAR or CLOSE"
          : "TO, BY, R, CENTRE, SWEEP, CW, CCW, LONG, TANGENT, NEAR or CLOSE",
      );
  }
  return s as OutlineItem;
}

/** Least and most things each relation speaks of. */
const arity: Record<(typeof relations)[number] | (typeof dimensions)[number], [number, number]> = {
  horizontal: [1, 2],
  vertical: [1, 2],
  parallel: [2, 2],
  perpendicular: [2, 2],
  tangent: [2, 2],
  equal: [2, 2],
  concentric: [2, 2],
  coincident: [2, 2],
  symmetric: [3, 3],
  midpoint: [2, 2],
  on: [2, 2],
  fix: [1, 1],
  distance: [2, 2],
  dx: [2, 2],
  dy: [2, 2],
  angle: [1, 2],
  length: [1, 1],
  radius: [1, 1],
  diameter: [1, 1],
};

const sides = ["TOP", "BOTTOM", "FRONT", "BACK", "LEFT", "RIGHT", "FLOOR"] as const;
const ofRow = (r: Reader, names: RowNames, word: "OF" | "AFTER") => {
  r.want(word);
  return names.idOf(r.whole("the number of a row"));
};

function readText(r: Reader): OutlineItem {
  const text = r.quoted().slice(0, 200);
  if (!text.trim()) r.fail("the text in double quotes");
  r.want("HEIGHT");
  const t: Extract<OutlineItem, { item: "text" }> = {
    item: "text",
    text,
    height: r.number("height", "the height of the capitals"),
    font: "plain",
  };
  for (;;) {
    if (r.take("MONO")) t.font = "mono";
    else if (r.take("PLAIN")) t.font = "plain";
    else if (r.take("LEFT")) t.align = "left";
    else if (r.take("MIDDLE")) t.align = "middle";
    else if (r.take("RIGHT")) t.align = "right";
    else if (r.take("AROUND"))
      t.around = {
        diameter: r.diameter("around.diameter"),
        ...(r.take("FROM") ? { from: r.angle("around.from") } : {}),
        ...(r.take("INSIDE") ? { inside: true as const } : {}),
      };
    else if (r.sees("AT") || r.sees("TURN")) Object.assign(t, placed(r));
    else return t;
  }
}

/** Chains trimmed, lengthened, parted and mended: for those who work that way. */
function readChainItem(r: Reader): OutlineItem | null {
  const against = () => (r.take("AGAINST") ? { against: quoted(r) } : {});
  if (r.take("TRIM")) return { item: "trim", at: (r.take("AT"), point(r, "at")), ...against() };
  if (r.take("BREAK")) return { item: "break", at: (r.take("AT"), point(r, "at")) };
  if (r.take("MEND"))
    return { item: "mend", ...(r.seesNumber() ? { gap: r.number("gap", "the widest gap to close") } : {}) };
  if (!r.take("EXTEND")) return null;
  const end = r.takeOne(["START", "END"] as const);
  if (!end) r.fail("START or END");
  const to = r.take("BY") ? { length: r.number("length", "a length") } : against();
  if (!("length" in to) && !("against" in to)) r.fail('AGAINST "outline" or BY length');
  return { item: "extend", end: end!.toLowerCase() as "start", ...to };
}

/** One line of an outline's block. */
export function readOutlineItem(r: Reader, names: RowNames): OutlineItem {
  if (r.take("TEXT")) return readText(r);
  if (r.take("FACE")) {
    const face = r.takeOne(sides);
    if (!face) r.fail("TOP, BOTTOM, FRONT, BACK, LEFT, RIGHT or FLOOR");
    return {
      item: "face",
      face: face!.toLowerCase() as "top",
      row: r.sees("AFTER") ? ofRow(r, names, "AFTER") : ofRow(r, names, "OF"),
      ...placed(r),
    };
  }
  if (r.take("EDGES")) {
    const which = r.takeOne(["MOUTH", "FLOOR", "OUTER"] as const);
    if (!which) r.fail("MOUTH OF n, FLOOR OF n, OUTER TOP AFTER n or OUTER BOTTOM AFTER n");
    const side = which === "OUTER" ? r.takeOne(["TOP", "BOTTOM"] as const) : null;
    if (which === "OUTER" && !side) r.fail("TOP or BOTTOM");
    const edges =
      which === "MOUTH"
        ? ("mouthOf" as const)
        : which === "FLOOR"
          ? ("floorOf" as const)
          : side === "TOP"
            ? ("outerTop" as const)
            : ("outerBottom" as const);
    return { item: "edges", edges, row: ofRow(r, names, which === "OUTER" ? "AFTER" : "OF"), ...placed(r) };
  }
  if (r.take("SECTION")) {
    const axis = r.takeOne(["X", "Y", "Z"] as const);
    if (!axis) r.fail("X, Y or Z");
    return {
      item: "section",
      axis: axis!,
      at: r.number("at", "where the plane stands"),
      row: ofRow(r, names, "AFTER"),
    };
  }
  const chained = readChainItem(r);
  if (chained) return chained;
  if (r.take("START")) return { item: "start", at: point(r, "at") };
  if (r.take("LINE")) return step(r, "line");
  if (r.take("ARC")) return step(r, "arc");
  if (r.take("CLOSE")) return { item: "line", close: true };
  for (const relation of relations)
    if (r.take(relation.toUpperCase()))
      return { item: "relation", relation, of: refs(r, ...arity[relation]) } as OutlineItem;
  for (const dimension of dimensions)
    if (r.take(dimension.toUpperCase())) {
      const [least, most] = arity[dimension];
      // The last number is the value: `ANGLE 1 60` has one element, `ANGLE 1 2 60` two.
      const numbers = r.text.slice(r.pos).trim().split(/\s+/).length;
      const of = refs(r, least, Math.max(least, Math.min(most, numbers - 1)));
      r.take("=");
      r.take("⌀");
      const value = dimension === "angle" ? r.angle("value") : r.number("value", "a value");
      return { item: "dimension", dimension, of, value } as OutlineItem;
    }
  if (r.take("CIRCLE")) return { item: "circle", diameter: r.diameter("diameter"), ...placed(r) };
  if (r.take("RECTANGLE")) {
    const length = r.number("length", "a length");
    r.want("X");
    const width = r.number("width", "a width");
    const radius = r.take("R") ? { radius: r.number("radius", "a radius") } : {};
    return {
      item: "rectangle",
      length,
      width,
      ...radius,
      ...(r.take("CORNER") ? { corner: true as const } : {}),
      ...placed(r),
    };
  }
  if (r.take("SLOT")) {
    const centres = r.take("CENTRES") || r.take("CENTERS");
    const length = r.number("length", "a length");
    r.want("X");
    return {
      item: "slot",
      length,
      width: r.number("width", "a width"),
      ...(centres ? { centres: true as const } : {}),
      ...placed(r),
    };
  }
  if (r.take("POLYGON")) {
    const sides = r.number("sides", "a number of sides");
    const across = r.takeOne(["AF", "AC"] as const);
    if (!across) r.fail("AF or AC");
    const size = r.number("size", "a size");
    return {
      item: "polygon",
      sides,
      across: across!,
      size,
      ...(r.take("R") ? { radius: r.number("radius", "a radius") } : {}),
      ...placed(r),
    };
  }
  if (r.take("STAR")) {
    const points = r.number("points", "a number of points");
    r.want("OD");
    const outer = r.diameter("outer");
    r.want("ID");
    return { item: "star", points, outer, inner: r.diameter("inner"), ...placed(r) };
  }
  if (r.take("RING")) {
    r.want("OD");
    const outer = r.diameter("outer");
    r.want("ID");
    return { item: "ring", outer, inner: r.diameter("inner"), ...placed(r) };
  }
  if (r.take("LINK")) {
    const first = r.diameter("first");
    r.want("AT");
    const firstAt = point(r, "firstAt");
    const second = r.diameter("second");
    r.want("AT");
    return { item: "link", first, firstAt, second, secondAt: point(r, "secondAt") };
  }
  if (r.take("SEGMENT")) {
    const diameter = r.diameter("diameter");
    const which = r.takeOne(["HEIGHT", "CHORD"] as const);
    if (!which) r.fail("HEIGHT or CHORD");
    const value = r.number("height", "a length");
    return { item: "segment", diameter, ...(which === "HEIGHT" ? { height: value } : { chord: value }), ...placed(r) };
  }
  if (r.take("USE")) return { item: "use", outline: quoted(r), ...placed(r) };
  for (const item of ["join", "cutout", "overlap"] as const)
    if (r.take(item.toUpperCase())) return { item, outline: quoted(r), ...placed(r) };
  if (r.take("OFFSET"))
    return { item: "offset", by: r.number("by", "a distance"), ...(r.take("BOTH") ? { both: true as const } : {}) };
  if (r.take("MIRROR")) {
    const keep = r.take("KEEP");
    const axis = r.takeOne(["X", "Y"] as const);
    const about =
      axis ??
      (() => {
        const from = point(r, "from");
        r.want("TO");
        return { from, to: point(r, "to") };
      })();
    return { item: "mirror", about, ...(keep || r.take("KEEP") ? { keep: true as const } : {}) };
  }
  if (r.take("REPEAT")) {
    let pattern: Extract<OutlineItem, { item: "repeat" }>["pattern"];
    if (r.take("LINE")) {
      const n = r.number("n", "a count");
      r.want("BY");
      pattern = {
        kind: "line",
        n,
        by: r.number("by", "a distance"),
        ...(r.take("TURN") ? { turn: r.angle("turn") } : {}),
      };
    } else if (r.take("GRID")) {
      const nx = r.number("nx", "a count"),
        ny = r.number("ny", "a count");
      r.want("BY");
      pattern = { kind: "grid", nx, ny, dx: r.number("dx", "a distance"), dy: r.number("dy", "a distance") };
    } else {
      const n = r.number("n", "a count such as 10X");
      r.want("X");
      pattern = {
        kind: "around",
        n,
        ...(r.take("AROUND") ? { centre: point(r, "centre") } : {}),
        ...(r.take("STEP") ? { step: r.angle("step") } : {}),
      };
    }
    const skip: number[] = [];
    if (r.take("SKIP")) while (!r.done) skip.push(r.whole("the number of a place"));
    return { item: "repeat", pattern, ...(skip.length ? { skip } : {}) };
  }
  const off = r.take("OFF");
  if (r.take("FULLROUND")) {
    const between = refs(r, 2, 2);
    if (between.some((p) => typeof p !== "string" || p[0] !== "P")) r.fail("two corners such as P2 P3");
    return { item: "fullRound", between: between as [string, string], ...(off ? { off: true as const } : {}) };
  }
  const treatment = r.takeOne(["ROUND", "CHAMFER", "RELIEF"] as const);
  if (treatment) {
    r.take("⌀");
    const size = r.number("size", "a size");
    const placement = treatment === "RELIEF" ? r.takeOne(["CORNER", "WALL", "BISECTOR"] as const) : null;
    const word = r.takeOne(["ALL", "INSIDE", "OUTSIDE"] as const);
    const which = word ? (word.toLowerCase() as "all") : (r.take("AT"), refs(r, 1, 500) as string[]);
    if (Array.isArray(which) && which.some((w) => typeof w !== "string" || !/^P\d/.test(w)))
      r.fail("ALL, INSIDE, OUTSIDE or corners such as P2 P3");
    return {
      item: "corners",
      treatment: treatment.toLowerCase() as "round",
      size,
      which,
      ...(placement ? { placement: placement.toLowerCase() as "wall" } : {}),
      ...(off ? { off: true as const } : {}),
    };
  }
  return r.fail(
    "START, LINE, ARC, CLOSE, a relation, a dimension, a shape, TEXT, FACE, EDGES, SECTION, USE, OFFSET, TRIM, EXTEND, BREAK, MEND, MIRROR, REPEAT, JOIN, CUTOUT, OVERLAP, ROUND, CHAMFER, RELIEF or END",
    r.here ? `${JSON.stringify(r.here)} starts no line of an outline` : undefined,
  );
}
