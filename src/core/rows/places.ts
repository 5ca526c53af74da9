import { nameText } from "../base/name";
import { z } from "zod";
import { numberText, inCallout, type NumberText, type Quantity } from "../number";
import { getPath, meaningOf, optional, type Clause, type NumberField, type Part } from "../grammar/grammar";
import type { Reader } from "../grammar/reader";
import { spotKinds, type SpotKind } from "./outlineSource";

const point = z.strictObject({ x: numberText, y: numberText });
export const pointZ = z.strictObject({ x: numberText, y: numberText, z: numberText.optional() });

/** Where the copies of a row stand: at points, on a grid, a line or a bolt circle; `single` is one, at 0,0. */
export const pattern = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("single") }),
  z.strictObject({ kind: z.literal("points"), points: z.array(point).min(1).max(5000) }),
  z.strictObject({
    kind: z.literal("grid"),
    nx: numberText,
    ny: numberText,
    dx: numberText,
    dy: numberText,
    at: point.optional(),
  }),
  z.strictObject({
    kind: z.literal("line"),
    n: numberText,
    by: numberText,
    turn: numberText.optional(),
    at: point.optional(),
  }),
  /** At what an outline has: the centres of its rounds or circles, its corners, the middles of its straight sides. */
  z.strictObject({
    kind: z.literal("outline"),
    outline: nameText.min(1),
    of: z.enum(spotKinds),
  }),
  z.strictObject({
    kind: z.literal("boltCircle"),
    diameter: numberText,
    from: numberText.optional(),
    at: point.optional(),
  }),
]);
export type Pattern = z.infer<typeof pattern>;

const coordinate = (path: string, axis: string, text: NumberText): NumberField => ({
  path,
  label: axis,
  quantity: "coordinate",
  means: "coordinate",
  text,
});

export function readPoint(r: Reader, path: string): { x: NumberText; y: NumberText } {
  const x = r.number(`${path}.x`, "a coordinate x,y");
  r.skip();
  if (r.text[r.pos] !== ",") r.fail("a comma between x and y");
  r.pos++;
  return { x, y: r.number(`${path}.y`, "a coordinate y") };
}
export const writePoint = (p: { x: string; y: string; z?: string }): string =>
  [p.x, p.y, ...(p.z === undefined ? [] : [p.z])].map(inCallout).join(",");

/** `AT x,y[,z]` of a leave row. */
export const atZ: Clause = optional("at", {
  expected: "AT",
  starts: (r) => r.sees("AT"),
  read(r, row) {
    r.want("AT");
    row.at = readPoint(r, "at");
    r.skip();
    if (r.text[r.pos] === ",") {
      r.pos++;
      row.at.z = r.number("at.z", "a coordinate z");
    }
  },
  write: (row) => `AT ${writePoint(row.at)}`,
  numbers: (row) =>
    ["x", "y", "z"]
      .filter((k) => row.at[k] !== undefined)
      .map((k) => coordinate(`at.${k}`, k.toUpperCase(), row.at[k])),
});

const at = (r: Reader): { at?: { x: NumberText; y: NumberText } } =>
  r.take("AT") ? { at: readPoint(r, "pattern.at") } : {};

/** What of an outline gives places: `MIDDLES X` are those of sides that look along x. */
function readSpots(r: Reader): SpotKind {
  const of = r.takeOne(["ROUNDS", "CIRCLES", "CORNERS", "MIDDLES"] as const);
  if (!of) return r.fail("ROUNDS, CIRCLES, CORNERS or MIDDLES");
  if (of !== "MIDDLES") return of.toLowerCase() as SpotKind;
  const along = r.takeOne(["X", "Y"] as const);
  return along ? (`middles ${along.toLowerCase()}` as SpotKind) : "middles";
}

