import { problems } from "../problems";
import { z } from "zod";
import { fail, ok } from "../../base/result";
import { sequence, word, type Part } from "../../grammar/grammar";
import { planeOf } from "../extent";
import type { RowKind } from "../kind";
import { planeRef, readPlane, rowRef, seesPlane, writePlane } from "../planeRef";
import { rowList, rowsPart } from "../rowRange";

const about = z.discriminatedUnion("by", [
  /** The plane across an axis through the job's zero. */
  z.strictObject({ by: z.literal("axis"), along: z.enum(["x", "y", "z"]) }),
  z.strictObject({ by: z.literal("plane"), plane: planeRef }),
  /** The middle of a row, half way between where it begins and where it ends. */
  z.strictObject({ by: z.literal("middle"), row: rowRef }),
]);
const schema = z.strictObject({ kind: z.literal("mirror"), rows: rowList, about });
export type Mirror = z.infer<typeof schema>;

const aboutPart: Part = {
  expected: 'X, Y, Z, PLANE "name" or MIDWAY OF n',
  starts: () => true,
  read(r, row, names) {
    const axis = r.takeOne(["X", "Y", "Z"] as const);
    if (axis) row.about = { by: "axis", along: axis.toLowerCase() };
    else if (r.take("MIDWAY")) {
      r.want("OF");
      row.about = { by: "middle", row: names.idOf(r.whole("the number of a row")) };
    } else if (seesPlane(r)) row.about = { by: "plane", plane: readPlane(r, names) };
    else r.fail(this.expected);
  },
  write(row, names) {
    const a: Mirror["about"] = row.about;
    if (a.by === "axis") return a.along.toUpperCase();
    return a.by === "middle" ? `MIDWAY OF ${names.numberOf(a.row)}` : writePlane(a.plane, names);
  },
  numbers: () => [],
};

/** Rows once more, as in a mirror: `MIRROR 3-5 ABOUT X` (X means the plane x = 0). The copy joins the original. */
export const mirror: RowKind<Mirror> = {
  kind: "mirror",
  verb: "mirror",
  label: "mirror",
  starts: () => true,
  schema,
  blank: () => ({}),
  example: { in: "MIRROR 2 ABOUT X", mm: "MIRROR 2 ABOUT X" },
  callout: { head: sequence(rowsPart, word("ABOUT"), aboutPart), clauses: [] },
  feature: () => ({ is: "copies" }),
  recipe(row, raw) {
    const a = raw.about;
    const resolved = row.about as { plane?: object };
    if (a.by === "plane" && !resolved.plane) return fail(problems.mirrorWithoutPlane(), { path: "about" });
    const mirrorAbout =
      a.by === "axis"
        ? { along: a.along }
        : a.by === "middle"
          ? { middleOf: a.row }
          : { plane: planeOf(resolved.plane!) };
    return ok({ op: "repeat", rows: raw.rows, copies: { by: "mirror", about: mirrorAbout }, skip: [] });
  },
  closedForm: () => null,
  fields: [
    { field: "rows", path: "rows", label: "Rows" },
    {
      field: "choice",
      path: "about",
      label: "About",
      chosen: (body) => {
        const a = (body as Mirror).about;
        return a.by === "axis" ? a.along : a.by;
      },
      options: [
        { value: "x", label: "x = 0", set: { about: { by: "axis", along: "x" } } },
        { value: "y", label: "y = 0", set: { about: { by: "axis", along: "y" } } },
        { value: "z", label: "z = 0", set: { about: { by: "axis", along: "z" } } },
        { value: "plane", label: "a plane", set: { about: { by: "plane", plane: { on: "left" } } } },
      ],
    },
    { field: "plane", path: "about.plane", label: "Plane" },
  ],
};
