"use client";
import { Segmented, Slider } from "antd";
import { useSetups } from "../store/setupsStore";
import css from "./Stage.module.css";

/** Opens and closes the jaws on the stage. Nothing of the job changes. */
function JawSlider() {
  const opens = useSetups((s) => s.bodies.some((b) => b.opens !== null));
  const opened = useSetups((s) => s.opened);
  const set = useSetups((s) => s.set);
  if (!opens) return null;
  return (
    <>
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
    </>
  );
}

/** The piece as the open setup starts from it or leaves it, and how far its jaws are opened. */
export function SetupMoment() {
  const moment = useSetups((s) => s.moment);
  const isThere = useSetups((s) => s.bodies.length > 0);
  const set = useSetups((s) => s.set);
  if (!isThere) return null;
  return (
    <div className={css.jaws}>
      <Segmented
        size="small"
        aria-label="The piece at the start or the end of the setup"
        options={[
          { value: "start", label: "as it comes" },
          { value: "end", label: "when cut" },
        ]}
        value={moment}
        onChange={(v) => set({ moment: v === "end" ? "end" : "start" })}
      />
      <JawSlider />
    </div>
  );
}
