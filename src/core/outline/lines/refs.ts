import { z } from "zod";
import type { Reader } from "../../grammar/reader";

/**
 * A point of the walk (`P3`, the end of step 3; `P0` the start), the centre of an arc (`C4`), or an element by its
 * step.
 */
export const pointRef = z.string().regex(/^[PC]\d{1,4}$/);
export const elementRef = z.number().int().min(1).max(5000);
const lineRef = z.union([elementRef, z.enum(["X", "Y"])]);
const anyRef = z.union([lineRef, pointRef]);
type Ref = z.infer<typeof anyRef>;
export const refList = (least: number, most: number) => z.array(anyRef).min(least).max(most);

/** `P3`, `C2`, `4`, `X`, `Y`: points, centres, elements, the axes. */
export function readRefs(r: Reader, least: number, most: number): Ref[] {
  const out: Ref[] = [];
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
/** Corners of the walk: points that are no centres. */
export const isCorner = (ref: Ref): ref is string => typeof ref === "string" && /^P\d/.test(ref);
