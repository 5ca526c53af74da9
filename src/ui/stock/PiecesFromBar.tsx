"use client";
import { useState } from "react";
import { numberScope, valueOf } from "@/core/engine/numbers";
import { toNumberText, type NumberText, byFigures } from "@/core/number";
import type { PlacedStock } from "@/core/engine/placedStock";
import { pieceLength, piecesPerBar } from "@/core/stock/stock";
import { NumberBox } from "../common/NumberBox";
import { Section, fieldsClass } from "../common/Section";
import { useJob } from "../store/jobStore";

/** A bar as merchants sell it, a saw's cut, and what stays in its vise: common practice, no source. */
const usualBar = {
  in: { bar: "144", kerf: ".1", remnant: "2" },
  mm: { bar: "3000", kerf: "2.5", remnant: "50" },
};

/** How many pieces a bar gives: nothing of it is kept, it is a reckoning. */
export function PiecesFromBar({ placed }: { placed: PlacedStock }) {
  const job = useJob((s) => s.job)!;
  const usual = byFigures(job.unit, usualBar);
  const [bar, setBar] = useState(toNumberText(usual.bar));
  const [kerf, setKerf] = useState(toNumberText(usual.kerf));
  const [remnant, setRemnant] = useState(toNumberText(usual.remnant));
  const scope = numberScope(job);
  const [b, k, r] = [bar, kerf, remnant].map((t) => valueOf(t, "offset", scope));
  const pieces =
    b.ok && k.ok && r.ok ? piecesPerBar(b.value.value, pieceLength(placed), k.value.value, r.value.value) : null;
  const field = (label: string, value: NumberText, quantity: "length" | "offset", set: (t: NumberText) => void) => (
    <NumberBox own job={job} label={label} value={value} quantity={quantity} commit={(t) => t && set(t)} />
  );
  return (
    <Section title="Pieces from a bar" aside={pieces?.ok ? <b>{pieces.value} pieces</b> : "—"}>
      <div className={fieldsClass}>
        {field("Bar", bar, "length", setBar)}
        {field("Saw kerf", kerf, "offset", setKerf)}
        {field("Gripping remnant", remnant, "offset", setRemnant)}
      </div>
    </Section>
  );
}
