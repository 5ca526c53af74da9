import { z } from "zod";
import type { NumberField, RowNames } from "../grammar/grammar";
import type { Reader } from "../grammar/reader";
import { inCallout, numberText } from "../number";
import { writePoint } from "./places";
import { planeName, planeRef, readPlane, rowRef, writePlane } from "./planeRef";

const axis = z.enum(["x", "y", "z"]);
const at = z.strictObject({ x: numberText, y: numberText, z: numberText });

/** What a named plane is made of. */
export const planeMaking = z.discriminatedUnion("is", [
  /** Outwards positive. */
  z.strictObject({ is: z.literal("offset"), by: numberText, from: planeRef }),
  z.strictObject({ is: z.literal("midway"), a: planeRef, b: planeRef }),
  /** The top plane turned about an axis through a place. */
  z.strictObject({ is: z.literal("tilt"), angle: numberText, about: axis, at: at.optional() }),
  z.strictObject({ is: z.literal("tangent"), row: rowRef, angle: numberText }),
  /** The piece turned, then its top. */
  z.strictObject({ is: z.literal("index"), angle: numberText, about: axis }),
  /** Where a copy of a repeat has a plane of the original; without one, the job's zero looking up. */
  z.strictObject({
    is: z.literal("copy"),
    copy: z.number().int().min(2).max(5000),
    row: rowRef,
    from: planeRef.optional(),
  }),
]);
export const namedPlaneSchema = z.strictObject({
  id: z.string().min(1).max(64),
  name: planeName,
  making: planeMaking,
});
export type NamedPlane = z.infer<typeof namedPlaneSchema>;

const axisAt = (r: Reader): "x" | "y" | "z" => {
  r.want("ABOUT");
  const found = r.takeOne(["X", "Y", "Z"] as const);
  return found ? (found.toLowerCase() as "x" | "y" | "z") : r.fail("X, Y or Z");
};

/** Reads a plane's line after its name: `OFFSET 5 FROM TOP`, `TILT 30 ABOUT X AT 0,0,10`, `INDEX 72 ABOUT X`. */
export function readPlaneMaking(r: Reader, names: RowNames): NamedPlane["making"] {
  if (r.take("OFFSET")) {
    const by = r.number("by", "a distance, outwards positive");
    r.want("FROM");
    return { is: "offset", by, from: readPlane(r, names) };
  }
  if (r.take("MIDWAY")) {
    const a = readPlane(r, names);
    r.take("AND");
    return { is: "midway", a, b: readPlane(r, names) };
  }
  if (r.take("TILT")) {
    const angle = r.angle("angle");
    const about = axisAt(r);
    return { is: "tilt", angle, about, ...(r.take("AT") ? { at: readPlace(r) } : {}) };
  }
  if (r.take("TANGENT")) {
    r.want("TO");
    const row = names.idOf(r.whole("the number of a row"));
    r.want("AT");
    return { is: "tangent", row, angle: r.angle("angle") };
  }
  if (r.take("INDEX")) {
    const angle = r.angle("angle");
    return { is: "index", angle, about: axisAt(r) };
  }
  if (r.take("COPY")) return copyAt(r, names);
  return r.fail("OFFSET, MIDWAY, TILT, TANGENT TO, INDEX or COPY");
}

/** `COPY 4 OF 7 FROM TOP`: where copy 4 that row 7 makes has its top. */
function copyAt(r: Reader, names: RowNames): NamedPlane["making"] {
  r.skip();
  const at = r.pos;
  const copy = r.whole("the number of a copy; the original is 1");
  if (copy < 2) r.fail("a number from 2", "the original is copy 1 and has its own planes", at);
  r.want("OF");
  const row = names.idOf(r.whole("the number of a repeat"));
  return { is: "copy", copy, row, ...(r.take("FROM") ? { from: readPlane(r, names) } : {}) };
}

function readPlace(r: Reader) {
  const comma = () => {
    r.skip();
    if (r.text[r.pos] !== ",") r.fail("a comma: a place is x,y,z");
    r.pos++;
  };
  const x = r.number("at.x", "a place x,y,z");
  comma();
  const y = r.number("at.y", "a coordinate y");
  comma();
  return { x, y, z: r.number("at.z", "a coordinate z") };
}

export function writeNamedPlane({ name, making: m }: NamedPlane, names: RowNames): string {
  const head = `PLANE "${name.replace(/"/g, "”")}"`;
  switch (m.is) {
    case "offset":
      return `${head} OFFSET ${inCallout(m.by)} FROM ${writePlane(m.from, names)}`;
    case "midway":
      return `${head} MIDWAY ${writePlane(m.a, names)} ${writePlane(m.b, names)}`;
    case "tilt":
      return `${head} TILT ${inCallout(m.angle)} ABOUT ${m.about.toUpperCase()}${m.at ? ` AT ${writePoint(m.at)}` : ""}`;
    case "tangent":
      return `${head} TANGENT TO ${names.numberOf(m.row)} AT ${inCallout(m.angle)}`;
    case "index":
      return `${head} INDEX ${inCallout(m.angle)} ABOUT ${m.about.toUpperCase()}`;
    case "copy": {
      const from = m.from ? ` FROM ${writePlane(m.from, names)}` : "";
      return `${head} COPY ${m.copy} OF ${names.numberOf(m.row)}${from}`;
    }
  }
}

/** The numbers a named plane is made with. */
export function numbersOfPlane({ making: m }: NamedPlane): NumberField[] {
  const angle = (text: NumberField["text"]): NumberField => ({
    path: "angle",
    label: "Angle",
    quantity: "angle",
    means: "angle",
    text,
  });
  switch (m.is) {
    case "offset":
      return [{ path: "by", label: "Offset", quantity: "coordinate", means: "coordinate", text: m.by }];
    case "midway":
    case "copy":
      return [];
    case "tilt":
      return [
        angle(m.angle),
        ...(["x", "y", "z"] as const).flatMap((k): NumberField[] =>
          m.at
            ? [{ path: `at.${k}`, label: k.toUpperCase(), quantity: "coordinate", means: "coordinate", text: m.at[k] }]
            : [],
        ),
      ];
    case "tangent":
    case "index":
      return [angle(m.angle)];
  }
}
