import { problems } from "../problems";
import { z } from "zod";
import { fail, ok, type Result } from "../../base/result";
import { number, sequence, word, type Part } from "../../grammar/grammar";
import { inCallout, numberText } from "../../number";
import { morseTapers } from "../../tables";
import { cutAt, profileVolume } from "../common";
import type { ProfilePoint, Resolved, RowKind } from "../kind";
import { countPrefix, pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";

const form = z.discriminatedUnion("by", [
  z.strictObject({ by: z.literal("ends"), large: numberText, small: numberText }),
  z.strictObject({ by: z.literal("ratio"), large: numberText, ratio: numberText }),
  z.strictObject({ by: z.literal("angle"), large: numberText, angle: numberText }),
  z.strictObject({ by: z.literal("morse"), size: z.number().int().min(0).max(7) }),
]);
const schema = z.strictObject({
  kind: z.literal("cutTaper"),
  count: numberText.optional(),
  form,
  deep: numberText.optional(),
  pattern,
  plane: planeRef,
});
export type CutTaper = z.infer<typeof schema>;

const large = number("form.large", "Diameter at the plane", "length", { sign: "⌀" });

/** `⌀a TO ⌀b`, `⌀a 1:k`, `⌀a A half-angle`, `MORSE n`. */
const formPart: Part = {
  expected: "⌀ and TO, 1:k or A, or MORSE and its number",
  starts: (r) => r.sees("MORSE") || large.starts(r),
  read(r, row, names) {
    if (r.take("MORSE")) {
      const at = r.pos;
      const size = r.whole("a Morse taper from 0 to 7");
      if (size > 7) r.fail("a number from 0 to 7", `there is no Morse taper ${size}`, at);
      row.form = { by: "morse", size };
      return;
    }
    row.form = {};
    large.read(r, row, names);
    if (r.take("TO")) {
      row.form.by = "ends";
      row.form.small = r.diameter("form.small");
    } else if (r.take("A")) {
      row.form.by = "angle";
      row.form.angle = r.angle("form.angle");
    } else {
      r.skip();
      const one = /^1\s*:/.exec(r.text.slice(r.pos));
      if (!one) return r.fail("TO and the other diameter, 1:k, or A and half its angle");
      r.pos += one[0].length;
      row.form.by = "ratio";
      row.form.ratio = r.number("form.ratio", "the length in which the diameter changes by one");
    }
  },
  write(row, names) {
    const f = row.form;
    if (f.by === "morse") return `MORSE ${f.size}`;
    const start = large.write(row, names);
    if (f.by === "ends") return `${start} TO ⌀${inCallout(f.small)}`;
    return f.by === "ratio" ? `${start} 1:${inCallout(f.ratio)}` : `${start} A ${inCallout(f.angle)}`;
  },
  numbers(row) {
    const f = row.form;
    if (f.by === "morse") return [];
    if (f.by === "ends")
      return [
        ...large.numbers(row),
        { path: "form.small", label: "Diameter at the end", quantity: "length", means: "diameter", text: f.small },
      ];
    return [
      ...large.numbers(row),
      f.by === "ratio"
        ? { path: "form.ratio", label: "Ratio 1 :", quantity: "plain", means: "ratio", text: f.ratio }
        : { path: "form.angle", label: "Half angle", quantity: "angle", means: "angle", text: f.angle },
    ];
  },
};

/** `DEEP d`, which a Morse taper may leave out. */
const deepClause = {
  expected: "DEEP",
  starts: (r: Parameters<Part["starts"]>[0]) => r.sees("DEEP"),
  read(r: Parameters<Part["read"]>[0], row: Parameters<Part["read"]>[1]) {
    r.want("DEEP");
    row.deep = r.number("deep", "depth");
  },
  write: (row: Parameters<Part["write"]>[0]) => (row.deep === undefined ? "" : `DEEP ${inCallout(row.deep)}`),
  numbers: (row: Parameters<Part["numbers"]>[0]): ReturnType<Part["numbers"]> =>
    row.deep === undefined
      ? []
      : [{ path: "deep", label: "Depth", quantity: "length", means: "depth", text: row.deep }],
};

/** A cone's two diameters and its depth. A ratio 1 : k is the change of diameter over length: half angle atan(1/2k). */
export function coneOf(row: Resolved<CutTaper>): Result<{ large: number; small: number; deep: number }> {
  const f = row.form;
  if (f.by === "morse") {
    const m = morseTapers.rows.find((t) => t.number === (f.size as number))!;
    const deep = row.deep ?? m.depth;
    return ok({ large: m.gauge, small: m.gauge - m.taper * deep, deep });
  }
  const deep = row.deep;
  if (deep === undefined) return fail(problems.depthMissing(), { path: "deep" });
  const change = f.by === "ends" ? f.large - f.small : f.by === "ratio" ? deep / f.ratio : 2 * deep * Math.tan(f.angle);
  return ok({ large: f.large, small: f.large - change, deep });
}

function profileOf(row: Resolved<CutTaper>): Result<ProfilePoint[]> {
  const cone = coneOf(row);
  if (!cone.ok) return cone;
  const { large: a, small: b, deep } = cone.value;
  if (!(b >= 0) || b >= a)
    return fail(b >= a ? problems.taperDoesNotNarrow() : problems.taperToAPoint(), {
      path: row.form.by === "ends" ? "form.small" : "deep",
    });
  return ok([
    { r: a / 2, z: 0 },
    { r: b / 2, z: deep },
  ]);
}

/** A conical socket that narrows from its plane: `CUT TAPER ⌀20 1:20 DEEP 40`, `CUT TAPER MORSE 2`. */
export const cutTaper: RowKind<CutTaper> = {
  kind: "cutTaper",
  verb: "cut",
  label: "taper",
  traits: { counted: true, conical: true },
  starts: (r) => r.sees("TAPER"),
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: { in: "CUT TAPER ⌀.75 TO ⌀.5 DEEP 1", mm: "CUT TAPER ⌀20 1:20 DEEP 40" },
  callout: {
    head: sequence(countPrefix, word("TAPER"), formPart),
    clauses: [deepClause, patternClause, startClause, planeClause],
  },
  feature(row) {
    const cone = coneOf(row);
    return cone.ok ? { is: "taper", ...cone.value } : null;
  },
  recipe(row, _raw, outlines) {
    const profile = profileOf(row);
    return profile.ok ? cutAt(row, { body: "revolved", profile: profile.value }, outlines) : profile;
  },
  closedForm(row) {
    const profile = profileOf(row);
    return profile.ok ? profileVolume(profile.value, 0) : null;
  },
  fields: [
    { field: "number", path: "count", label: "Count", optional: true },
    {
      field: "choice",
      path: "form.by",
      label: "Given by",
      options: [
        { value: "ends", label: "two diameters", set: { form: { by: "ends", large: "?", small: "?" } } },
        { value: "ratio", label: "a ratio 1 : k", set: { form: { by: "ratio", large: "?", ratio: "?" } } },
        { value: "angle", label: "half its angle", set: { form: { by: "angle", large: "?", angle: "?" } } },
        ...Array.from({ length: 8 }, (_, size) => ({
          value: `morse${size}`,
          label: `Morse ${size}`,
          set: { form: { by: "morse", size } },
        })),
      ],
      chosen: (body) => {
        const f = (body as CutTaper).form;
        return f.by === "morse" ? `morse${f.size}` : f.by;
      },
    },
    { field: "number", path: "form.large", label: "⌀ at the plane" },
    { field: "number", path: "form.small", label: "⌀ at the end" },
    { field: "number", path: "form.ratio", label: "1 :" },
    { field: "number", path: "form.angle", label: "Half angle" },
    { field: "number", path: "deep", label: "Depth", optional: true },
    { field: "pattern" },
    { field: "plane" },
  ],
};
