import { problems } from "./problems";
import { lengthText, unitOf, type LengthUnit } from "../number";
import { fail, ok, type Result } from "../base/result";
import {
  bestWire,
  findThread,
  fitDeviations,
  gradeWidth,
  overWires,
  percentThread,
  readThread,
  threadLimits,
  type TableEntry,
} from "../tables";
import type { Given } from "./reckonings";

/** What a figure of a table is called: `pitchDiameterMax` is `pitch diameter max`. */
const wordsOf = (name: string): string => name.replace(/([a-z])([A-Z])/g, "$1 $2").toLowerCase();

/** A table's entry as results that a number field takes, each citing what it is of. */
export function entryResults(entry: TableEntry, unit: LengthUnit): Given[] {
  const of = `${entry.what}, ${entry.standard}`.replace(/[{}]/g, "").slice(0, LONGEST_SOURCE);
  return [
    ...Object.entries(entry.values).map(([name, mm]): Given => {
      const text = lengthText(mm, unit, unitOf[unit].places.fine);
      return {
        label: wordsOf(name),
        text: `${text}{${of}: ${wordsOf(name)}}`,
        quantity: mm < 0 ? "coordinate" : "length",
      };
    }),
    ...Object.entries(entry.angles ?? {}).map(([name, degrees]): Given => ({
      label: wordsOf(name),
      text: `${degrees}{${of}: ${wordsOf(name)}}`,
      quantity: "includedAngle",
    })),
  ];
}
/** What is said of a source stays as short as a field shows it. */
const LONGEST_SOURCE = 90;

/** Tap drill of a thread with its limits in its class, each citing the table it comes from. */
export function drillByThread(thread: string, unit: LengthUnit): Result<Given[]> {
  const t = findThread(readThread(thread.trim())?.designation ?? "");
  if (!t) return fail(problems.noThread(thread || "nothing"));
  const limits = t.pipe ? null : threadLimits(t, t.external ? "outside" : "inside");
  const result = (label: string, mm: number | null | undefined, what: string): Given[] =>
    mm === null || mm === undefined
      ? []
      : [
          {
            label,
            text: `${lengthText(mm, unit, unitOf[unit].places.exact)}{${what} ${t.designation}}`,
            quantity: "length",
          },
        ];
  const drill = t.external ? undefined : t.size?.tapDrill;
  const percent = drill === undefined || t.pipe ? "" : `, ${percentThread(t, drill).toFixed(0)} % of thread`;
  const of = limits?.class ? ` (${limits.class})` : "";
  return ok([
    ...result(`tap drill ${t.size?.drillName ?? ""}${percent}`, drill, "tap drill of"),
    ...result("major ⌀", t.major, "major diameter of"),
    ...result("pitch", t.pitch, "pitch of"),
    ...result(`major ⌀, smallest${of}`, t.external ? limits?.majorMin : null, "smallest major diameter of"),
    ...result(`major ⌀, largest${of}`, t.external ? limits?.majorMax : null, "largest major diameter of"),
    ...result(`minor ⌀, smallest${of}`, limits?.minorMin, "smallest minor diameter of"),
    ...result(`minor ⌀, largest${of}`, limits?.minorMax, "largest minor diameter of"),
    ...result(`pitch ⌀, smallest${of}`, limits?.pitchMin, "smallest pitch diameter of"),
    ...result(`pitch ⌀, largest${of}`, limits?.pitchMax, "largest pitch diameter of"),
  ]);
}

/** An outside thread over three wires of a size, at the limits of its pitch diameter. */
export function wiresByThread(thread: string, wire: number, unit: LengthUnit): Result<Given[]> {
  const t = findThread(readThread(thread.trim())?.designation ?? "");
  const limits = t && threadLimits(t, "outside");
  const best = t && bestWire(t);
  if (!t || !limits || best === null) return fail(problems.noThread(thread || "nothing"));
  const result = (label: string, mm: number): Given => ({
    label,
    text: `${lengthText(mm, unit, unitOf[unit].places.fine)}{${label}, ${t.designation} ${limits.class}}`,
    quantity: "length",
  });
  return ok([
    result("best wire", best),
    result("over these wires, largest", overWires(t, limits.pitchMax, wire)!),
    result("over these wires, smallest", overWires(t, limits.pitchMin, wire)!),
    result("over best wires, largest", overWires(t, limits.pitchMax, best)!),
    result("over best wires, smallest", overWires(t, limits.pitchMin, best)!),
    result("pitch ⌀, largest", limits.pitchMax),
    result("pitch ⌀, smallest", limits.pitchMin),
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
