"use client";
import { useMemo } from "react";
import { numberScope } from "@/core/engine/numbers";
import type { Job } from "@/core/job";
import { useBench } from "../store/benchStore";
import { EmptyStage, Hints } from "./Hints";
import { useCamera } from "./layers/useCamera";
import { useMarks } from "./layers/useMarks";
import { useOutline } from "./layers/useOutline";
import { usePart } from "./layers/usePart";
import { usePaths } from "./layers/usePaths";
import { usePrint } from "./layers/usePrint";
import { useScene } from "./layers/useScene";
import { useSetup } from "./layers/useSetup";
import { SetupMoment } from "./SetupMoment";
import { useShownPlane } from "./layers/useShownPlane";
import { useJaws, useStock } from "./layers/useStockAndJaws";
import { Marks } from "./Marks";
import { namedPoints } from "./wireframe";
import css from "./Stage.module.css";
import { usePointing } from "./usePointing";
import { useStageKeys } from "./useStageKeys";
import { ViewBar } from "./ViewBar";

/** The stage: the piece in its stock, in the views of a drawing sheet, with what the step at hand adds to it. */
export function Stage({ job }: { job: Job }) {
  const { host, scene, overlay } = useScene();
  const evaluation = useBench((s) => s.evaluated?.evaluation ?? null);
  const scope = useMemo(() => numberScope(job), [job]);
  usePart(scene);
  useStock(scene, evaluation);
  usePaths(scene, evaluation);
  const vise = useJaws(scene, job, evaluation, scope);
  const drawn = useOutline(scene, job, evaluation, scope);
  const named = useMemo(() => namedPoints(drawn, evaluation?.part?.box.max.z ?? 0), [drawn, evaluation]);
  const plane = useShownPlane(scene, job, evaluation);
  const finding = useMarks(scene, evaluation, drawn !== null);
  const print = usePrint(scene, job, evaluation, scope, drawn !== null);
  const inSetup = useSetup(scene);
  useCamera(scene, evaluation, vise, drawn, print.laid, inSetup);
  const onKeyDown = useStageKeys(scene);
  const pointing = usePointing(host, scene, job, drawn);
  const hasPicture = useBench((s) => s.picture !== null) || drawn !== null;
  const leads = useBench((s) => s.step === "shape" && s.view !== "section") && drawn === null;
  const unit = useBench((s) => s.unitShown) ?? job.unit;
  return (
    <section className={css.stage} aria-label="Stage">
      <ViewBar job={job} hasPrint={print.laid} />
      <div className={css.canvas}>
        <div
          ref={host}
          className={css.host}
          data-testid="stage"
          tabIndex={0}
          role="application"
          aria-label="The part: arrows turn it, + and - bring it nearer and away, . and , pick the next face and the one before, Enter opens its row"
          onKeyDown={onKeyDown}
          data-print={print.laid ? print.opacity : undefined}
          data-wipe={print.wipe ?? undefined}
          {...pointing}
        />
        <Marks
          scene={scene.current}
          host={host.current}
          axes={hasPicture ? overlay.axes : []}
          finding={leads ? finding : undefined}
          unit={unit}
          named={[...named, ...plane]}
        />
        {inSetup && <SetupMoment />}
        {!hasPicture && <EmptyStage hasRows={job.rows.length > 0} />}
        <Hints />
        <PickedWords job={job} />
      </div>
    </section>
  );
}

/** What is picked, for those who hear it. */
function PickedWords({ job }: { job: Job }) {
  const picked = useBench((s) => s.picked);
  const faces = useBench((s) => s.picture?.faces.length ?? 0);
  const row = job.rows.findIndex((r) => r.id === picked?.row) + 1;
  const where = picked && picked.face >= 0 ? `, face ${picked.face + 1} of ${faces}` : "";
  return (
    <p className="sr" role="status" data-testid="picked-words">
      {picked ? `picked: ${picked.role ?? "a face"}${row ? ` of row ${row}` : ""}${where}` : ""}
    </p>
  );
}
