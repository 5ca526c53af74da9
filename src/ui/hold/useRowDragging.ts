"use client";
import {
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  rectIntersection,
  useSensor,
  useSensors,
  type CollisionDetection,
  type DragEndEvent,
  type KeyboardCoordinateGetter,
} from "@dnd-kit/core";
import { moveRow } from "./setupEdits";

/** By keyboard a row goes from setup to setup, not by so many pixels. */
const toNextSetup: KeyboardCoordinateGetter = (event, { currentCoordinates, context }) => {
  const by = event.code === "ArrowDown" ? 1 : event.code === "ArrowUp" ? -1 : 0;
  const { active, over, droppableRects } = context;
  if (!by || !active) return undefined;
  event.preventDefault();
  const setups = [...droppableRects].sort(([, a], [, b]) => a.top - b.top);
  const at = setups.findIndex(([id]) => id === (over?.id ?? active.data.current?.op));
  const next = setups[Math.max(0, Math.min(setups.length - 1, at + by))];
  return next ? { x: currentCoordinates.x, y: next[1].top + INSIDE } : currentCoordinates;
};
/** A place well inside the head of a setup, px. */
const INSIDE = 12;

/** Where the pointer is, and by keyboard where the row lies. */
const underPointer: CollisionDetection = (what) => {
  const at = pointerWithin(what);
  return at.length ? at : rectIntersection(what);
};

/** What is done to rows of a setup by dragging them to another, by mouse or by keyboard. */
export function useRowDragging() {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: toNextSetup }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over) moveRow(String(active.data.current?.row), Number(active.data.current?.op), Number(over.id));
  };
  return { sensors, onDragEnd, collisionDetection: underPointer };
}
