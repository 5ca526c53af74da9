"use client";
import { useShallow } from "zustand/react/shallow";
import { useBench } from "../store/benchStore";

/** What the figures of the readout are taken from: the evaluation, or the picture of the state on the stage. */
export function useShown() {
  const { evaluated, picture, showRow } = useBench(
    useShallow((s) => ({ evaluated: s.evaluated, picture: s.picture, showRow: s.showRow })),
  );
  const evaluation = evaluated?.evaluation;
  const whole = evaluation?.part?.volume;
  const onStage = picture?.measure.volume;
  // Until all of it is worked out, the figures are those of the part as it stands on the stage.
  const volume = showRow && picture ? onStage : (whole ?? onStage);
  return { evaluation, volume, box: evaluation?.part?.box ?? picture?.measure.box };
}

/** The outline that is open in its editor: its own figures stand in the readout. */
export function useOpenOutline() {
  const id = useBench((s) => (s.step === "shape" ? s.openOutline : null));
  return useBench((s) => (id === null ? undefined : s.evaluated?.evaluation.outlines.find((o) => o.id === id)));
}
