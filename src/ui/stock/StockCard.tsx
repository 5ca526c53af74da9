"use client";
import { Button } from "antd";
import { useState } from "react";
import type { Stock } from "@/core/job";
import { lengthText, type NumberText, showBulk, showLength, toNumberText, showWeight } from "@/core/number";
import type { Evaluation } from "@/core/evaluate";
import { numberScope, valueOf } from "@/core/engine/numbers";
import { piecesPerBar, proposeStock } from "@/core/stock/stock";
import { stockSizes } from "@/core/tables";
import { NumberBox } from "../common/NumberBox";
import { Body, Figure, Section, fieldsClass } from "../common/Section";
import { ChoiceBox } from "../card/editors";
import { JobRemarks } from "../card/RedPencil";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { MaterialSection } from "./MaterialSection";
import css from "./StockCard.module.css";
import { Bars } from "../charts/Bars";
import { Choice, asWritten } from "../fields/Choice";

/** The Stock step: what the part is cut from, what there is to clean up on every side, and what becomes chips. */
export function StockCard() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const e = useBench((s) => s.evaluated?.evaluation);
  const [bar, setBar] = useState(toNumberText({ in: "144", mm: "3000" }[job.unit]));
  const [kerf, setKerf] = useState(toNumberText({ in: ".1", mm: "2.5" }[job.unit]));
  const [remnant, setRemnant] = useState(toNumberText({ in: "2", mm: "50" }[job.unit]));
  const scope = numberScope(job);
  const stock = job.stock;
  const put = (s: Stock | null) => edit([{ edit: "setStock", stock: s }], "stock");
  const set = (key: string) => (t: NumberText | undefined) =>
    put({ ...stock!, [key]: t ?? toNumberText("?") } as Stock);
  const part = e?.part?.box;
  const faces = e?.solved.rows.some((r) => r.state === "ok" && r.feature?.is === "body" && r.feature.round) ?? false;
  const proposed = part ? proposeStock(part, job.unit, scope, faces) : null;
  const q = toNumberText("?");
  const shapes = [
    { value: "none", label: "none yet", make: () => put(null) },
    {
      value: "plate",
      label: "plate or bar",
      make: () => put(proposed?.plate ?? { shape: "plate", length: q, width: q, height: q }),
    },
    {
      value: "round",
      label: "round bar",
      make: () => put(proposed?.round ?? { shape: "round", diameter: q, height: q }),
    },
  ];
  const sizes = stockSizes.rows.find((r) => r.unit === job.unit)!;
  const len = (mm: number) => showLength(mm, job.unit);
  const mass = (g: number | null | undefined) => (g == null ? "—" : showWeight(g, job.unit));
  const vol = (mm3: number) => showBulk(mm3, job.unit);
  const a = e?.stock?.allowance;
  const piece = e?.stock ? Math.max(e.stock.placed.box.max.x - e.stock.placed.box.min.x, 0) : null;
  const barPiece = stock?.shape === "round" && e?.stock ? e.stock.placed.box.max.z - e.stock.placed.box.min.z : piece;
  const [b, k, r] = [bar, kerf, remnant].map((t) => valueOf(t, "offset", scope));
  const pieces =
    barPiece && b.ok && k.ok && r.ok ? piecesPerBar(b.value.value, barPiece, k.value.value, r.value.value) : null;
  const list = (key: string, options: string[]) => (
    <Choice
      className={css.sizes}
      label={`usual sizes for ${key}`}
      placeholder="usual sizes"
      value={null}
      choose={(size) => set(key)(toNumberText(size))}
      options={asWritten(options)}
    />
  );
  return (
    <>
      <Body>
        <Section
          title="Stock"
          aside={
            proposed && (
              <Button size="small" onClick={() => put(stock?.shape === "round" ? proposed.round : proposed.plate)}>
                smallest usual size
              </Button>
            )
          }
        >
          <div className={fieldsClass}>
            <ChoiceBox label="Form" value={stock?.shape ?? "none"} options={shapes} choose={(o) => o.make()} />
            {stock?.shape === "plate" && (
              <>
                <NumberBox
                  own
                  job={job}
                  label="Length, along x"
                  value={stock.length}
                  quantity="length"
                  commit={set("length")}
                />
                <div>
                  <NumberBox
                    own
                    job={job}
                    label="Width, along y"
                    value={stock.width}
                    quantity="length"
                    commit={set("width")}
                  />
                  {list("width", sizes.barWidth)}
                </div>
                <div>
                  <NumberBox
                    own
                    job={job}
                    label="Height, along z"
                    value={stock.height}
                    quantity="length"
                    commit={set("height")}
                  />
                  {list("height", sizes.plateThickness)}
                </div>
              </>
            )}
            {stock?.shape === "round" && (
              <>
                <div>
                  <NumberBox
                    own
                    job={job}
                    label="Diameter"
                    value={stock.diameter}
                    quantity="length"
                    commit={set("diameter")}
                  />
                  {list("diameter", sizes.roundDiameter)}
                </div>
                <NumberBox
                  own
                  job={job}
                  label="Length, along z"
                  value={stock.height}
                  quantity="length"
                  commit={set("height")}
                />
              </>
            )}
          </div>
          {e?.stockProblem && <p className="red">{e.stockProblem.message}</p>}
        </Section>
        {stock && (
          <Section title="Where the part lies" aside="middle of the stock's underside">
            <div className={fieldsClass}>
              {(["x", "y", "z"] as const).map((k) => (
                <NumberBox
                  own
                  key={k}
                  job={job}
                  label={`At ${k}`}
                  value={stock.at?.[k]}
                  quantity="coordinate"
                  optional
                  commit={(t) => {
                    const at = e?.stock
                      ? {
                          x: lengthText((e.stock.placed.box.min.x + e.stock.placed.box.max.x) / 2, job.unit),
                          y: lengthText((e.stock.placed.box.min.y + e.stock.placed.box.max.y) / 2, job.unit),
                          z: lengthText(e.stock.placed.box.min.z, job.unit),
                        }
                      : { x: toNumberText("0"), y: toNumberText("0"), z: toNumberText("0") };
                    if (t === undefined) {
                      const rest = { ...stock };
                      delete rest.at;
                      put(rest);
                    } else put({ ...stock, at: { ...at, ...stock.at, [k]: t } });
                  }}
                />
              ))}
            </div>
            {!stock.at && (
              <p className="soft" style={{ margin: "4px 0 0" }}>
                The part lies in the middle; what is over in height is shared above and below.
              </p>
            )}
          </Section>
        )}
        {a && (
          <Section
            title="To clean up"
            aside={e?.stock?.radial != null ? `round the part: ${len(e.stock.radial)}` : "on every side"}
          >
            <div className={fieldsClass}>
              {(["left", "right", "front", "back", "bottom", "top"] as const).map((s) => (
                <Figure key={s} label={s} red={a[s] < -1e-6}>
                  {len(a[s])}
                  {a[s] < -1e-6 ? " out" : ""}
                </Figure>
              ))}
            </div>
          </Section>
        )}
        {e?.stock && e.part && (
          <Section title="Weight">
            <div className={fieldsClass}>
              <Figure label="Blank">{mass(e.stock.mass)}</Figure>
              <Figure label="Part">{mass(e.part.mass)}</Figure>
              <Figure label="Chips">{mass(e.stock.chipMass)}</Figure>
              <Figure label="Blank volume">{vol(e.stock.volume)}</Figure>
              <Figure label="Used">{((100 * e.part.volume) / e.stock.volume).toFixed(1)} %</Figure>
              <Figure label="Density">{e.density === null ? "not known" : `${e.density.toFixed(2)} g/cm³`}</Figure>
            </div>
          </Section>
        )}
        {e && <ChipsByRow evaluation={e} unit={job.unit} />}
        {barPiece && (
          <Section title="Pieces from a bar" aside={pieces?.ok ? <b>{pieces.value} pieces</b> : "—"}>
            <div className={fieldsClass}>
              <NumberBox own job={job} label="Bar" value={bar} quantity="length" commit={(t) => t && setBar(t)} />
              <NumberBox
                own
                job={job}
                label="Saw kerf"
                value={kerf}
                quantity="offset"
                commit={(t) => t && setKerf(t)}
              />
              <NumberBox
                own
                job={job}
                label="Gripping remnant"
                value={remnant}
                quantity="offset"
                commit={(t) => t && setRemnant(t)}
              />
            </div>
          </Section>
        )}
        <MaterialSection />
      </Body>
      <JobRemarks rows rules={(rule) => rule === "outside-stock"} />
    </>
  );
}

/** What each row takes off, and what is left of the blank after it. */
function ChipsByRow({ evaluation: e, unit }: { evaluation: Evaluation; unit: "in" | "mm" }) {
  const rows = e.solved.rows.filter((r) => r.state === "ok" && r.removed > 1e-6);
  if (!rows.length) return null;
  return (
    <Bars
      title="Taken off by each row"
      bars={rows.map((r) => ({ name: `row ${r.number}`, value: r.removed, shown: showBulk(r.removed, unit) }))}
    />
  );
}
