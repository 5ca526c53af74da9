import { problems } from "../problems";
import { z } from "zod";
import { fail, ok, type Result } from "../../base/result";
import { v3 } from "../../geometry/vec";
import { sequence, type Clause, type NumberField, type Part } from "../../grammar/grammar";
import type { Reader } from "../../grammar/reader";
import { inCallout, numberText } from "../../number";
import type { Copies, Resolved, RowKind } from "../kind";
import { rowRef } from "../planeRef";
import { rowList, rowsPart } from "../rowRange";

const axis = z.enum(["x", "y", "z"]);
const way = z.discriminatedUnion("by", [
  /** About an axis through the job's zero, or that of a row. */
  z.strictObject({
    by: z.literal("around"),
    along: axis.optional(),
    row: rowRef.optional(),
    n: numberText,
    step: numberText.optional(),
  }),
  z.strictObject({ by: z.literal("line"), along: axis, n: numberText, step: numberText }),
  z.strictObject({ by: z.literal("grid"), nx: numberText, ny: numberText, dx: numberText, dy: numberText }),
  z.strictObject({ by: z.literal("like"), row: rowRef }),
]);
const schema = z.strictObject({
  kind: z.literal("repeat"),
  rows: rowList,
  way,
  skip: z.array(z.number().int().min(1).max(5000)).max(200).optional(),
});
export type Repeat = z.infer<typeof schema>;

const AXES = ["X", "Y", "Z"] as const;
const axisAt = (r: Reader): "x" | "y" | "z" => {
  const found = r.takeOne(AXES);
  return found ? (found.toLowerCase() as "x" | "y" | "z") : r.fail("X, Y or Z");
};
/** `6X`: how many there are, the original among them. */
const countAt = (r: Reader) => {
  const n = r.number("way.n", "how many, such as 6X");
  r.want("X", "X after the number");
  return n;
};

const wayPart: Part = {
  expected: "6X AROUND Z, LINE 4X BY 20 ALONG X, GRID 2 3 BY 20 30 or LIKE n",
  starts: () => true,
  read(r, row, names) {
    if (r.take("LIKE")) row.way = { by: "like", row: names.idOf(r.whole("the number of a row")) };
    else if (r.take("GRID")) {
      const [nx, ny] = [r.number("way.nx", "how many along x"), r.number("way.ny", "how many along y")];
      r.want("BY");
      row.way = {
        by: "grid",
        nx,
        ny,
        dx: r.number("way.dx", "spacing along x"),
        dy: r.number("way.dy", "spacing along y"),
      };
    } else if (r.take("LINE")) {
      const n = countAt(r);
      r.want("BY");
      const step = r.number("way.step", "a spacing");
      r.want("ALONG");
      row.way = { by: "line", n, step, along: axisAt(r) };
    } else {
      if (!r.seesNumber()) r.fail(this.expected);
      const n = countAt(r);
      r.want("AROUND");
      row.way = { by: "around", n };
      if (r.take("AXIS")) {
        r.want("OF");
        row.way.row = names.idOf(r.whole("the number of a row"));
      } else row.way.along = axisAt(r);
      if (r.take("STEP")) row.way.step = r.angle("way.step");
    }
  },
  write(row, names) {
    const w: Repeat["way"] = row.way;
    switch (w.by) {
      case "like":
        return `LIKE ${names.numberOf(w.row)}`;
      case "grid":
        return `GRID ${inCallout(w.nx)} ${inCallout(w.ny)} BY ${inCallout(w.dx)} ${inCallout(w.dy)}`;
      case "line":
        return `LINE ${inCallout(w.n)}X BY ${inCallout(w.step)} ALONG ${w.along.toUpperCase()}`;
      case "around": {
        const about = w.row === undefined ? (w.along ?? "z").toUpperCase() : `AXIS OF ${names.numberOf(w.row)}`;
        return `${inCallout(w.n)}X AROUND ${about}${w.step === undefined ? "" : ` STEP ${inCallout(w.step)}`}`;
      }
    }
  },
  numbers(row): NumberField[] {
    const w: Repeat["way"] = row.way;
    const number = (
      path: string,
      label: string,
      quantity: NumberField["quantity"],
      means: NumberField["means"],
      text: NumberField["text"] | undefined,
    ): NumberField[] => (text === undefined ? [] : [{ path: `way.${path}`, label, quantity, means, text }]);
    switch (w.by) {
      case "like":
        return [];
      case "grid":
        return [
          ...number("nx", "Along x", "count", "repeat", w.nx),
          ...number("ny", "Along y", "count", "repeat", w.ny),
          ...number("dx", "Spacing x", "coordinate", "coordinate", w.dx),
          ...number("dy", "Spacing y", "coordinate", "coordinate", w.dy),
        ];
      case "line":
        return [
          ...number("n", "How many", "count", "copies", w.n),
          ...number("step", "Spacing", "coordinate", "coordinate", w.step),
        ];
      case "around":
        return [
          ...number("n", "How many", "count", "copies", w.n),
          ...number("step", "Step", "angle", "angle", w.step),
        ];
    }
  },
};

