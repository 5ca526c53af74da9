"use client";
import { asksLeg } from "@/core/balloons/tolerance";
import {
  balloonKinds,
  hasLimits,
  toleranceKindOf,
  toleranceKinds,
  wholeOf,
  type Balloon,
  type Tolerance,
} from "@/core/job";
import { toNumberText, type NumberText, type Quantity } from "@/core/number";
import { findThread, generalClasses } from "@/core/tables";
import { ThreadBox } from "../card/ThreadBox";
import { ChoiceBox } from "../fields/ChoiceBox";
import { NumberBox } from "../common/NumberBox";
import { fieldsClass } from "../common/Section";
import { TextField } from "../fields/TextField";
import { useJob } from "../store/jobStore";
import { FitBox } from "./FitBox";
import { useBalloon } from "./useBalloon";

const q = toNumberText("?");
const toleranceOptions = (Object.keys(toleranceKinds) as Tolerance["kind"][]).map((value) => ({
  value,
  label: toleranceKinds[value].label,
}));

/** What a balloon prints, field by field. */
export function BalloonFields({ balloon: b }: { balloon: Balloon }) {
  const { put, setKind, setTolerance } = useBalloon(b);
  const isLegAsked = useJob((s) => asksLeg(b, s.job!.title));
  return (
    <div className={fieldsClass}>
      <ChoiceBox
        label="Kind"
        value={b.kind}
        options={balloonKinds.map((k) => ({ value: k, label: k }))}
        choose={(o) => setKind(o.value)}
      />
      <Printed balloon={b} />
      {hasLimits(b) && (
        <>
          <ChoiceBox
            label="Tolerance"
            value={b.tolerance.kind}
            options={toleranceOptions}
            choose={(o) => setTolerance(toleranceKinds[o.value].start(b.value ?? q))}
          />
          <ToleranceFields balloon={b} />
        </>
      )}
      {b.kind === "angle" && (
        <Value label="Shorter leg" value={b.leg} quantity="length" optional commit={(leg) => put({ leg })} />
      )}
      {isLegAsked && (
        <p className="red">ISO 2768 goes by the shorter leg: how long is it? Until then the tightest row is taken.</p>
      )}
      <label>
        <span className="lab">Zone</span>
        <TextField
          value={b.zone ?? ""}
          maxLength={10}
          problem={(z) => (/^[A-Z0-9-]*$/i.test(z.trim()) ? null : "letters, figures and - only")}
          commit={(z) => put({ zone: z.toUpperCase() || undefined })}
        />
      </label>
      <label>
        <span className="lab">Note</span>
        <TextField value={b.note ?? ""} maxLength={500} commit={(note) => put({ note: note || undefined })} />
      </label>
    </div>
  );
}

/** The number, thread, angle and count as they are printed. */
function Printed({ balloon: b }: { balloon: Balloon }) {
  const { put } = useBalloon(b);
  const job = useJob((s) => s.job)!;
  const others = { ...job, balloons: job.balloons.filter((x) => x.number !== b.number) };
  return (
    <>
      {b.kind === "thread" && (
        <ThreadBox
          balloons={[]}
          value={b.thread ?? ""}
          commit={(thread) => {
            if (findThread(thread)) put({ thread });
          }}
        />
      )}
      {hasLimits(b) && !wholeOf(b.tolerance) && (
        <NumberBox
          printed
          job={others}
          label="As printed"
          value={b.value}
          quantity={quantityOf(b)}
          commit={(t) => put({ value: t ?? q })}
        />
      )}
      {b.kind === "chamfer" && (
        <Value label="Angle" value={b.angle} quantity="angle" commit={(t) => put({ angle: t ?? toNumberText("45") })} />
      )}
      <Value
        label="Count"
        value={b.count}
        quantity="count"
        optional={b.kind !== "count"}
        commit={(count) => put({ count })}
      />
    </>
  );
}

const quantityOf = (b: Balloon): Quantity => (b.kind === "angle" ? "angle" : "coordinate");

/** The numbers of a tolerance, or its class. */
function ToleranceFields({ balloon: b }: { balloon: Balloon }) {
  const { setTolerance } = useBalloon(b);
  const t = b.tolerance;
  if (t.kind === "fit") return <FitBox value={t.fit} commit={(fit) => setTolerance({ kind: "fit", fit })} />;
  if (t.kind === "general")
    return (
      <ChoiceBox
        label="Class"
        value={t.class}
        options={generalClasses.map((c) => ({ value: c, label: `ISO 2768-${c}` }))}
        choose={(o) => setTolerance({ kind: "general", class: o.value })}
      />
    );
  return toleranceKindOf(t).numbers.map((n) => (
    <Value
      key={n.label}
      label={n.label}
      value={n.of(t)}
      quantity={quantityOf(b)}
      commit={(v) => setTolerance(n.with(t, v ?? q))}
    />
  ));
}

function Value(field: {
  label: string;
  value: NumberText | undefined;
  quantity: Quantity;
  optional?: boolean;
  commit: (t: NumberText | undefined) => void;
}) {
  const job = useJob((s) => s.job)!;
  return <NumberBox printed job={job} {...field} />;
}
