import { v2, v3, type Frame } from "@/core/geometry/vec";
import { rectangleCorners, roundedLoop } from "@/core/outline";
import type { SolidKernel } from "@/core/engine/kernel";

/** Does a throw-away part: the first booleans after loading are several times slower than warm ones. */
export function warmUp(kernel: SolidKernel): void {
  const frame: Frame = { origin: v3(0, 0, 0), x: v3(1, 0, 0), y: v3(0, 1, 0), normal: v3(0, 0, 1) };
  const outer = roundedLoop(rectangleCorners(20, 20), 0)!;
  kernel.apply("warm-1", null, {
    op: "leave",
    row: "warm",
    frame,
    body: { body: "prism", outline: { outer, holes: [] }, from: 0, to: -10 },
    places: [v2(0, 0)],
  });
  const profile = [
    { r: 2, z: 0 },
    { r: 2, z: 5 },
    { r: 0, z: 6 },
  ];
  // One hole runs out of the side, so that a boolean is done.
  kernel.apply("warm-2", "warm-1", {
    op: "cut",
    row: "warm",
    frame: { ...frame, origin: v3(0, 0, 10) },
    body: { body: "revolved", profile },
    places: [v2(0, 0), v2(9, 5)],
  });
  kernel.mesh("warm-2");
}
