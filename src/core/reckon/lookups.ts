import { problems } from "./problems";
import { lengthText, unitOf, type LengthUnit } from "../number";
import { fail, ok, type Result } from "../base/result";
import { findThread, fitDeviations, gradeWidth, minorLimits, percentThread } from "../tables";
import type { Given } from "./reckonings";

/** Tap drill of a thread with its limits, each citing the table it comes from. */
export function drillByThread(thread: string, unit: LengthUnit): Result<Given[]> {
  const t = findThread(thread.trim());
  if (!t) return fail(problems.noThread(thread || "nothing"));
  const text = (mm: number, what: string) =>
    `${lengthText(mm, unit, unitOf[unit].places.exact)}{${what} ${t.designation}}`;
  const limits = minorLimits(t);
  const minor: Given[] = [
    { label: "minor ⌀, smallest", text: text(limits.min, "smallest minor diameter of"), quantity: "length" },
    { label: "minor ⌀, largest", text: text(limits.max, "largest minor diameter of"), quantity: "length" },
  ];
  const drill = t.size?.tapDrill;
  return ok([
    ...(drill === undefined
      ? []
      : [
          {
            label: `tap drill ${t.size!.drillName}${t.pipe ? "" : `, ${percentThread(t, drill).toFixed(0)} % of thread`}`,
            text: text(drill, "tap drill of"),
            quantity: "length" as const,
          },
        ]),
    { label: "major ⌀", text: text(t.major, "major diameter of"), quantity: "length" },
    { label: "pitch", text: text(t.pitch, "pitch of"), quantity: "length" },
    ...(t.pipe ? [] : minor),
  ]);
}

/** Limits of a size with a tolerance zone of ISO 286-1. */
export function fitLimits(size: number, zone: string, unit: LengthUnit): Result<Given[]> {
  const f = fitDeviations(size, zone);
  if (!f.ok) return f;
  const text = (mm: number) => `${lengthText(mm, unit, unitOf[unit].places.fine)}{${zone} of ISO 286-1}`;
  const grade = gradeWidth(size, /\d+$/.exec(zone)![0]);
  return ok([
    { label: "largest", text: text(size + f.value.upper), quantity: "length" },
    { label: "smallest", text: text(size + f.value.lower), quantity: "length" },
    { label: "middle", text: text(size + (f.value.upper + f.value.lower) / 2), quantity: "length" },
    ...(grade === null ? [] : [{ label: "width of the zone", text: text(grade), quantity: "length" as const }]),
  ]);
}
