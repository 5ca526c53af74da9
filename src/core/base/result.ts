/** `circle`: a number that rests on itself. */
export type ProblemCode = "circle";

/** Something the user can act on: what is wrong, where, what was expected, and how it can be put right. */
export interface Problem {
  message: string;
  /** What kind of problem it is, where something is decided by that: nobody decides by the sentence. */
  code?: ProblemCode;
  /** The balloon the sentence is about and names itself, `#3`. */
  about?: string;
  /** What would have been right, in the words of a card. */
  expected?: string;
  /** Character offset in the text at fault, 0-based. */
  at?: number;
  /** Field of a row at fault, as a path such as `cbore.diameter`. */
  path?: string;
}

/** Failure is a value across every boundary; exceptions are for bugs. */
export type Result<T, P = Problem> = { ok: true; value: T } | { ok: false; problems: P[] };

export const ok = <T>(value: T): { ok: true; value: T } => ({ ok: true, value });
export const fail = (message: string, more: Omit<Problem, "message"> = {}): { ok: false; problems: Problem[] } => ({
  ok: false,
  problems: [{ message, ...more }],
});
