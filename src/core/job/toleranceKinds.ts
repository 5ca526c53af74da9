import { z } from "zod";
import { fail, ok, type Result } from "../base/result";
import { inCallout, numberText, toNumberText, type NumberText } from "../number";
import { fitDeviations, generalClasses, type GeneralClassName } from "../tables";
import { problems } from "./problems";

/** Nominal and limits of a dimension; `by` says in words where the limits come from. */
export interface Limits {
  nominal: number;
  low: number;
  high: number;
  by: string;
}

/** A printed size whose limits are asked: how its numbers are read, and what the title block and the tables give it. */
export interface PrintedSize {
  /** Its number; a tolerance that prints both limits has none. */
  nominal(): Result<number>;
  value(text: NumberText): Result<number>;
  general(nominal: number, name: GeneralClassName): Result<Limits>;
  byTitle(nominal: number): Result<Limits>;
}

const schemas = {
  plusMinus: z.strictObject({ kind: z.literal("plusMinus"), value: numberText }),
  sided: z.strictObject({ kind: z.literal("sided"), plus: numberText, minus: numberText }),
  /** Both limits as printed, the larger over the smaller. */
  limits: z.strictObject({ kind: z.literal("limits"), high: numberText, low: numberText }),
  /** One limit alone: `R.25 MAX`, `8 MIN`. */
  max: z.strictObject({ kind: z.literal("max") }),
  min: z.strictObject({ kind: z.literal("min") }),
  /** A fit of ISO 286-1 such as H7. */
  fit: z.strictObject({
    kind: z.literal("fit"),
    fit: z.string().regex(/^(?:[A-Z]{1,2}|[a-z]{1,2})(?:01|1[0-8]|[0-9])$/),
  }),
  /** A general class of ISO 2768-1 for this dimension alone. */
  general: z.strictObject({ kind: z.literal("general"), class: z.enum(generalClasses) }),
  /** Nothing printed beside it: the title block decides, by decimals or by its general class. */
  default: z.strictObject({ kind: z.literal("default") }),
};
export const toleranceSchema = z.discriminatedUnion("kind", [
  schemas.plusMinus,
  schemas.sided,
  schemas.limits,
  schemas.max,
  schemas.min,
  schemas.fit,
  schemas.general,
  schemas.default,
]);
export type Tolerance = z.infer<typeof toleranceSchema>;
type Of<K extends Tolerance["kind"]> = Extract<Tolerance, { kind: K }>;

interface ToleranceKind<T extends Tolerance> {
  /** What it is called where one is chosen. */
  label: string;
  /** How it begins, beside a printed number. */
  start(printed: NumberText): T;
  /** Its numbers, each with its name in a field. */
  numbers: { label: string; of(t: T): NumberText; with(t: T, text: NumberText): T }[];
  /** Whether its numbers are the dimension itself: nothing else is printed then. */
  isWhole?: true;
  /** As a card writes it. */
  write(t: T): string;
  limits(t: T, size: PrintedSize): Result<Limits>;
}

const open = toNumberText("?");

/** What a tolerance makes of a number: low and high. */
const about = (size: PrintedSize, limits: (nominal: number) => Result<Limits>): Result<Limits> => {
  const nominal = size.nominal();
  return nominal.ok ? limits(nominal.value) : nominal;
};
const both = (a: Result<number>, b: Result<number>, made: (a: number, b: number) => Result<Limits>): Result<Limits> =>
  !a.ok ? a : !b.ok ? b : made(a.value, b.value);
const signed = (v: NumberText, sign: "+" | "-"): string =>
  v.startsWith("-") ? `${sign === "+" ? "-" : "+"}${inCallout(v.slice(1))}` : `${sign}${inCallout(v)}`;

