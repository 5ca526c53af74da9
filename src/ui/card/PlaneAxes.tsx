"use client";
import { sideFrame, type Frame, type Vec3 } from "@/core/geometry/vec";
import type { PlaneRef } from "@/core/rows";
import { useBench } from "../store/benchStore";
import css from "./Card.module.css";

/** The job's axis a direction runs along, with its sign; null where it runs along none. */
function alongAxis(d: Vec3): string | null {
  const axis = (["x", "y", "z"] as const).find((k) => Math.abs(d[k]) > 1 - 1e-9);
  return axis ? `${d[axis] < 0 ? "−" : ""}${axis.toUpperCase()}` : null;
}

/**
 * The little axes of the plane a row stands on, as one sees it looking at it: from behind and from below one of them
 * runs the other way.
 */
export function PlaneAxes({ rowId, plane }: { rowId: string; plane: PlaneRef }) {
  const placed = useBench((s) => s.evaluated?.evaluation.solved.rows.find((r) => r.row.id === rowId)?.planes?.start);
  const frame: Frame | null = "row" in plane || plane.on === "named" ? (placed ?? null) : sideFrame(plane.on, 0);
  const [x, y] = frame ? [alongAxis(frame.x), alongAxis(frame.y)] : [null, null];
  if (!x || !y) return null;
  return (
    <figure
      className={css.axes}
      role="img"
      aria-label={`looking at this plane, x runs to the right along ${x} of the job, y up along ${y}`}
    >
      <svg width="96" height="46" viewBox="0 0 96 46" aria-hidden>
        <path
          d="M22 38 V10 M22 38 H56 M18.5 15 L22 7 L25.5 15 M51 34.5 L59 38 L51 41.5"
          fill="none"
          stroke="currentColor"
        />
        <circle cx="22" cy="38" r="2.2" fill="currentColor" />
        <text x="63" y="42">
          x = {x}
        </text>
        <text x="29" y="14">
          y = {y}
        </text>
      </svg>
    </figure>
  );
}
