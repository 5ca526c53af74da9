import { problems } from "./problems";
import { problemIn, saidLength } from "./said";
import { fail, ok, type Problem, type Result } from "../base/result";
import { NumberSyntaxError, readExpression, type Node } from "./syntax";
import { unitOf, type LengthUnit } from "./unit";

/** Where a number comes from: the print, a published table, the machinist's own choice, or nobody yet. */
type Source = "print" | "standard" | "shop" | "unsourced";

/** What a number stands for; it settles unit, sign and size limits. */
export type Quantity = "length" | "coordinate" | "offset" | "angle" | "includedAngle" | "count" | "plain";

/**
 * What a name or a balloon is worth, in the unit of the job (degrees for an angle). A named value brings its own
 * source.
 */
export interface NumberScope {
  unit: LengthUnit;
  balloon(number: number): Result<number>;
  name?(name: string): Result<NumberValue>;
}

export interface NumberValue {
  /** Value in the job's unit, or degrees, or a plain count: what a person reads. */
  typed: number;
  /** Value used inside: millimetres, radians, or a plain number. */
  value: number;
  source: Source;
  /** Balloons it cites, in the order read, through named values too. */
  cites: number[];
  /** Named values it is made of, directly, in lower case. */
  named: string[];
  /** The row of a published table it was taken from: `{tap drill of M4}` after the number. */
  cited?: string;
}

/** Marks a number as the machinist's own choice: `.125!` has a source, `.125` has none yet. */
export const CHOSEN = "!";
/** The table a number was taken from, in braces after it: `3.3{tap drill of M4}`. */
export const CITED = /\{([^{}]*)\}$/;
/** Stands for a number that nobody has given yet. */
export const UNKNOWN = "?";

const degrees = Math.PI / 180;
const calls: Record<string, (...a: number[]) => number> = {
  sqrt: Math.sqrt,
  abs: Math.abs,
  min: Math.min,
  max: Math.max,
  sin: (a) => Math.sin(a * degrees),
  cos: (a) => Math.cos(a * degrees),
  tan: (a) => Math.tan(a * degrees),
  asin: (a) => Math.asin(a) / degrees,
  acos: (a) => Math.acos(a) / degrees,
  atan: (a) => Math.atan(a) / degrees,
  atan2: (a, b) => Math.atan2(a, b) / degrees,
};

/** Limits of what a workshop machine could ever hold: they keep the solid kernel inside its tolerances. */
export const limits = { longest: 100_000, shortest: 0.001, count: 5000 };

/**
 * Value, source and citations of a number text.
 * @param text as typed, e.g. `1-1/2`, `#4/2`, `12.5mm`, `.125!`
 * @returns value in millimetres, radians or plain, or a problem with the offset at fault
 */
export function evaluateNumber(text: string, quantity: Quantity, scope: NumberScope): Result<NumberValue> {
  const trimmed = text.trim();
  if (trimmed === "" || trimmed === UNKNOWN) return fail(problems.noValueYet(), { at: 0 });
  const chosen = trimmed.endsWith(CHOSEN);
  const table = CITED.exec(trimmed);
  const body = chosen ? trimmed.slice(0, -1) : table ? trimmed.slice(0, table.index) : trimmed;
  const lead = text.length - text.trimStart().length;
  let node: Node;
  try {
    const read = readExpression(body, 0, true);
    const rest = body.slice(read.end);
    if (rest.trim() === "°" && (quantity === "angle" || quantity === "includedAngle")) node = read.node;
    else if (rest.trim() !== "")
      return fail(problems.notOfTheNumber(JSON.stringify(rest.trim())), {
        at: lead + read.end + (rest.length - rest.trimStart().length),
      });
    else node = read.node;
  } catch (e) {
    if (e instanceof NumberSyntaxError) return { ok: false, problems: [{ ...e.problem, at: lead + e.problem.at }] };
    throw e;
  }
  const cites: number[] = [];
  const names: Source[] = [];
  const named: string[] = [];
  const walked = walk(node, scope, { cites, names, named }, quantity);
  if (!walked.ok) return walked;
  const typed = walked.value;
  if (!Number.isFinite(typed)) return fail(problems.notFinite(), { at: lead });
  const checked = check(typed, quantity, scope.unit);
  if (checked) return { ok: false, problems: [{ ...checked, at: lead }] };
  const source: Source =
    names.includes("unsourced") && !chosen
      ? "unsourced"
      : cites.length
        ? "print"
        : table
          ? "standard"
          : chosen
            ? "shop"
            : (names[0] ?? "unsourced");
  return ok({
    typed,
    value: toInside(typed, quantity, scope.unit),
    source,
    cites,
    named,
    ...(table ? { cited: table[1].trim() } : {}),
  });
}

/** From what a person reads to what is used inside: millimetres, radians, plain. */
export function toInside(typed: number, quantity: Quantity, unit: LengthUnit): number {
  if (quantity === "angle" || quantity === "includedAngle") return typed * degrees;
  if (quantity === "count" || quantity === "plain") return typed;
  return typed * unitOf[unit].mm;
}

