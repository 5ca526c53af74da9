"use client";
import { useEffect, useRef, type PointerEvent, type RefObject } from "react";

/** A pane that is dragged about under the pointer, and zoomed with the wheel while Ctrl is held. */
export function useDragScroll(pane: RefObject<HTMLElement | null>, zoomBy: (k: number) => void, mayDrag: boolean) {
  const drag = useRef<{ x: number; y: number; left: number; top: number } | null>(null);
  useEffect(() => {
    const element = pane.current!;
    const wheel = (e: WheelEvent) => {
      if (!e.ctrlKey && !e.metaKey) return;
      e.preventDefault();
      zoomBy(e.deltaY < 0 ? 1.12 : 1 / 1.12);
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => element.removeEventListener("wheel", wheel);
  }, [pane, zoomBy]);
  const onPointerDown = (e: PointerEvent) => {
    if (!mayDrag || e.button !== 0 || (e.target as HTMLElement).closest("button")) return;
    const { scrollLeft: left, scrollTop: top } = pane.current!;
    drag.current = { x: e.clientX, y: e.clientY, left, top };
  };
  const onPointerMove = (e: PointerEvent) => {
    const from = drag.current;
    if (!from) return;
    pane.current!.scrollLeft = from.left - (e.clientX - from.x);
    pane.current!.scrollTop = from.top - (e.clientY - from.y);
  };
  const letGo = () => {
    drag.current = null;
  };
  return { onPointerDown, onPointerMove, onPointerUp: letGo, onPointerLeave: letGo };
}
