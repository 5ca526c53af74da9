"use client";
import { Slider } from "antd";
import { useSetups } from "../store/setupsStore";
import css from "./Stage.module.css";

/** Opens and closes the jaws on the stage. Nothing of the job changes. */
export function JawSlider() {
  const opens = useSetups((s) => s.bodies.some((b) => b.opens !== null));
  const opened = useSetups((s) => s.opened);
  const set = useSetups((s) => s.set);
  if (!opens) return null;
  return (
    <div className={css.jaws}>
      <span>closed</span>
      <Slider
        className={css.slider}
        ariaLabelForHandle="How far the jaws are opened"
        min={0}
        max={1}
        step={0.05}
        tooltip={{ open: false }}
        value={opened}
        onChange={(v) => set({ opened: v })}
      />
      <span>open</span>
    </div>
  );
}
