import type { BodyStep } from "@/core/engine/kernel";
import type { Tagged } from "../bodies";
import type { Library } from "../library";
import { scope } from "../oc";
import { facesOf } from "../topology";
import type { Host, Inserted } from "./insert";
import { inTurn, putJoined } from "./joined";

/** Engraved grooves put in one by one, the largest first: what lies on another's island comes after it. */
export function insertGrooves(library: Library, host: Host, step: BodyStep): Inserted | null {
  const depth = step.body.body === "vee" ? step.body.depth : 0;
  const tools = library.grooves.toolsOf(step);
  const sized = tools.map((tool) => ({ tool, size: sizeOf(library, tool) }));
  sized.sort((a, b) => b.size - a.size);
  return inTurn(
    host,
    sized.map(
      ({ tool }) =>
        (at: Host) =>
          putJoined(library, at, step, tool, { depth, out: null }),
    ),
  );
}

function sizeOf(library: Library, tool: Tagged): number {
  const box = scope((own) => {
    const faces = facesOf(library.oc, tool.shape).map((f) => own(f));
    return faces.map((f) => library.faces.box(f));
  });
  const spread = (axis: "x" | "y" | "z") =>
    Math.max(...box.map((b) => b.max[axis])) - Math.min(...box.map((b) => b.min[axis]));
  return Math.hypot(spread("x"), spread("y"), spread("z"));
}
