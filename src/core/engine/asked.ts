import { problems } from "./problems";
import type { NumberScope, NumberValue } from "../number";
import { fail, type Result } from "../base/result";

/** What was asked of a scope and what it answered: whoever asks the same again and is told the same need not work anew. */
export type Asked = Map<string, string>;

const answerOf = (r: Result<unknown>): string => JSON.stringify(r);

const nameIn = (scope: NumberScope, word: string): Result<NumberValue> =>
  scope.name?.(word) ?? fail(problems.unknownName(word));

/** A scope that writes down what it is asked. */
export function noting(scope: NumberScope): { scope: NumberScope; asked: Asked } {
  const asked: Asked = new Map();
  return {
    asked,
    scope: {
      unit: scope.unit,
      balloon(n) {
        const r = scope.balloon(n);
        asked.set(`#${n}`, answerOf(r));
        return r;
      },
      name(word) {
        const r = nameIn(scope, word);
        asked.set(word, answerOf(r));
        return r;
      },
    },
  };
}

/** Whether a scope would answer everything as it was answered before. */
export function stillAnswers(asked: Asked, scope: NumberScope): boolean {
  for (const [question, answer] of asked) {
    const now = question.startsWith("#") ? scope.balloon(Number(question.slice(1))) : nameIn(scope, question);
    if (answerOf(now) !== answer) return false;
  }
  return true;
}
