"use client";
import { type LengthUnit, byFigures } from "@/core/number";
import { rowKinds } from "@/core/rows";
import { Choice } from "../fields/Choice";
import css from "./CalloutLine.module.css";

/** One line to start from for every kind of row, for those who do not know the grammar yet. */
export function Starters({ put, unit, first }: { put: (t: string) => void; unit: LengthUnit; first: boolean }) {
  const kinds = rowKinds.filter((k) => !first || k.verb === "leave");
  return (
    <Choice
      className={css.starters}
      label="Start from an example"
      placeholder="type what the print says, or start from an example …"
      value={null}
      choose={(kind) => put(byFigures(unit, rowKinds.find((k) => k.kind === kind)!.example))}
      options={kinds.map((k) => ({
        value: k.kind,
        label: `${k.verb} · ${k.label}: ${byFigures(unit, k.example).replace(/^(LEAVE|CUT) /, "")}`,
      }))}
    />
  );
}
