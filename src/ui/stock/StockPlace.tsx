"use client";
import { formOf, type Stock } from "@/core/job";
import { lengthText, toNumberText, type LengthUnit, type NumberText } from "@/core/number";
import type { PlacedStock } from "@/core/engine/placedStock";
import { NumberBox } from "../common/NumberBox";
import { Section, fieldsClass } from "../common/Section";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";

const axes = ["x", "y", "z"] as const;
type At = Record<(typeof axes)[number], NumberText>;

/** What a stock is placed by, and how it lies without a place: a bar by its middle, a solid by its file's own zero. */
const bar = {
  by: "middle of the stock's underside",
  without: "The part lies in the middle; what is over in height is shared above and below.",
};
const ownSolid = {
  by: "the file's own X0 Y0 Z0",
  without: "It lies as its file has it: its X0 Y0 Z0 on the job's.",
};

/** Where the part lies in its stock: in the middle, or where it is put. */
export function StockPlace({ stock }: { stock: Stock }) {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const placed = useBench((s) => s.evaluated?.evaluation.stock?.placed);
  const isBar = formOf(stock).section !== null;
  const words = isBar ? bar : ownSolid;
  const put = (next: Stock) => edit([{ edit: "setStock", stock: next }], "stock");
  const set = (axis: keyof At) => (t: NumberText | undefined) => {
    const { at, ...rest } = stock;
    put(
      t === undefined ? rest : { ...stock, at: { ...placeOf(isBar ? placed : undefined, job.unit), ...at, [axis]: t } },
    );
  };
  return (
    <Section title="Where the part lies" aside={words.by}>
      <div className={fieldsClass}>
        {axes.map((k) => (
          <NumberBox
            own
            key={k}
            job={job}
            label={`At ${k}`}
            value={stock.at?.[k]}
            quantity="coordinate"
            optional
            commit={set(k)}
          />
        ))}
      </div>
      {!stock.at && (
        <p className="soft" style={{ margin: "4px 0 0" }}>
          {words.without}
        </p>
      )}
    </Section>
  );
}

/** The place a stock has now, as text: what is left alone when one of its coordinates is typed. */
function placeOf(placed: PlacedStock | undefined, unit: LengthUnit): At {
  if (!placed) return { x: toNumberText("0"), y: toNumberText("0"), z: toNumberText("0") };
  const { min, max } = placed.box;
  return {
    x: lengthText((min.x + max.x) / 2, unit),
    y: lengthText((min.y + max.y) / 2, unit),
    z: lengthText(min.z, unit),
  };
}
