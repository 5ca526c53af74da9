import type { Reader } from "../../grammar/reader";
import { readPoint, readSome, writeSome, writeXY, type Some, type XY } from "./common";

/** What a line and an arc of the walk have in common: where it goes, how it goes on, where it is to come out. */
export interface Step {
  to?: Some;
  by?: Some;
  tangent?: true;
  close?: true;
  near?: XY;
}
/** A word of a step, and what is read after it. */
type Words = Record<string, (s: Record<string, unknown>) => void>;

/** Reads the values of a step in any order, each once. */
export function readStep<T>(r: Reader, step: Record<string, unknown>, own: Words, expected: string): T {
  const once = (key: string, word: string, read: () => unknown) => {
    if (step[key] !== undefined) r.fail("each value once", `${word} is given twice`, r.pos - word.length);
    step[key] = read();
  };
  const common: Words = {
    TO: () => once("to", "TO", () => readSome(r, "to")),
    BY: () => once("by", "BY", () => readSome(r, "by")),
    TANGENT: (s) => void (s.tangent = true),
    CLOSE: (s) => void (s.close = true),
    NEAR: () => once("near", "NEAR", () => readPoint(r, "near")),
  };
  while (!r.done) {
    const word = r.takeOne(Object.keys({ ...common, ...own }));
    if (word === null) r.fail(expected);
    else if (common[word]) common[word](step);
    else own[word](step);
  }
  return step as T;
}
export function onceIn(r: Reader, key: string, word: string, read: () => unknown) {
  return (s: Record<string, unknown>): void => {
    if (s[key] !== undefined) r.fail("each value once", `${word} is given twice`, r.pos - word.length);
    s[key] = read();
  };
}

/** The words of a step: where it goes, its own, how it goes on. */
export const writeStep = (s: Step, own: string[]): string[] =>
  [
    s.to ? `TO ${writeSome(s.to)}` : "",
    s.by ? `BY ${writeSome(s.by)}` : "",
    ...own,
    s.tangent ? "TANGENT" : "",
    s.near ? `NEAR ${writeXY(s.near)}` : "",
    s.close ? "CLOSE" : "",
  ].filter(Boolean);