const plusMinus: ToleranceKind<Of<"plusMinus">> = {
  label: "±",
  start: () => ({ kind: "plusMinus", value: open }),
  numbers: [{ label: "±", of: (t) => t.value, with: (t, value) => ({ ...t, value }) }],
  write: (t) => `±${inCallout(t.value)}`,
  limits: (t, size) =>
    about(size, (nominal) => {
      const half = size.value(t.value);
      if (!half.ok) return half;
      const by = Math.abs(half.value);
      return ok({ nominal, low: nominal - by, high: nominal + by, by: "±" });
    }),
};
const sided: ToleranceKind<Of<"sided">> = {
  label: "+ and −",
  start: () => ({ kind: "sided", plus: open, minus: open }),
  numbers: [
    { label: "+", of: (t) => t.plus, with: (t, plus) => ({ ...t, plus }) },
    { label: "−", of: (t) => t.minus, with: (t, minus) => ({ ...t, minus }) },
  ],
  write: (t) =>
    Number(t.plus) < -Number(t.minus)
      ? // Turned around: in back quotes, or the next reader would put it right without a word.
        `+\`${t.plus}\` -\`${t.minus}\``
      : `${signed(t.plus, "+")} ${signed(t.minus, "-")}`,
  limits: (t, size) =>
    about(size, (nominal) =>
      both(size.value(t.plus), size.value(t.minus), (plus, minus) =>
        plus < -minus
          ? fail(problems.deviationsTurnedAround())
          : ok({ nominal, low: nominal - minus, high: nominal + plus, by: "its own" }),
      ),
    ),
};
const limits: ToleranceKind<Of<"limits">> = {
  label: "two limits",
  start: (printed) => ({ kind: "limits", high: printed, low: open }),
  numbers: [
    { label: "Largest", of: (t) => t.high, with: (t, high) => ({ ...t, high }) },
    { label: "Smallest", of: (t) => t.low, with: (t, low) => ({ ...t, low }) },
  ],
  isWhole: true,
  write: (t) => `${inCallout(t.high)} / ${inCallout(t.low)}`,
  limits: (t, size) =>
    both(size.value(t.high), size.value(t.low), (high, low) =>
      low > high ? fail(problems.limitsTurnedAround()) : ok({ nominal: (low + high) / 2, low, high, by: "limits" }),
    ),
};
const max: ToleranceKind<Of<"max">> = {
  label: "largest only (MAX)",
  start: () => ({ kind: "max" }),
  numbers: [],
  write: () => "MAX",
  limits: (_, size) =>
    about(size, (nominal) => ok({ nominal, low: Math.min(0, nominal), high: nominal, by: "a largest size" })),
};
const min: ToleranceKind<Of<"min">> = {
  label: "smallest only (MIN)",
  start: () => ({ kind: "min" }),
  numbers: [],
  write: () => "MIN",
  limits: (_, size) => about(size, (nominal) => ok({ nominal, low: nominal, high: Infinity, by: "a smallest size" })),
};
const fit: ToleranceKind<Of<"fit">> = {
  label: "fit, ISO 286",
  start: () => ({ kind: "fit", fit: "H7" }),
  numbers: [],
  write: (t) => t.fit,
  limits: (t, size) =>
    about(size, (nominal) => {
      const f = fitDeviations(nominal, t.fit);
      if (!f.ok) return f;
      const { lower, upper } = f.value;
      return ok({ nominal, low: nominal + lower, high: nominal + upper, by: `${t.fit}, ISO 286-1` });
    }),
};
const general: ToleranceKind<Of<"general">> = {
  label: "general class, ISO 2768",
  start: () => ({ kind: "general", class: "m" }),
  numbers: [],
  write: (t) => `ISO 2768-${t.class}`,
  limits: (t, size) => about(size, (nominal) => size.general(nominal, t.class)),
};
const byTitle: ToleranceKind<Of<"default">> = {
  label: "as the title block says",
  start: () => ({ kind: "default" }),
  numbers: [],
  write: () => "",
  limits: (_, size) => about(size, (nominal) => size.byTitle(nominal)),
};

const kinds: { [K in Tolerance["kind"]]: ToleranceKind<Of<K>> } = {
  default: byTitle,
  plusMinus,
  sided,
  limits,
  max,
  min,
  fit,
  general,
};

/** A kind by itself, for whoever does not care which it is. */
type AnyKind = ToleranceKind<Tolerance>;
export const toleranceKinds = kinds as Record<Tolerance["kind"], AnyKind>;
export const toleranceKindOf = (t: { kind: Tolerance["kind"] }): AnyKind => toleranceKinds[t.kind];

/** The numbers a tolerance is made of, as printed. */
export const numbersOfTolerance = (t: Tolerance): NumberText[] => toleranceKindOf(t).numbers.map((n) => n.of(t));

/** The dimension as printed where a tolerance is the whole of it; null where a number is printed beside it. */
export const wholeOf = (t: Tolerance): NumberText[] | null =>
  toleranceKindOf(t).isWhole ? numbersOfTolerance(t) : null;
