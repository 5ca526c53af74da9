"use client";
import { App, Button } from "antd";
import { makingText, namedIn, readMakingText } from "@/core/callout";
import { rowNames } from "@/core/job";
import { toNumberText } from "@/core/number";
import type { NamedPlane } from "@/core/rows";
import { freshId } from "../bench/actions";
import { TextField } from "../fields/TextField";
import { WordsBox } from "../fields/WordsBox";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./PlaneShelf.module.css";
import { SolidPick } from "./SolidPick";

/** The job's named planes, each with what it is made of; drawn on the stage while one is looked at. */
export function PlaneShelf() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const planes = job.planes ?? [];
  const add = () => {
    const taken = planes.map((p) => p.name.toLowerCase());
    const letter = [..."abcdefghijklmnopqrstuvwxyz"].find((c) => !taken.includes(c)) ?? `plane ${planes.length + 1}`;
    const making: NamedPlane["making"] = { is: "offset", by: toNumberText("?"), from: { on: "top" } };
    edit([{ edit: "addPlane", plane: { id: freshId(), name: letter, making } }], "plane");
  };
  return (
    <div className={css.shelf} role="group" aria-label="Planes">
      <div className={css.head}>
        <span className="lab">planes</span>
        <Button size="small" onClick={add}>
          + plane
        </Button>
        <SolidPick />
      </div>
      {planes.map((p) => (
        <PlaneLine key={p.id} plane={p} />
      ))}
    </div>
  );
}

function PlaneLine({ plane }: { plane: NamedPlane }) {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const set = useBench((s) => s.set);
  const shown = useBench((s) => s.planeShown === plane.id);
  const { message } = App.useApp();
  const names = rowNames(job.rows);
  const put = (changes: Partial<NamedPlane>) => {
    const why = edit([{ edit: "setPlane", id: plane.id, plane: { ...plane, ...changes } }], "plane");
    if (why) void message.error(why, 5);
  };
  const remove = () => {
    const why = edit([{ edit: "deletePlane", id: plane.id }], "delete plane");
    if (why) void message.warning(why, 6);
  };
  return (
    <div className={css.line} data-plane={plane.name}>
      <TextField
        aria-label={`Name of plane ${plane.name}`}
        value={plane.name}
        maxLength={120}
        commit={(name) => name && put({ name })}
      />
      <WordsBox
        label={`What plane ${plane.name} is`}
        value={makingText(plane, names)}
        options={[
          "OFFSET 5 FROM TOP",
          "MIDWAY LEFT RIGHT",
          "TILT 30 ABOUT X AT 0,0,0",
          "TANGENT TO 1 AT 90",
          "INDEX 90 ABOUT X",
        ]}
        read={(text) => readMakingText(text, names, namedIn(job))}
        commit={(making) => put({ making })}
      />
      <Button size="small" aria-pressed={shown} onClick={() => set({ planeShown: shown ? null : plane.id })}>
        {shown ? "hide" : "show"}
      </Button>
      <Button size="small" onClick={remove} aria-label={`Delete plane ${plane.name}`}>
        ×
      </Button>
    </div>
  );
}
