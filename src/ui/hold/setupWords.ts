import {
  holdingKinds,
  partName,
  partThatHolds,
  type Datum,
  type Holding,
  type JobDocument,
  type Setup,
} from "@/core/job";
import { toNumberText, type NumberText, type ByFigures, byFigures } from "@/core/number";
import { sides } from "@/core/geometry/vec";

interface Option<T> {
  value: string;
  label: string;
  is: T;
}

/** Which way is up, in words. */
export function upWords(up: Setup["up"]): string {
  if (typeof up === "string") return up;
  if ("index" in up) return `index ${up.index}°`;
  return up.plane.on === "named" ? `plane "${up.plane.plane}"` : "plane of a row";
}

export const upOptions = (document: JobDocument): Option<Setup["up"]>[] => [
  ...sides.map((side) => ({ value: side, label: side, is: side })),
  ...(document.parts[0].planes ?? []).map((p) => ({
    value: `plane ${p.name}`,
    label: `plane "${p.name}"`,
    is: { plane: { on: "named" as const, plane: p.name } },
  })),
];
export const upValue = (up: Setup["up"]): string =>
  typeof up === "string" ? up : "plane" in up && up.plane.on === "named" ? `plane ${up.plane.plane}` : upWords(up);

const corners = (["left", "right"] as const).flatMap((x) =>
  (["front", "back"] as const).map((y) => ({
    value: `${x} ${y}`,
    label: `${x} ${y} corner`,
    is: { at: "corner" as const, x, y },
  })),
);
/** Where X0 Y0 Z0 may be: of the finished part, or of the piece as it comes. */
export const datumOptions: Option<Datum>[] = [
  { value: "centre", label: "middle of the part", is: { at: "centre" } },
  ...corners,
  { value: "centre stock", label: "middle of the piece as it comes", is: { at: "centre", of: "stock" } },
  ...corners.map((c) => ({
    value: `${c.value} stock`,
    label: `${c.value} of the piece as it comes`,
    is: { ...c.is, of: "stock" as const },
  })),
  { value: "jaw", label: "fixed jaw and stop", is: { at: "jaw" } },
  { value: "chuck", label: "chuck, on its axis", is: { at: "chuck" } },
];
export function datumValue(d: Datum | undefined): string {
  if (!d) return "centre";
  const of = "of" in d && d.of === "stock" ? " stock" : "";
  return d.at === "corner" ? `${d.x} ${d.y}${of}` : d.at === "axis" ? `axis ${d.row}` : `${d.at}${of}`;
}

const grips: ByFigures<NumberText> = { in: toNumberText(".25"), mm: toNumberText("6") };

/** What may hold the piece: what is on every bench, and the parts of the job that are made for it. */
export function holdOptions(document: JobDocument): Option<Holding | null>[] {
  const grip = byFigures(document.unit, grips);
  const kinds = Object.values(holdingKinds);
  const option = (is: Holding, label: string) => ({ value: holdValue(is), label, is });
  return [
    { value: "none", label: "not held yet", is: null },
    ...kinds.flatMap((k) => (k.label ? [option(k.start(grip, ""), k.label)] : [])),
    ...document.parts.slice(1).flatMap((p) => {
      const part = partName(document, p);
      return kinds.filter((k) => k.madeAs === p.kind).map((k) => option(k.start(grip, part), `"${part}"`));
    }),
  ];
}
export function holdValue(h: Holding | null): string {
  return h ? `${h.fixture} ${partThatHolds(h) ?? ""}`.trim() : "none";
}

export const machines: Option<Setup["machine"]>[] = [
  { value: "mill", label: "mill", is: "mill" },
  { value: "lathe", label: "lathe", is: "lathe" },
  { value: "index", label: "mill, index head", is: "index" },
];
