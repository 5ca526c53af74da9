"use client";
import { Segmented, Splitter } from "antd";
import { useState, type ReactNode } from "react";
import { useShallow } from "zustand/react/shallow";
import { useNarrow } from "../common/useNarrow";
import { useBench } from "../store/benchStore";
import css from "./Bench.module.css";

const PANE = "sgorbia-pane";
/** Width of the card, px, as it was last drawn; kept in this browser. */
const keptPane = (): number => Number(globalThis.localStorage?.getItem(PANE)) || 452;
function keepPane(width: number): void {
  try {
    localStorage.setItem(PANE, String(Math.round(width)));
  } catch {
    // A private window keeps nothing.
  }
}

/** Card and stage side by side, or where there is no room for both, one of them at a time; both stay as they are. */
export function Panes({ card, main }: { card: ReactNode; main: ReactNode }) {
  const narrow = useNarrow();
  const [pane] = useState(keptPane);
  const { front, set } = useBench(useShallow((s) => ({ front: s.front, set: s.set })));
  if (!narrow)
    return (
      <Splitter className={css.panes} onResizeEnd={([width]) => keepPane(width)}>
        <Splitter.Panel defaultSize={pane} min={380} max={760}>
          {card}
        </Splitter.Panel>
        <Splitter.Panel>{main}</Splitter.Panel>
      </Splitter>
    );
  return (
    <div className={css.single}>
      <Segmented
        block
        aria-label="What is shown"
        options={[
          { value: "card" as const, label: "card" },
          { value: "stage" as const, label: "picture" },
        ]}
        value={front}
        onChange={(v) => set({ front: v })}
      />
      <div hidden={front !== "card"}>{card}</div>
      <div hidden={front !== "stage"}>{main}</div>
    </div>
  );
}
