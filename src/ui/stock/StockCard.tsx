"use client";
import { partInStock } from "@/core/findings/stockRules";
import { takesOff } from "@/core/engine/solve";
import type { Evaluation } from "@/core/evaluate";
import { densityText, showBulk, showLength, showWeight, type LengthUnit } from "@/core/number";
import { formOf } from "@/core/job";
import { outsideBy } from "@/core/stock/stock";
import { JobRemarks } from "../card/RedPencil";
import { Bars } from "../charts/Bars";
import { Body, Figure, Section, fieldsClass } from "../common/Section";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { MaterialSection } from "./MaterialSection";
import { PiecesFromBar } from "./PiecesFromBar";
import { StockPlace } from "./StockPlace";
import { StockSize } from "./StockSize";

/** The Stock step: what the part is cut from, what there is to clean up on every side, and what becomes chips. */
export function StockCard() {
  const stock = useJob((s) => s.job!.stock);
  const unit = useJob((s) => s.job!.unit);
  const e = useBench((s) => s.evaluated?.evaluation);
  return (
    <>
      <Body>
        <StockSize />
        {stock && <StockPlace stock={stock} />}
        {e?.stock && <Allowance stock={e.stock} unit={unit} />}
        {e && <Weight evaluation={e} unit={unit} />}
        {e && <ChipsByRow evaluation={e} unit={unit} />}
        {e?.stock && formOf(e.stock.placed).section && <PiecesFromBar placed={e.stock.placed} />}
        <MaterialSection />
      </Body>
      <JobRemarks rows rules={(rule) => rule === partInStock} />
    </>
  );
}

const sides = ["left", "right", "front", "back", "bottom", "top"] as const;

function Allowance({ stock, unit }: { stock: NonNullable<Evaluation["stock"]>; unit: LengthUnit }) {
  const len = (mm: number) => showLength(mm, unit);
  const around = stock.radial === null ? "on every side" : `round the part: ${len(stock.radial)}`;
  return (
    <Section title="To clean up" aside={around}>
      <div className={fieldsClass}>
        {sides.map((s) => {
          const isOut = outsideBy(stock.allowance[s]);
          return (
            <Figure key={s} label={s} red={isOut}>
              {len(stock.allowance[s])}
              {isOut ? " out" : ""}
            </Figure>
          );
        })}
      </div>
    </Section>
  );
}

function Weight({ evaluation: { stock, part, density }, unit }: { evaluation: Evaluation; unit: LengthUnit }) {
  if (!stock || !part) return null;
  const mass = (g: number | null) => (g === null ? "—" : showWeight(g, unit));
  return (
    <Section title="Weight">
      <div className={fieldsClass}>
        <Figure label="Blank">{mass(stock.mass)}</Figure>
        <Figure label="Part">{mass(part.mass)}</Figure>
        <Figure label="Chips">{mass(stock.chipMass)}</Figure>
        <Figure label="Blank volume">{showBulk(stock.volume, unit)}</Figure>
        <Figure label="Used">{((100 * part.volume) / stock.volume).toFixed(1)} %</Figure>
        <Figure label="Density">{density === null ? "not known" : densityText(density, unit)}</Figure>
      </div>
    </Section>
  );
}

/** What each row takes off, and what is left of the blank after it. */
function ChipsByRow({ evaluation, unit }: { evaluation: Evaluation; unit: LengthUnit }) {
  const rows = evaluation.solved.rows.filter((r) => r.state === "ok" && takesOff(r));
  if (!rows.length) return null;
  return (
    <Bars
      title="Taken off by each row"
      bars={rows.map((r) => ({ name: `row ${r.number}`, value: r.removed, shown: showBulk(r.removed, unit) }))}
    />
  );
}
