import { numberScope } from "@/core/engine/numbers";
import type { Job } from "@/core/job";
import { evaluateNumber, showLength, type NumberValue, type Quantity } from "@/core/number";

/** What stands under a number: where it comes from, or what is asked about it. */
export type SourceState =
  | { kind: "problem"; text: string }
  | { kind: "none" }
  | { kind: "missing" }
  | { kind: "balloons"; numbers: number[] }
  | { kind: "standard"; cited: string }
  | { kind: "printed" }
  | { kind: "own" }
  | { kind: "unsourced"; typed: number };

export interface NumberField {
  /** The text as it stands in the field. */
  shown: string;
  quantity: Quantity;
  /** An empty optional number is none; an empty needed one is a question. */
  optional?: boolean;
  /** A number that is the shop's own by nature (stock, grip): nobody asks where it comes from. */
  own?: boolean;
  /** A number that stands on the print itself. */
  printed?: boolean;
  /** Balloons that print it without being cited, as `6X` of a hole's balloon prints the row's count. */
  printedBy?: readonly number[];
}

export interface NumberState {
  source: SourceState;
  /** Whether something is asked about it. */
  question: boolean;
  /** What stands behind the text: its unit, or the value where the text does not show it. */
  after: string;
}

/** What a number field shows of the text in it. */
export function numberState(field: NumberField, job: Job): NumberState {
  const unit = unitAfter(field.quantity, job);
  if (field.shown.trim() === "")
    return { source: { kind: field.optional ? "none" : "missing" }, question: !field.optional, after: unit };
  const result = evaluateNumber(field.shown, field.quantity, numberScope(job));
  if (!result.ok) return { source: { kind: "problem", text: result.problems[0].message }, question: true, after: "?" };
  const source = sourceOf(result.value, field);
  return {
    source,
    question: source.kind === "unsourced",
    after: isBare(field.shown) ? unit : valueText(result.value, field.quantity, job),
  };
}

function sourceOf(value: NumberValue, { own, printed, printedBy = [] }: NumberField): SourceState {
  if (value.source === "print") return { kind: "balloons", numbers: value.cites };
  if (value.source === "standard") return { kind: "standard", cited: value.cited ?? "" };
  if (printed) return { kind: "printed" };
  if (value.source === "unsourced" && printedBy.length) return { kind: "balloons", numbers: [...printedBy] };
  if (value.source === "shop" || own) return { kind: "own" };
  return { kind: "unsourced", typed: value.typed };
}

/** A figure as it is: nothing is gained by saying its value again. */
const isBare = (text: string) => /^-?\d*\.?\d+(?:!|\{[^{}]*\})?$/.test(text.trim());

function unitAfter(quantity: Quantity, job: Job): string {
  switch (quantity) {
    case "count":
    case "plain":
      return "";
    case "angle":
    case "includedAngle":
      return "°";
    default:
      return job.unit;
  }
}

function valueText({ typed, value }: NumberValue, quantity: Quantity, job: Job): string {
  switch (quantity) {
    case "count":
    case "plain":
      return String(Number(typed.toPrecision(8)));
    case "angle":
    case "includedAngle":
      return `${Number(typed.toFixed(4))}°`;
    default:
      return showLength(value, job.unit, undefined, job.title.leadingZero);
  }
}
