/** Something the user can act on: what is wrong, where, what was expected, and how it can be put right. */
export interface Problem {
  message: string;
  /** Which problem of which folder it is, `engine.noShaft`: nobody decides by the sentence. */
  code?: string;
  /** What it is about: what its sentence was made of. */
  args?: readonly unknown[];
  /** The balloon the sentence is about and names itself, `#3`. */
  about?: string;
  /** What would have been right, in the words of a card. */
  expected?: string;
  /** Character offset in the text at fault, 0-based. */
  at?: number;
  /** Field of a row at fault, as a path such as `cbore.diameter`. */
  path?: string;
  /** The same place in a document, step by step. */
  place?: PropertyKey[];
}

/** Failure is a value across every boundary; exceptions are for bugs. */
export type Result<T, P = Problem> = { ok: true; value: T } | { ok: false; problems: P[] };

export const ok = <T>(value: T): { ok: true; value: T } => ({ ok: true, value });
export const fail = (problem: Said, more: Omit<Problem, "message"> = {}): { ok: false; problems: Problem[] } => ({
  ok: false,
  problems: [{ ...problem, ...more }],
});

/** A problem's words, and under which code they stand. */
export type Said = Pick<Problem, "message" | "expected" | "code" | "args">;

type Coded<T> = { [K in keyof T]: T[K] extends (...about: infer A) => Said ? (...about: A) => Said : never };

/**
 * The problems of a folder, each under its code with the words it is said in.
 * @returns the same functions; what they give carries its code and what it is about
 */
export function problemsOf<T extends Record<string, (...about: never[]) => Said>>(folder: string, words: T): Coded<T> {
  const coded = Object.entries(words).map(([name, say]) => [
    name,
    (...about: never[]): Said => ({
      ...say(...about),
      code: `${folder}.${name}`,
      ...(about.length && { args: about }),
    }),
  ]);
  return Object.fromEntries(coded) as Coded<T>;
}
