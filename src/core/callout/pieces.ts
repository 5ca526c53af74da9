import { CalloutError, Reader } from "../grammar/reader";
import type { Draft, Part, RowNames } from "../grammar/grammar";
import { fail, ok, type Result } from "../base/result";
import type { NamedPlane, PlaneRef } from "../rows";
import { edgesPart, type EdgeText } from "../rows/edges";
import { readPlane } from "../rows/planeRef";
import { readPlaneMaking, writeNamedPlane } from "../rows/namedPlane";
import { rowsPart } from "../rows/rowRange";

/** Reads a piece of a line by itself, as it is typed in a field of its own. */
function piece<T>(text: string, named: ReadonlySet<string>, read: (r: Reader) => T): Result<T> {
  const r = new Reader(text.trim(), named);
  try {
    const value = read(r);
    if (!r.done) r.fail("nothing more");
    return ok(value);
  } catch (e) {
    if (!(e instanceof CalloutError)) throw e;
    return fail({ message: e.message, expected: e.expected }, { at: e.at });
  }
}
const part =
  <T>(of: Part, key: string, names: RowNames) =>
  (r: Reader): T => {
    const row: Draft = {};
    of.read(r, row, names);
    return row[key];
  };

/** `TOP`, `FLOOR OF 3`, `SIDE 2 OF 1`, `PLANE "a"`. */
export const readPlaneText = (text: string, names: RowNames): Result<PlaneRef> =>
  piece(text, new Set(), (r) => readPlane(r, names));
/** `OUTER TOP, MOUTH OF 2`. */
export const readEdgesText = (text: string, names: RowNames, named: ReadonlySet<string>): Result<EdgeText[]> =>
  piece(text, named, part<EdgeText[]>(edgesPart, "edges", names));
/** `2, 4-6`. */
export const readRowsText = (text: string, names: RowNames): Result<string[]> =>
  piece(text, new Set(), part<string[]>(rowsPart, "rows", names));
/** `OFFSET 5 FROM TOP`. */
export const readMakingText = (
  text: string,
  names: RowNames,
  named: ReadonlySet<string>,
): Result<NamedPlane["making"]> => piece(text, named, (r) => readPlaneMaking(r, names));
/** A plane's line without its name. */
export const makingText = (plane: NamedPlane, names: RowNames): string =>
  writeNamedPlane({ ...plane, name: "" }, names).replace(/^PLANE ""\s*/, "");
export const edgesText = (edges: EdgeText[], names: RowNames): string => edgesPart.write({ edges }, names);
export const rowsText = (rows: string[], names: RowNames): string => rowsPart.write({ rows }, names);