/** `SKIP 2 5`: copies left out, counted from the original. */
const skipClause: Clause = {
  expected: "SKIP",
  starts: (r) => r.sees("SKIP"),
  read(r, row) {
    r.want("SKIP");
    row.skip = [];
    do {
      const at = r.pos;
      const k = r.whole("the number of a copy; the original is 1");
      if (k < 2) r.fail("a number from 2", "the original is copy 1 and stays", at);
      row.skip.push(k);
      r.take(",");
      r.skip();
    } while (/\d/.test(r.text[r.pos] ?? ""));
  },
  write: (row) => (row.skip?.length ? `SKIP ${row.skip.join(" ")}` : ""),
  numbers: () => [],
};

const MOST = 1000;
function copiesOf(w: Resolved<Repeat>["way"], raw: Repeat["way"]): Result<Copies> {
  const many = w.by === "grid" ? w.nx * w.ny : w.by === "like" ? 1 : w.n;
  if (many > MOST) return fail(problems.tooManyCopies(many, MOST), { path: "way.n" });
  switch (w.by) {
    case "like":
      return ok({ by: "like", row: w.row as string });
    case "grid":
      return ok({ by: "grid", nx: w.nx, ny: w.ny, dx: w.dx, dy: w.dy });
    case "line":
      return ok({ by: "line", along: (raw as { along: "x" }).along, count: w.n, step: w.step });
    case "around": {
      const { row, along = "z" } = raw as { row?: string; along?: "x" | "y" | "z" };
      const about = row === undefined ? { along, at: v3(0, 0, 0) } : { row };
      return ok({ by: "around", axis: about, count: w.n, step: w.step ?? (2 * Math.PI) / w.n });
    }
  }
}

/** What a repeat takes and leaves out; null of a row that is none. */
export const repeated = (body: { kind: string }): Pick<Repeat, "rows" | "skip"> | null =>
  body.kind === repeat.kind ? (body as Repeat) : null;

const q = "?";
/** Rows once more, at other places: `REPEAT 3-5 6X AROUND Z`. Each copy has its own depth where it goes to something. */
export const repeat: RowKind<Repeat> = {
  kind: "repeat",
  verb: "repeat",
  label: "repeat",
  starts: () => true,
  schema,
  blank: () => ({}),
  example: { in: "REPEAT 2 LINE 4X BY .75 ALONG X", mm: "REPEAT 2 6X AROUND Z" },
  callout: { head: sequence(rowsPart, wayPart), clauses: [skipClause] },
  feature: () => ({ is: "copies" }),
  recipe(row, raw) {
    const copies = copiesOf(row.way, raw.way);
    return copies.ok ? ok({ op: "repeat", rows: raw.rows, copies: copies.value, skip: raw.skip ?? [] }) : copies;
  },
  closedForm: () => null,
  fields: [
    { field: "rows", path: "rows", label: "Rows" },
    {
      field: "choice",
      path: "way.by",
      label: "Copies",
      options: [
        { value: "around", label: "round an axis", set: { way: { by: "around", along: "z", n: q } } },
        { value: "line", label: "in a line", set: { way: { by: "line", along: "x", n: q, step: q } } },
        { value: "grid", label: "on a grid", set: { way: { by: "grid", nx: "2", ny: "2", dx: q, dy: q } } },
      ],
    },
    { field: "number", path: "way.n", label: "How many" },
    {
      field: "choice",
      path: "way.along",
      label: "Axis",
      options: AXES.map((a) => ({
        value: a.toLowerCase(),
        label: a,
        set: { "way.along": a.toLowerCase(), "way.row": undefined },
      })),
    },
    { field: "number", path: "way.step", label: "Step", optional: true },
    { field: "number", path: "way.nx", label: "Along x" },
    { field: "number", path: "way.ny", label: "Along y" },
    { field: "number", path: "way.dx", label: "Spacing x" },
    { field: "number", path: "way.dy", label: "Spacing y" },
    { field: "copy" },
  ],
};
