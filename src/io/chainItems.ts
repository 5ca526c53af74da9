import { inUnit, type LengthUnit, type NumberText, saidPlace, unitOf } from "@/core/number";
import { distance2, type Vec2 } from "@/core/geometry/vec";
import type { OutlineItem } from "@/core/outline/items";
import { endToEnd } from "@/core/outline/ends";
import { endOf, segmentLength, startOf, type Arc, type Segment } from "@/core/outline";
import { CONTACT } from "@/core/geometry/tolerance";

/** Ends this near to one another are joined, mm. */
export const JOIN = 1e-4;

/** A chain out of a file: its layer, its steps as an outline's lines, and where it is open. */
export interface ReadChain {
  layer: string;
  items: OutlineItem[];
  closed: boolean;
  gap: { from: Vec2; to: Vec2; width: number } | null;
  length: number;
}
/** What a file of lines holds, before anything is chosen. Millimetres. */
export interface ReadFile {
  /** The unit the file says it is in; null where it says none. */
  said: LengthUnit | "other" | null;
  layers: { name: string; elements: number }[];
  chains: ReadChain[];
  /** What is wrong or left out, with the line of the file where there is one. */
  problems: string[];
}

/** Segments of one layer as chains, joined where their ends meet. */
export function chainsOfLayer(layer: string, segments: Segment[], unit: LengthUnit): ReadChain[] {
  const n = (mm: number): NumberText => {
    const v = mm / unitOf[unit].mm;
    return (Math.abs(v) < 5e-11 ? "0" : v.toFixed(10).replace(/\.?0+$/, "")) as NumberText;
  };
  const xy = (p: Vec2) => ({ x: n(p.x), y: n(p.y) });
  return endToEnd(
    segments.filter((s) => segmentLength(s) > JOIN / 10),
    JOIN,
  ).map((c): ReadChain => {
    const from = startOf(c[0]),
      to = endOf(c[c.length - 1]),
      width = distance2(from, to),
      closed = width < JOIN;
    const base = {
      layer,
      closed,
      gap: closed ? null : { from, to, width },
      length: c.reduce((sum, s) => sum + segmentLength(s), 0),
    };
    const only = wholeCircle(c);
    if (only) return { ...base, items: [{ item: "circle", diameter: n(2 * only.radius), at: xy(only.centre) }] };
    const items: OutlineItem[] = [{ item: "start", at: xy(from) }];
    c.forEach((s, j) => {
      const last = closed && j === c.length - 1;
      if (s.kind === "line") items.push({ item: "line", ...(last ? { close: true as const } : { to: xy(s.to) }) });
      else
        items.push({
          item: "arc",
          ...(last ? { close: true as const } : { to: xy(endOf(s)) }),
          centre: xy(s.centre),
          side: s.sweep > 0 ? "ccw" : "cw",
        });
    });
    return { ...base, items };
  });
}

/** The circle that a chain of arcs goes round once; null where it is anything else. */
function wholeCircle(c: Segment[]): Arc | null {
  const [first] = c;
  if (first.kind !== "arc") return null;
  const same = c.every(
    (s) =>
      s.kind === "arc" &&
      distance2(s.centre, first.centre) < JOIN / 10 &&
      Math.abs(s.radius - first.radius) < JOIN / 10,
  );
  return same && Math.abs(Math.abs(c.reduce((sum, s) => sum + (s as Arc).sweep, 0)) - 2 * Math.PI) < CONTACT
    ? first
    : null;
}

/**
 * The chosen chains as outlines, one a chain, named by their layers.
 * @param mend gaps up to this width are closed by a `MEND` line, as typed; '' for none
 */
export function outlinesOfChains(chains: ReadChain[], mend: string): { name: string; items: OutlineItem[] }[] {
  const count = new Map<string, number>();
  const of = new Map<string, number>();
  for (const c of chains) of.set(c.layer, (of.get(c.layer) ?? 0) + 1);
  return chains.map((c) => {
    const many = of.get(c.layer)! > 1,
      n = (count.get(c.layer) ?? 0) + 1;
    count.set(c.layer, n);
    const name = `${c.layer === "0" || c.layer === "" ? "outline" : c.layer.toLowerCase()}${many ? ` ${n}` : ""}`;
    return {
      name,
      items: !c.closed && mend ? [...c.items, { item: "mend" as const, gap: mend as NumberText }] : c.items,
    };
  });
}

const gapWords = (c: ReadChain): string =>
  c.gap ? `layer ${c.layer}: a chain is open from ${saidPlace(c.gap.from)} to ${saidPlace(c.gap.to)}` : "";

/** Open chains in words, the first of them; a drawing of thousands of loose lines is said in one more. */
export function gapList(chains: ReadChain[], unit: LengthUnit): string[] {
  const open = chains.filter((c) => c.gap);
  const said = open.slice(0, MOST_GAPS).map((c) => inUnit(gapWords(c), unit));
  return open.length > MOST_GAPS ? [...said, `${open.length - MOST_GAPS} more chains are open`] : said;
}
const MOST_GAPS = 50;
