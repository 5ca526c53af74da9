"use client";
import { showLength, toNumberText } from "@/core/number";
import type { Hold } from "@/core/job";
import { elevationOf } from "@/core/hold/elevation";
import { placeVise } from "@/core/hold/vise";
import { numberScope } from "@/core/engine/numbers";
import { NumberBox } from "../common/NumberBox";
import { Body, Figure, Section, fieldsClass } from "../common/Section";
import { ChoiceBox } from "../card/editors";
import { Remark } from "../card/RedPencil";
import { HoldPicture } from "./HoldPicture";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";

/** The Hold step: a vise with plain jaws, drawn on the stage. */
export function HoldCard() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const e = useBench((s) => s.evaluated?.evaluation);
  const hold = job.hold;
  const put = (h: Hold | null) => edit([{ edit: "setHold", hold: h }], "hold");
  const piece = e?.stock?.placed.box ?? e?.part?.box;
  const v = hold && piece ? placeVise(hold, numberScope(job), piece) : null;
  const len = (mm: number) => showLength(mm, job.unit);
  const remarks = e?.findings.filter((f) => f.rule === "grip-too-shallow" || f.rule === "cut-into-jaw") ?? [];
  const start: Hold = { fixture: "vise", across: "y", grip: toNumberText({ in: ".25", mm: "6" }[job.unit]), up: "top" };
  const fixtures = [
    { value: "none", label: "not held yet", make: null },
    { value: "vise", label: "vise, plain jaws", make: start },
  ];
  return (
    <>
      <Body>
        <Section title="Hold" aside={e?.stock ? "holds the stock" : "holds the part: no stock chosen"}>
          <div className={fieldsClass}>
            <ChoiceBox label="Fixture" value={hold?.fixture ?? "none"} options={fixtures} choose={(o) => put(o.make)} />
            {hold && (
              <>
                <ChoiceBox
                  label="Up is"
                  value={hold.up}
                  options={[
                    { value: "top" as const, label: "the top" },
                    { value: "bottom" as const, label: "the bottom" },
                  ]}
                  choose={(o) => put({ ...hold, up: o.value })}
                />
                <ChoiceBox
                  label="Jaws close along"
                  value={hold.across}
                  options={[
                    { value: "y" as const, label: "y: front, back" },
                    { value: "x" as const, label: "x: left, right" },
                  ]}
                  choose={(o) => put({ ...hold, across: o.value })}
                />
                <NumberBox
                  own
                  job={job}
                  label="Grip depth"
                  value={hold.grip}
                  quantity="length"
                  commit={(t) => put({ ...hold, grip: t ?? toNumberText("?") })}
                />
                <NumberBox
                  own
                  job={job}
                  label="Jaw width"
                  value={hold.jawWidth}
                  quantity="length"
                  optional
                  commit={(t) => {
                    const h = { ...hold, jawWidth: t };
                    if (t === undefined) delete h.jawWidth;
                    put(h);
                  }}
                />
                <NumberBox
                  own
                  job={job}
                  label="Jaw height"
                  value={hold.jawHeight}
                  quantity="length"
                  optional
                  commit={(t) => {
                    const h = { ...hold, jawHeight: t };
                    if (t === undefined) delete h.jawHeight;
                    put(h);
                  }}
                />
              </>
            )}
          </div>
          {!hold && (
            <p className="soft">Choose a fixture to see the jaws on the stage and to have grip and cuts checked.</p>
          )}
        </Section>
        {v?.ok && (
          <Section title="In the jaws">
            <div className={fieldsClass}>
              <Figure label="Grip">{len(v.value.grip)}</Figure>
              <Figure label="Above the jaws">{len(v.value.above)}</Figure>
              <Figure label="Above : grip">{(v.value.above / v.value.grip).toFixed(1)} : 1</Figure>
            </div>
            <HoldPicture
              seen={elevationOf(v.value, piece!, e?.stock ? (e.part?.box ?? null) : null)}
              grip={len(v.value.grip)}
              above={len(v.value.above)}
            />
          </Section>
        )}
        {v && !v.ok && (
          <Section title="In the jaws">
            <p className="red">{v.problems[0].message}</p>
          </Section>
        )}
        {hold && (
          <Section title="Caution">
            <p className="soft" style={{ margin: 0 }}>
              Grip and reach are geometry only. Clamping force, the vise’s own rating and whether the piece is safe are
              judged at the machine by a qualified person, by the maker’s manual.
            </p>
          </Section>
        )}
      </Body>
      {remarks.length > 0 && (
        <div
          style={{
            borderTop: "1px solid var(--ink)",
            padding: "7px 14px",
            color: "var(--vermilion)",
            font: "italic 500 12.5px/16px var(--text)",
          }}
          aria-label="Remarks on holding"
        >
          {remarks.map((f, i) => (
            <div key={i}>
              {f.row !== null && <b>row {f.row}: </b>}
              <Remark finding={f} wide />
            </div>
          ))}
        </div>
      )}
    </>
  );
}
