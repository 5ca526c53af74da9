import { showArea, showLength, type LengthUnit } from "@/core/number";
import type { EvaluatedSetup, EvaluatedSetups } from "@/core/setups";

const words = (s: EvaluatedSetup, unit: LengthUnit): string => {
  const { hold, standing } = s;
  const how = hold
    ? `${hold.kind}${hold.part ? ` "${hold.part}"` : ""}${hold.grip === null ? "" : `, grip ${showLength(hold.grip, unit)}`}${
        hold.gripArea === null ? "" : `, ${showArea(hold.gripArea, unit)} held`
      }`
    : "not held";
  const rows = standing?.piece.rows.map((r) => r.number).join(" ") || "none";
  return `setup ${s.setup.op}, ${s.setup.machine}: ${how}; rows ${rows}`;
};

const remark = ({ severity, text, source, fix }: EvaluatedSetups["findings"][number]): string =>
  `${severity}: ${text} (${source})${fix ? ` [fix: ${fix.label}]` : ""}`;

/** Setups in words, with their remarks; nothing where there are none. */
export function readableSetups({ setups, routing, findings }: EvaluatedSetups, unit: LengthUnit): string {
  if (!setups.length) return "";
  return [
    ...setups.flatMap((s) => [
      words(s, unit),
      ...(s.standing ? [`     ${s.standing.datumWords}`] : []),
      ...s.findings.map((f) => `     ${remark(f)}`),
    ]),
    ...findings.filter((f) => !setups.some((s) => s.findings.includes(f))).map((f) => `  ${remark(f)}`),
    ...(routing?.proposed.length
      ? [
          `proposed: ${routing.proposed.map((p) => `${p.op} ${p.direction.name} up, rows ${p.rows.join(" ")}`).join("; ")}`,
        ]
      : []),
  ].join("\n");
}