/** The pattern of a row. Without one: a single place at 0,0. */
export const patternClause: Clause = {
  expected: "AT, GRID, LINE, ON BC or PLACES",
  starts: (r) => r.sees("AT") || r.sees("GRID") || r.sees("LINE") || r.sees("ON", "BC") || r.sees("PLACES"),
  read(r, row) {
    if (r.take("AT")) {
      const points = [readPoint(r, "pattern.points.0")];
      while (r.seesNumber()) points.push(readPoint(r, `pattern.points.${points.length}`));
      row.pattern = { kind: "points", points };
    } else if (r.take("GRID")) {
      const nx = r.number("pattern.nx", "how many along x"),
        ny = r.number("pattern.ny", "how many along y");
      r.want("BY");
      row.pattern = {
        kind: "grid",
        nx,
        ny,
        dx: r.number("pattern.dx", "spacing along x"),
        dy: r.number("pattern.dy", "spacing along y"),
        ...at(r),
      };
    } else if (r.take("LINE")) {
      const n = r.number("pattern.n", "how many");
      r.want("BY");
      const by = r.number("pattern.by", "a spacing");
      const turn = r.take("TURN") ? { turn: r.angle("pattern.turn") } : {};
      row.pattern = { kind: "line", n, by, ...turn, ...at(r) };
    } else if (r.take("PLACES")) {
      const outline = r.quoted().trim();
      row.pattern = { kind: "outline", outline, of: readSpots(r) };
    } else {
      r.take("ON", "BC");
      const diameter = r.diameter("pattern.diameter");
      const from = r.take("FROM") ? { from: r.angle("pattern.from") } : {};
      row.pattern = { kind: "boltCircle", diameter, ...from, ...at(r) };
    }
  },
  write(row) {
    const p: Pattern = row.pattern;
    const place = "at" in p && p.at ? ` AT ${writePoint(p.at)}` : "";
    switch (p.kind) {
      case "single":
        return "";
      case "points":
        return `AT ${p.points.map(writePoint).join(" ")}`;
      case "grid":
        return `GRID ${inCallout(p.nx)} ${inCallout(p.ny)} BY ${inCallout(p.dx)} ${inCallout(p.dy)}${place}`;
      case "line":
        return `LINE ${inCallout(p.n)} BY ${inCallout(p.by)}${p.turn === undefined ? "" : ` TURN ${inCallout(p.turn)}`}${place}`;
      case "outline":
        return `PLACES "${p.outline.replace(/"/g, "”")}" ${p.of.toUpperCase()}`;
      case "boltCircle":
        return `ON BC ${inCallout(p.diameter)}${p.from === undefined ? "" : ` FROM ${inCallout(p.from)}`}${place}`;
    }
  },
  numbers(row) {
    const p: Pattern = row.pattern;
    const f = (key: string, label: string, quantity: Quantity, means = meaningOf(quantity)): NumberField[] => {
      const text: NumberText | undefined = getPath(p, key);
      return text === undefined ? [] : [{ path: `pattern.${key}`, label, quantity, means, text }];
    };
    const place =
      "at" in p && p.at ? [coordinate("pattern.at.x", "X", p.at.x), coordinate("pattern.at.y", "Y", p.at.y)] : [];
    switch (p.kind) {
      case "single":
      case "outline":
        return [];
      case "points":
        return p.points.flatMap((q, i) => [
          coordinate(`pattern.points.${i}.x`, `X ${i + 1}`, q.x),
          coordinate(`pattern.points.${i}.y`, `Y ${i + 1}`, q.y),
        ]);
      case "grid":
        return [
          ...f("nx", "Along x", "count"),
          ...f("ny", "Along y", "count"),
          ...f("dx", "Spacing x", "coordinate"),
          ...f("dy", "Spacing y", "coordinate"),
          ...place,
        ];
      case "line":
        return [
          ...f("n", "How many", "count"),
          ...f("by", "Spacing", "coordinate"),
          ...f("turn", "Direction", "angle"),
          ...place,
        ];
      case "boltCircle":
        return [
          ...f("diameter", "Bolt circle", "length", "diameter"),
          ...f("from", "First hole at", "angle"),
          ...place,
        ];
    }
  },
};

/** How often, as prints write it: `6X`. */
export const countPrefix: Part = {
  expected: "a count such as 6X",
  starts: () => true,
  read(r, row) {
    const start = r.pos;
    r.skip();
    if (!/[-+.0-9(#?`]/.test(r.text[r.pos] ?? "")) return;
    try {
      const count = r.number("count");
      if (r.take("X")) {
        row.count = count;
        return;
      }
    } catch {
      /* not a count: what follows reads it again and says what is wrong */
    }
    r.marks.delete("count");
    r.pos = start;
  },
  write: (row) => (row.count === undefined ? "" : `${inCallout(row.count)}X`),
  numbers: (row) =>
    row.count === undefined
      ? []
      : [{ path: "count", label: "Count", quantity: "count", means: "copies", text: row.count }],
};
