import { App, Button } from "antd";
import type { DragEvent } from "react";
import { numberScope } from "@/core/engine/numbers";
import type { Job } from "@/core/job";
import { decimalText, dmsText, evaluateNumber, toNumberText, unitOf } from "@/core/number";
import type { Given } from "@/core/reckon";
import { putIntoLastField } from "../common/lastField";

/** One result: it is dragged, or pressed, into a number field. */
export function ResultLine({ job, given }: { job: Job; given: Given }) {
  const { message } = App.useApp();
  const text = toNumberText(given.text);
  const v = evaluateNumber(text, given.quantity, numberScope(job));
  const use = () => {
    if (!putIntoLastField(text)) void message.info("click into a number field first, then press the result", 3);
  };
  const drag = (e: DragEvent) => {
    e.dataTransfer.setData("text/plain", text);
    e.dataTransfer.effectAllowed = "copy";
  };
  return (
    <li draggable={v.ok} onDragStart={drag}>
      <span>{given.label}</span>
      <b className="num" title={text}>
        {v.ok ? (given.shown ?? show(given, v.value.typed, v.value.value, job)) : "—"}
      </b>
      {v.ok ? (
        <Button
          size="small"
          onMouseDown={(e) => e.preventDefault()}
          onClick={use}
          title="into the number field used last; or drag it there"
          aria-label={`use ${given.label}`}
        >
          use
        </Button>
      ) : (
        <small className="red">{v.problems[0].message}</small>
      )}
    </li>
  );
}

function show({ quantity }: Given, typed: number, inside: number, job: Job): string {
  switch (quantity) {
    case "angle":
    case "includedAngle":
      return `${typed.toFixed(4)}°  ${dmsText(typed)}`;
    case "plain":
    case "count":
      return String(Number(typed.toPrecision(7)));
    default:
      return decimalText(inside, {
        unit: job.unit,
        decimals: unitOf[job.unit].places.exact,
        leadingZero: unitOf[job.unit].leadingZero || job.title.leadingZero === true,
      });
  }
}
