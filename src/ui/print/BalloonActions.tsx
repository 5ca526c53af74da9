"use client";
import { App, Button, Checkbox } from "antd";
import { asBasic, hasLimits, wholeOf, type Balloon } from "@/core/job";
import { limitsText } from "../proof/figures";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./PrintCard.module.css";
import { useBalloon } from "./useBalloon";

/** What a balloon is besides its number, what comes of it, and its place in the ledger. */
export function BalloonActions({ balloon: b, index }: { balloon: Balloon; index: number }) {
  const { put } = useBalloon(b);
  const last = useJob((s) => s.job!.balloons.length - 1);
  const edit = useJob((s) => s.edit);
  const move = (by: number) => edit([{ edit: "moveBalloon", number: b.number, to: index + by }], "move balloon");
  const tick = (label: string, checked: boolean, set: (on: true | undefined) => void, title?: string) => (
    <Checkbox title={title} checked={checked} onChange={(e) => set(e.target.checked || undefined)}>
      {label}
    </Checkbox>
  );
  return (
    <div className={css.actions}>
      {tick("reference", Boolean(b.reference), (reference) => put({ reference }))}
      {hasLimits(b) && tick("basic", Boolean(b.basic), (on) => put(on ? asBasic(b) : { basic: undefined }))}
      {hasLimits(b) &&
        !b.basic &&
        !wholeOf(b.tolerance) &&
        tick(
          "model the middle",
          Boolean(b.middle),
          (middle) => put({ middle }),
          "the model is made to the middle of the limits instead of the nominal",
        )}
      <Outcome balloon={b} />
      <Button size="small" onClick={() => move(-1)} disabled={index === 0} aria-label="Move up">
        ↑
      </Button>
      <Button size="small" onClick={() => move(1)} disabled={index === last} aria-label="Move down">
        ↓
      </Button>
      <Delete balloon={b} />
    </div>
  );
}

/** Its limits, what is wrong with it, and the rows it drives. */
function Outcome({ balloon: b }: { balloon: Balloon }) {
  const job = useJob((s) => s.job)!;
  const entry = useBench((s) => s.evaluated?.evaluation.ledger.find((l) => l.number === b.number));
  const users = entry?.rows ?? [];
  return (
    <span className="soft">
      {entry ? limitsText(b, entry, job) : ""}
      {entry?.problem ? <b className="red">{entry.problem}</b> : ""}{" "}
      {users.length ? `drives row ${users.join(", ")}` : "nothing uses it yet"}
    </span>
  );
}

/** Takes the balloon away; where rows are made of it, that is said, with the way back. */
function Delete({ balloon: b }: { balloon: Balloon }) {
  const edit = useJob((s) => s.edit);
  const rows = useBench((s) => s.evaluated?.evaluation.ledger.find((l) => l.number === b.number)?.rows);
  const { message } = App.useApp();
  const remove = () => {
    edit([{ edit: "deleteBalloon", number: b.number }], "delete balloon");
    // What was focused goes with it: the next line is typed where balloons are.
    document.getElementById("ledger-line")?.focus();
    if (rows?.length)
      void message.warning(`row ${rows.join(", ")} was made of balloon ${b.number}: undo brings it back`, 6);
  };
  return (
    <Button size="small" onClick={remove}>
      delete
    </Button>
  );
}
