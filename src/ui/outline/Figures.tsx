import { showArea, showLength, unitOf, type LengthUnit } from "@/core/number";
import type { EvaluatedOutline } from "@/core/outline/evaluateOutline";
import css from "./Outline.module.css";

/** What a print may say of an outline: its area, its way round, its size and its middle. */
export function Figures({ drawn: e, unit }: { drawn: EvaluatedOutline; unit: LengthUnit }) {
  if (!e.box) return null;
  const len = (mm: number) => showLength(mm, unit, unitOf[unit].places.exact);
  const { min, max } = e.box;
  return (
    <dl className={css.figures}>
      <dt>area</dt>
      <dd className="num">{e.region.length ? showArea(e.area, unit) : "open"}</dd>
      <dt>perimeter</dt>
      <dd className="num">{len(e.perimeter)}</dd>
      <dt>box</dt>
      <dd className="num">
        {len(max.x - min.x)} × {len(max.y - min.y)}
      </dd>
      <dt>centroid</dt>
      <dd className="num">{e.centroid ? `${len(e.centroid.x)}, ${len(e.centroid.y)}` : "—"}</dd>
    </dl>
  );
}

/** Defects told; the rest are counted. */
const TOLD = 6;

/** What is wrong with the lines as they came out: open ends, crossings, doubles. */
export function Defects({ drawn: { defects } }: { drawn: EvaluatedOutline }) {
  if (!defects.length) return null;
  return (
    <ul className={css.wrong} aria-label="What is wrong with the outline">
      {defects.slice(0, TOLD).map((d) => (
        <li key={d.words} className={d.kind === "open-end" ? undefined : "red"}>
          {d.words}
        </li>
      ))}
      {defects.length > TOLD && <li>… {defects.length - TOLD} more</li>}
    </ul>
  );
}