/** The other way round: from mm and radians to what a person reads. */
export function fromInside(value: number, quantity: Quantity, unit: LengthUnit): number {
  if (quantity === "angle" || quantity === "includedAngle") return value / degrees;
  if (quantity === "count" || quantity === "plain") return value;
  return value / unitOf[unit].mm;
}

function check(typed: number, quantity: Quantity, unit: LengthUnit): Problem | null {
  const mm = typed * unitOf[unit].mm;
  switch (quantity) {
    case "length":
      if (typed <= 0) return problems.mustBePositive();
      if (mm < limits.shortest) return problemIn(problems.tooSmall(saidLength(limits.shortest)), unit);
      if (mm > limits.longest) return problemIn(problems.tooLarge(saidLength(limits.longest)), unit);
      return null;
    case "offset":
      if (typed < 0) return problems.mustNotBeNegative();
      if (mm > limits.longest) return problemIn(problems.tooLarge(saidLength(limits.longest)), unit);
      return null;
    case "coordinate":
      return Math.abs(mm) > limits.longest ? problemIn(problems.tooFar(saidLength(limits.longest)), unit) : null;
    case "includedAngle":
      return typed <= 0 || typed >= 180 ? problems.includedAngle() : null;
    case "angle":
      return Math.abs(typed) > 3600 ? problems.tooManyTurns() : null;
    case "count":
      if (!Number.isInteger(typed) || typed < 1) return problems.notACount();
      if (typed > limits.count) return problems.countTooLarge(limits.count);
      return null;
    case "plain":
      return null;
  }
}

/** What a number leans on, gathered on the way: balloons, named values and their sources. */
interface Seen {
  cites: number[];
  names: Source[];
  named: string[];
}

function walk(node: Node, scope: NumberScope, seen: Seen, quantity: Quantity): Result<number> {
  const { cites } = seen;
  const isLength = quantity === "length" || quantity === "coordinate" || quantity === "offset";
  switch (node.kind) {
    case "literal":
    case "unit": {
      const inner = node.kind === "literal" ? ok(node.value) : walk(node.of, scope, seen, quantity);
      if (!inner.ok || !node.unit) return inner;
      if (node.unit === "dms")
        return quantity === "angle" || quantity === "includedAngle" || quantity === "plain"
          ? inner
          : fail(problems.onlyAnAngle(), { at: node.at });
      if (!isLength && quantity !== "plain")
        return fail(problems.unitOutOfPlace(node.unit), {
          at: node.at,
          expected: quantity === "count" ? "a whole number" : "degrees",
        });
      if (node.unit === scope.unit) return inner;
      return ok((inner.value * unitOf[node.unit].mm) / unitOf[scope.unit].mm);
    }
    case "balloon": {
      if (!cites.includes(node.number)) cites.push(node.number);
      const r = scope.balloon(node.number);
      return r.ok ? r : { ok: false, problems: r.problems.map((p) => ({ ...p, at: node.at })) };
    }
    case "name": {
      const r = scope.name?.(node.name) ?? fail(problems.unknownName(node.name));
      if (!r.ok) return { ok: false, problems: r.problems.map((p) => ({ ...p, at: node.at })) };
      seen.names.push(r.value.source);
      seen.named.push(node.name.toLowerCase());
      for (const n of r.value.cites) if (!cites.includes(n)) cites.push(n);
      return ok(r.value.typed);
    }
    case "unary": {
      const r = walk(node.of, scope, seen, quantity);
      return r.ok ? ok(node.operator === "-" ? -r.value : r.value) : r;
    }
    case "call":
      return call(node, scope, seen, quantity);
    case "binary":
      return binary(node, scope, seen, quantity);
  }
}

type Of<K extends Node["kind"]> = Extract<Node, { kind: K }>;

function call(node: Of<"call">, scope: NumberScope, seen: Seen, quantity: Quantity): Result<number> {
  const args: number[] = [];
  for (const a of node.args) {
    const r = walk(a, scope, seen, quantity === "count" ? "count" : "plain");
    if (!r.ok) return r;
    args.push(r.value);
  }
  const value = calls[node.name](...args);
  return Number.isFinite(value) ? ok(value) : fail(problems.nameWithoutValue(node.name), { at: node.at });
}

function binary(node: Of<"binary">, scope: NumberScope, seen: Seen, quantity: Quantity): Result<number> {
  const l = walk(node.left, scope, seen, quantity);
  if (!l.ok) return l;
  const r = walk(node.right, scope, seen, quantity);
  if (!r.ok) return r;
  if (node.operator === "/" && r.value === 0) return fail(problems.divisionByZero(), { at: node.at });
  const value = operate(node.operator, l.value, r.value);
  if (!Number.isFinite(value)) return fail(problems.noNumber(), { at: node.at });
  return ok(value);
}

function operate(operator: "+" | "-" | "*" | "/" | "^", a: number, b: number): number {
  switch (operator) {
    case "+":
      return a + b;
    case "-":
      return a - b;
    case "*":
      return a * b;
    case "/":
      return a / b;
    case "^":
      return a ** b;
  }
}
