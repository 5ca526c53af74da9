import { dot, sideFrame, sideNormal, type Frame } from "../geometry/vec";
import { loopsOfEdges, type PartItem } from "../outline/fromPart";
import type { Region } from "../outline/boolean";
import { fail, type Result } from "../base/result";
import { edgesByMeaning } from "./edgesByMeaning";
import type { SolidKernel } from "./kernel";
import { sideOffset } from "./planes";
import type { SolvedRow } from "./solve";
import { CONTACT, PARALLEL } from "../geometry/tolerance";

/**
 * Loops an outline takes from the part as it stands after a row: a flat side, the floor a row left, a section. Exact
 * lines and arcs.
 * @param rows the rows done so far
 */
export function shapeOfPart(
  want: PartItem,
  kernel: SolidKernel,
  rows: SolvedRow[],
  nameOf: (id: string) => string,
): Result<Region> {
  const row = rows.find((r) => r.row.id === want.row);
  if (!row)
    return fail(`${nameOf(want.row)} is no row before the one made from this outline`, {
      expected: "the number of an earlier row",
    });
  if (!row.key || row.state !== "ok")
    return fail(`${nameOf(want.row)} is not there`, { expected: "a row that is on and can be made" });
  if (want.item === "section") {
    const frame =
      want.axis === "X"
        ? sideFrame("right", want.at)
        : want.axis === "Y"
          ? sideFrame("front", -want.at)
          : sideFrame("top", want.at);
    return loopsOfEdges(kernel.sectionEdges(row.key, frame.origin, frame.normal), frame);
  }
  if (want.item === "edges") {
    const own = want.edges === "mouthOf" || want.edges === "floorOf";
    const earlier = new Map(rows.flatMap((r) => (r.planes ? [[r.row.id, r.planes] as const] : [])));
    const found = edgesByMeaning(
      [own ? { edge: want.edges as "mouthOf", row: want.row } : { edge: want.edges as "outerTop" }],
      kernel,
      row.key,
      earlier,
      nameOf,
    );
    if (!found.ok) return found;
    const side = want.edges === "outerBottom" ? "bottom" : "top";
    const frame =
      want.edges === "mouthOf"
        ? row.planes?.start
        : want.edges === "floorOf"
          ? row.planes?.floor
          : sideFrame(side, sideOffset(kernel, row.key, side).offset);
    const all = kernel.edges(row.key);
    return frame
      ? loopsOfEdges(
          found.value.map((f) => all[f.edge]),
          frame,
        )
      : fail("there is no plane there", { expected: "a row with a flat mouth or floor" });
  }
  const faces = kernel.faces(row.key);
  let frame: Frame | null, chosen: number[];
  if (want.face === "floor") {
    frame = row.planes?.floor ?? null;
    chosen = faces.flatMap((f, i) =>
      f.surface === "plane" && f.tag?.row === want.row && f.tag.role === "floor" ? [i] : [],
    );
  } else {
    const n = sideNormal(want.face),
      looking = faces.flatMap((f, i) =>
        f.surface === "plane" && dot(f.normal, n) > PARALLEL ? [{ i, at: dot(f.point, n) }] : [],
      );
    const far = Math.max(...looking.map((f) => f.at));
    frame = looking.length ? sideFrame(want.face, far) : null;
    chosen = looking.filter((f) => f.at > far - CONTACT).map((f) => f.i);
  }
  if (!frame || !chosen.length)
    return fail(`there is no flat ${want.face} after ${nameOf(want.row)}`, { expected: "a flat face" });
  const among = new Set(chosen);
  return loopsOfEdges(
    kernel.edges(row.key).filter((e) => e.length > 0 && among.has(e.faces[0]) !== among.has(e.faces[1])),
    frame,
  );
}
