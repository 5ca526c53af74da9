import type { NumberReport } from "../engine/numbers";
import { getPath, setPath, type RowNames } from "../grammar/grammar";
import type { Job, Row } from "../job/schema";
import { balloonAlone, citedIn, lengthText, unitOf, type LengthUnit, type Quantity } from "../number";
import { writeRowBody } from "../rows";
import { wholeOf } from "../job/toleranceKinds";

/** A stretch of a callout as it is read: words, or the value of a number with the balloons it is made of. */
export interface CalloutPiece {
  text: string;
  balloons: number[];
  /** The number as it was typed, where its value stands instead. */
  typed?: string;
}

/** A row as a print would give it: values instead of balloons, which stand small beside them. */
export function rowValues(
  row: Row,
  numbers: readonly NumberReport[],
  job: Pick<Job, "balloons" | "unit">,
  names: RowNames,
): CalloutPiece[] {
  const body = structuredClone(row.body);
  const shown = numbers.filter((n) => getPath(body, n.path) !== undefined);
  // A sign no number has is written in back quotes, and so found again.
  shown.forEach((n, i) => setPath(body, n.path, `§${i}`));
  const words = writeRowBody(body, names).replace(/^\S+ /, "").split("`");
  return words.flatMap((word): CalloutPiece[] => {
    const number = /^§(\d+)$/.exec(word);
    if (number) return [pieceOf(shown[Number(number[1])], job)];
    return word ? [{ text: word, balloons: [] }] : [];
  });
}

function pieceOf(n: NumberReport, { balloons, unit }: Pick<Job, "balloons" | "unit">): CalloutPiece {
  const cites = n.value?.cites ?? [];
  const bare = n.text.replace(/!$|\{[^{}]*\}$/, "");
  // A count may be the print's by agreement: it is typed all the same.
  const isMade = citedIn(bare).length > 0 || (n.value?.named.length ?? 0) > 0;
  if (!n.value || !isMade) return { text: bare, balloons: [] };
  const alone = balloonAlone(bare);
  const balloon = balloons.find((b) => b.number === alone);
  // A balloon alone is shown as it is printed.
  const printed = balloon && !wholeOf(balloon.tolerance) && !balloon.middle ? printedOf(balloon) : null;
  return { text: printed ?? valueText(n.value.typed, n.quantity, unit), balloons: cites, typed: bare };
}

const printedOf = (b: Job["balloons"][number]): string | null => {
  const text = b.kind === "count" ? b.count : b.value;
  return text !== undefined && /^[\d.\-/]+$/.test(text) ? text : null;
};

const valueText = (typed: number, quantity: Quantity, unit: LengthUnit): string => {
  const isLength = quantity === "length" || quantity === "coordinate" || quantity === "offset";
  return isLength ? lengthText(typed * unitOf[unit].mm, unit) : String(Number(typed.toFixed(4)));
};
