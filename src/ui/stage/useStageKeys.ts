import type { KeyboardEvent } from "react";
import { useBench } from "../store/benchStore";
import type { SceneRef } from "./layers/useScene";

/** How far a key turns the part, radians, and how much it brings it nearer. */
const TURN = Math.PI / 24;
const NEARER = 1.2;

const turns: Record<string, [number, number]> = {
  ArrowLeft: [-TURN, 0],
  ArrowRight: [TURN, 0],
  ArrowUp: [0, TURN],
  ArrowDown: [0, -TURN],
};

/** What the keys do while the stage has the keyboard: turn, zoom, and pick one face after another. */
export function useStageKeys(scene: SceneRef) {
  return (e: KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    const s = scene.current;
    const turn = turns[e.key];
    if (turn) s?.turn(...turn);
    else if (e.key === "+") s?.zoomBy(NEARER);
    else if (e.key === "-") s?.zoomBy(1 / NEARER);
    else if (e.key === ".") pickNext(1);
    else if (e.key === ",") pickNext(-1);
    else if (e.key === "Enter") openPicked();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
}

/** Picks the face after the one that is picked, or before it, in the order the rows made them. */
function pickNext(by: 1 | -1): void {
  const { picture, picked, set } = useBench.getState();
  const faces = picture?.faces ?? [];
  if (!faces.length) return;
  const from = picked && picked.face >= 0 ? picked.face : by > 0 ? -1 : 0;
  const face = (from + by + faces.length) % faces.length;
  const { point, tag, area } = faces[face];
  const row = tag?.row ?? null;
  set({ picked: { point, snapped: "face", face, row, role: tag?.role ?? null, area }, selected: row });
}

function openPicked(): void {
  const { picked, set } = useBench.getState();
  if (picked?.row) set({ step: "shape", openRow: picked.row });
}
