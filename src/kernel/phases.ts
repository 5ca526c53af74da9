import type { Box } from "@/core/geometry/vec";
import { CONTACT } from "@/core/geometry/tolerance";

/** What is added or taken, and the box it lies in. */
export interface Put {
  op: "leave" | "cut";
  box: Box;
}

/**
 * What is put in one after the other, in as few goes as give the same: a cut and a body may change places where their
 * boxes are apart, cuts among themselves and bodies among themselves always.
 * @returns the numbers of what goes in together, in the order of their goes
 */
export function phasesOf(puts: Put[]): number[][] {
  const phases: { op: Put["op"]; members: number[] }[] = [];
  puts.forEach((put, i) => {
    let at = phases.length;
    for (let k = phases.length - 1; k >= 0; k--) {
      if (phases[k].op === put.op) at = k;
      else if (phases[k].members.some((m) => boxesMeet(puts[m].box, put.box))) break;
    }
    if (at === phases.length) phases.push({ op: put.op, members: [i] });
    else phases[at].members.push(i);
  });
  return phases.map((p) => p.members);
}

/**
 * Boxes in as few rounds as there are boxes over one another, those of a round apart: the library takes ten times as
 * long for tools that cut through each other at once as for one after the other, and a tenth for those that are apart.
 */
export function roundsOf(boxes: Box[]): number[][] {
  const rounds: number[][] = [];
  boxes.forEach((box, i) => {
    const free = rounds.find((round) => !round.some((other) => boxesMeet(boxes[other], box)));
    if (free) free.push(i);
    else rounds.push([i]);
  });
  return rounds;
}

const boxesMeet = (a: Box, b: Box): boolean =>
  (["x", "y", "z"] as const).every(
    (axis) => a.min[axis] <= b.max[axis] + CONTACT && b.min[axis] <= a.max[axis] + CONTACT,
  );
