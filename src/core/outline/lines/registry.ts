import { type LengthUnit, byFigures } from "../../number";
import { z } from "zod";
import type { RowNames } from "../../grammar/grammar";
import type { Reader } from "../../grammar/reader";
import type { Result } from "../../base/result";
import type { Made } from "../chains";
import { arc } from "./arc";
import { box } from "./box";
import { breakLine } from "./break";
import { circle } from "./circle";
import { combine } from "./combine";
import { Put, type Group, type ItemNumber, type OutlineLine, type Work } from "./common";
import { corners } from "./corners";
import { dimension } from "./dimension";
import { edges } from "./edges";
import { extend } from "./extend";
import { face } from "./face";
import { fullRound } from "./fullRound";
import { line } from "./line";
import { link } from "./link";
import { mend } from "./mend";
import { mirror } from "./mirror";
import { offset } from "./offset";
import { polygon } from "./polygon";
import { rectangle } from "./rectangle";
import { relation } from "./relation";
import { repeat } from "./repeat";
import { ring } from "./ring";
import { section } from "./section";
import { shadow } from "./shadow";
import { segment } from "./segment";
import { slot } from "./slot";
import { star } from "./star";
import { start } from "./start";
import { text } from "./text";
import { trim } from "./trim";
import { use } from "./use";

/** Every kind of line, in the order they are tried and shown. */
const lines = [
  start,
  line,
  arc,
  relation,
  dimension,
  circle,
  rectangle,
  slot,
  polygon,
  star,
  ring,
  link,
  segment,
  text,
  offset,
  box,
  mirror,
  repeat,
  use,
  combine,
  face,
  edges,
  section,
  shadow,
  corners,
  fullRound,
  trim,
  extend,
  breakLine,
  mend,
] as const;

export const outlineItem = z.discriminatedUnion("item", [
  start.schema,
  line.schema,
  arc.schema,
  relation.schema,
  dimension.schema,
  circle.schema,
  rectangle.schema,
  slot.schema,
  polygon.schema,
  star.schema,
  ring.schema,
  link.schema,
  segment.schema,
  text.schema,
  offset.schema,
  box.schema,
  mirror.schema,
  repeat.schema,
  use.schema,
  combine.schema,
  face.schema,
  edges.schema,
  section.schema,
  shadow.schema,
  corners.schema,
  fullRound.schema,
  trim.schema,
  extend.schema,
  breakLine.schema,
  mend.schema,
]);
export type OutlineItem = z.infer<typeof outlineItem>;

// A kind is looked up by the name its own schema takes: what it is given is what it made.
const every = lines as readonly OutlineLine<OutlineItem>[];
const byItem = new Map(
  lines.flatMap((kind, i) => {
    const { item } = kind.schema.shape;
    const names: readonly string[] = "options" in item ? item.options : [item.value];
    return names.map((name) => [name, every[i]] as const);
  }),
);
const kindOf = (i: OutlineItem): OutlineLine<OutlineItem> => byItem.get(i.item)!;

/** One line of an outline's block. @throws CalloutError with the column */
export function readOutlineItem(r: Reader, names: RowNames): OutlineItem {
  for (const kind of every) {
    const read = kind.read(r, names);
    if (read) return read;
  }
  return r.fail(
    `${every.map((k) => k.words).join(", ")} or END`,
    r.here ? `${JSON.stringify(r.here)} starts no line of an outline` : undefined,
  );
}

/** One line of an outline's block, canonical; every number as it was typed. */
export const writeOutlineItem = (i: OutlineItem, names: RowNames): string => kindOf(i).write(i, names);

/** Every number of a line. */
export function numbersOfItem(i: OutlineItem): ItemNumber[] {
  const put = new Put();
  kindOf(i).numbers(i, put);
  return put.found;
}

/** A line that is not part of the walk, on what stands so far. Null where there is nothing to do. */
export const applyItem = (i: OutlineItem, work: Work): Result<Made> | null => kindOf(i).apply?.(i, work) ?? null;

/** Names of the outlines a line is made with. */
export function outlinesUsed(i: OutlineItem): string[] {
  const { uses } = kindOf(i);
  const name = uses && (i as { outline?: string; against?: string })[uses];
  return name === undefined ? [] : [name];
}

/** Gives a line another name for an outline it is made with. */
export function renamedIn(i: OutlineItem, same: (name: string) => boolean, name: string): void {
  const { uses } = kindOf(i);
  if (uses && outlinesUsed(i).some(same)) (i as { outline?: string; against?: string })[uses] = name;
}

/** Whether a line is one of those that are solved together: the walk with what is asked of it. */
export const isWalked = (i: OutlineItem): boolean => kindOf(i).apply === undefined;

/** Lines to start from, in a job's unit, by what they are for; what stands there is read as it is typed. */
export const outlineForms = (unit: LengthUnit): { group: Group; lines: { text: string; what: string }[] }[] =>
  [...new Set(lines.map((k) => k.group))].map((group) => ({
    group,
    lines: lines
      .filter((k) => k.group === group)
      .flatMap((k) => k.examples)
      .map(({ text, inch, what }) => ({ text: byFigures(unit, { mm: text, in: inch ?? text }), what })),
  }));
