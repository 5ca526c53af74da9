import { useRef, type PointerEvent, type RefObject } from "react";
import type { FaceInfo } from "@/core/engine/kernel";
import { dot, type Vec3 } from "@/core/geometry/vec";
import type { Job } from "@/core/job";
import type { EvaluatedOutline } from "@/core/outline/evaluateOutline";
import { featureOf } from "@/core/print/features";
import { nameOfFace } from "@/core/engine/faceNames";
import { PARALLEL } from "@/core/geometry/tolerance";
import { setPath } from "@/core/grammar/grammar";
import { lengthText, toNumberText } from "@/core/number";
import { setMeasure } from "../bench/actions";
import { useJob } from "../store/jobStore";
import { useBench, type Pick } from "../store/benchStore";
import { usePointer } from "../store/pointer";
import { useSetups } from "../store/setupsStore";
import type { SceneRef } from "./layers/useScene";
import { snapTo } from "./snap";

/** A press that moves less than this, in pixels, is a click. */
const STILL = 4;
/** How near a point of an outline is caught, pixels. */
const CATCH = 9;

/** What moving over the stage and clicking on it does. State is read when it happens: nothing is drawn for it. */
export function usePointing(
  host: RefObject<HTMLDivElement | null>,
  scene: SceneRef,
  job: Job,
  drawn: EvaluatedOutline | null,
) {
  const point = usePointer((s) => s.point);
  const down = useRef({ x: 0, y: 0 });
  const placeOf = (e: PointerEvent) => {
    const r = host.current!.getBoundingClientRect();
    return { x: e.clientX - r.left, y: e.clientY - r.top };
  };
  return {
    onPointerDown: (e: PointerEvent) => {
      down.current = placeOf(e);
    },
    onPointerMove: (e: PointerEvent) => {
      if (e.buttons) return;
      const p = placeOf(e);
      const { view, evaluated } = useBench.getState();
      // Over an open outline the plane itself is read.
      if (drawn && view === "top")
        return point({ ...scene.current!.onPlane(p.x, p.y), z: evaluated?.evaluation.part?.box.max.z ?? 0 });
      const h = scene.current?.hit(p.x, p.y) ?? null;
      point(h ? (h.corner ?? h.point) : null);
    },
    onPointerUp: (e: PointerEvent) => {
      const p = placeOf(e);
      if (Math.hypot(p.x - down.current.x, p.y - down.current.y) > STILL || e.button !== 0) return;
      clicked(scene, job, drawn, p);
    },
    onPointerLeave: () => point(null),
  };
}

function clicked(scene: SceneRef, job: Job, drawn: EvaluatedOutline | null, p: { x: number; y: number }): void {
  // The piece of a setup is no state of the part: what is clicked there is only read.
  if (useBench.getState().step === "hold" && useSetups.getState().bodies.length) return;
  const { set, view, picking, measuring, measured, picture } = useBench.getState();
  const s = scene.current!;
  if (drawn && view === "top" && !picking && !measuring)
    return set({ outlineSpot: snapTo(drawn, s.onPlane(p.x, p.y), s.reach(CATCH), job.unit) });
  const h = s.hit(p.x, p.y);
  if (!h) return set({ picked: null, selected: null, ...(measuring ? { measured: [] } : {}) });
  const face = view === "section" ? undefined : picture?.faces[h.face];
  const at = h.corner ?? h.point;
  if (picking) return pickFeature(face, at);
  if (takeForRow(job, face, at)) return;
  const pick: Pick = {
    point: at,
    snapped: h.corner ? "corner" : "face",
    face: face ? h.face : -1,
    row: face?.tag?.row ?? null,
    role: face?.tag?.role ?? null,
    area: face?.area ?? 0,
  };
  if (measuring) return set({ measured: measured.length === 1 ? [measured[0], pick] : [pick] });
  set({ picked: pick, selected: pick.row });
}

/** A flat or an edge picked for the row whose field waits for one. @returns whether one did */
function takeForRow(job: Job, face: FaceInfo | undefined, at: Vec3): boolean {
  const { planePick, edgePick, evaluated, picture, set } = useBench.getState();
  const row = job.rows.find((r) => r.id === (planePick?.row ?? edgePick));
  if (!row) return false;
  const { edit } = useJob.getState();
  const body = JSON.parse(JSON.stringify(row.body));
  if (planePick) {
    const farthest = (d: Vec3) =>
      Math.max(
        ...(picture?.faces ?? []).map((f) =>
          f.surface === "plane" && dot(f.normal, d) > PARALLEL ? dot(f.point, d) : -Infinity,
        ),
      );
    const plane = face && nameOfFace(face, evaluated?.evaluation.solved.rows ?? [], farthest);
    if (!plane) return true;
    setPath(body, planePick.path, plane);
  } else {
    const typed = (mm: number) => toNumberText(lengthText(mm, job.unit).replace(/\s.*$/, ""));
    body.edges.push({ edge: "at", at: { x: typed(at.x), y: typed(at.y), z: typed(at.z) } });
  }
  edit([{ edit: "setRow", id: row.id, body }], planePick ? "plane" : "edge");
  set({ planePick: null, edgePick: null });
  return true;
}

/** A face picked for the measurement of a balloon: the first of two, or the second. */
function pickFeature(face: FaceInfo | undefined, at: Vec3): void {
  const { set, picking, picture } = useBench.getState();
  const f = face && featureOf(face, at);
  if (!f || !picking) return;
  if (picking.first !== null) return setMeasure(picking.balloon, { a: picking.first, b: f });
  const index = picture!.faces.indexOf(face);
  set({
    picking: { ...picking, first: f },
    picked: { point: at, snapped: "face", face: index, row: f.row, role: f.role, area: face.area },
  });
}
