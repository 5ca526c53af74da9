import { keyOf } from "../../base/key";
import type { Fix } from "../../findings/finding";
import { asPart } from "../derive/asPart";
import { freeName } from "../derive/common";
import type { CheckContext } from "../finding";

/**
 * A fix that puts rows into the part that holds: lines of a card, read as such.
 * @param holder id of the part
 * @returns null where the lines cannot be read there
 */
export function addedRows(c: CheckContext, holder: string, label: string, lines: string[]): Fix | null {
  const { document } = c;
  const name = freeName(document, "added rows");
  const made = { name, lines: [`PART "${name}" PLATE`, ...lines], setups: document.setups };
  const read = asPart(document, made, `${keyOf(null, [holder, lines]).slice(0, 12)}-`);
  if (!read.ok) return null;
  const { outlines, rows } = read.value;
  return {
    label,
    edits: [
      {
        edit: "ofPart",
        part: holder,
        edits: [...(outlines.length ? [{ edit: "addOutlines" as const, outlines }] : []), { edit: "addRows", rows }],
      },
    ],
  };
}
