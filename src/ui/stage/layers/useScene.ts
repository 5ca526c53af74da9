import { useEffect, useRef, useState, type RefObject } from "react";
import { readPalette } from "../ink";
import { StageScene } from "../scene";

/** What a layer draws on: null until the stage stands. */
export type SceneRef = RefObject<StageScene | null>;
export interface Overlay {
  axes: { x: number; y: number }[];
  stamp: number;
}

/** The scene in its element, as large as that is; and where its axes point, told anew with every picture. */
export function useScene(): { host: RefObject<HTMLDivElement | null>; scene: SceneRef; overlay: Overlay } {
  const host = useRef<HTMLDivElement>(null);
  const scene = useRef<StageScene | null>(null);
  const [overlay, setOverlay] = useState<Overlay>({ axes: [], stamp: 0 });
  useEffect(() => {
    const s = new StageScene(host.current!, readPalette());
    scene.current = s;
    s.onDraw = () => setOverlay((o) => ({ axes: s.axes(), stamp: o.stamp + 1 }));
    const size = new ResizeObserver(([e]) => s.resize(e.contentRect.width, e.contentRect.height));
    size.observe(host.current!);
    return () => {
      size.disconnect();
      s.dispose();
      scene.current = null;
    };
  }, []);
  return { host, scene, overlay };
}
