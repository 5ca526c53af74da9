import { problems } from "../problems";
import { fail, ok, type Result } from "../../base/result";
import { readCard, writeDocument } from "../../callout";
import type { JobDocument, Part } from "../../job/schema";
import type { DerivedFixture } from "./common";

/**
 * What an assistant wrote, as a part of the document: its lines are read as those of a card.
 * @param prefix what its ids begin with, so that they are nobody else's
 */
export function asPart(document: JobDocument, made: DerivedFixture, prefix: string): Result<Part> {
  const text = `${writeDocument({ ...document, setups: made.setups })}${made.lines.join("\n")}\n`;
  const read = readCard(text);
  if (read.errors.length) {
    const [e] = read.errors;
    return fail(problems.writtenFault(made.name, e.message), { expected: e.expected });
  }
  const part = read.document.parts.find((p) => p.name === made.name);
  if (!part) return fail(problems.notWritten(made.name));
  const own = new Set([...part.rows, ...part.outlines, ...(part.planes ?? [])].map((x) => x.id));
  return ok({ ...(renamed(part, own, prefix) as Part), id: prefix });
}

/** The same with every id of its own begun anew. */
function renamed(value: unknown, own: Set<string>, prefix: string): unknown {
  if (typeof value === "string") return own.has(value) ? `${prefix}${value}` : value;
  if (Array.isArray(value)) return value.map((v) => renamed(v, own, prefix));
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, renamed(v, own, prefix)]));
}
