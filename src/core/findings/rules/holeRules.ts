import { type CutTapped } from "../../rows/cutTapped";
import type { SolvedRow } from "../../engine/solve";
import { lengthText, showLength, toNumberText } from "../../number";
import {
  drillOver,
  inchDrills,
  isUsualClass,
  metricDrills,
  outOfLimits,
  percentThread,
  threadLimits,
  type Thread,
} from "../../tables";
import type { Finding, Fix } from "../finding";
import { down, facesOfRow, say, up, whose, type Rule, type RuleContext } from "../rule";
import { CONTACT, DISPLAY } from "../../geometry/tolerance";
import { drilled, drillsOf, isHole, isTapped, setNumber } from "./holes";

export const drillDepthRatio: Rule = {
  id: "drill-depth-ratio",
  find: (c) =>
    c.rows.filter(isHole).flatMap((row) => {
      const hole = drilled(c, row);
      if (!hole || hole.depth === 0) return [];
      const ratio = hole.depth / hole.diameter;
      const { drillPeck, drillDeep, drillStop } = c.limits;
      const over = [drillStop, drillDeep, drillPeck].find((l) => ratio > l.value + CONTACT);
      if (!over) return [];
      let fix: Fix | undefined;
      const tapped = isTapped(row);
      if (!tapped) {
        const wider = drillOver(hole.depth / drillPeck.value, drillsOf(c))?.diameter;
        const depth = down(c, hole.diameter * drillPeck.value);
        // A size that no table has is no fix.
        if (hole.blind) fix = setNumber(row, "deep", depth, `deep ${depth}`);
        else if (wider && !isOfTable(row))
          fix = setNumber(row, "diameter", lengthText(wider, c.job.unit), `⌀${lengthText(wider, c.job.unit)}`);
      } else if (hole.blind) {
        const depth = down(c, hole.diameter * drillPeck.value);
        const body = structuredClone(row.row.body) as CutTapped;
        body.drill = { ...(body.drill ?? {}), deep: depth };
        const own = row.feature?.is === "hole" ? row.feature.thread?.full : undefined;
        if (typeof own === "number" && own > hole.diameter * drillPeck.value) body.deep = depth;
        fix = { label: `drill ${depth}`, edits: [{ edit: "setRow", id: row.row.id, body }] };
      }
      const how =
        over === drillStop
          ? "a gun drill, or from both sides"
          : over === drillDeep
            ? "deep pecking or a long drill"
            : "peck";
      return [
        {
          ...whose(row),
          severity:
            over === drillStop ? ("stop" as const) : over === drillDeep ? ("caution" as const) : ("note" as const),
          value: ratio,
          limit: over.value,
          text: `⌀${say(c, hole.diameter)} by ${say(c, hole.depth)} deep: ${ratio.toFixed(1)} diameters; ${how}`,
          source: over.source,
          place: facesOfRow(c, row.row.id)[0]?.face.point ?? null,
          ...(fix ? { fix } : {}),
        },
      ];
    }),
};

/** Whether a hole's size is a table's: another one would not be what it is for. */
const isOfTable = (row: SolvedRow): boolean =>
  row.numbers.some((n) => n.path === "diameter" && n.value?.source === "standard");

export const tapDepth: Rule = {
  id: "tap-depth",
  find: (c) =>
    c.rows.filter(isTapped).flatMap((row) => {
      const hole = row.feature;
      if (hole?.is !== "hole" || !hole.thread || hole.depth === "thru" || hole.thread.full === "thru") return [];
      const { pitch, full } = hole.thread;
      const { tapLeadPlug, tapLeadBottoming } = c.limits;
      const need = full + tapLeadPlug.value * pitch;
      if (hole.depth >= need - CONTACT) return [];
      const bare = hole.depth < full + tapLeadBottoming.value * pitch - CONTACT;
      const depth = up(c, need);
      const next = structuredClone(row.row.body) as CutTapped;
      next.drill = { ...(next.drill ?? {}), deep: depth };
      return [
        {
          ...whose(row),
          severity: bare ? ("stop" as const) : ("caution" as const),
          value: hole.depth,
          limit: need,
          place: facesOfRow(c, row.row.id)[0]?.face.point ?? null,
          text: `no room for the tap's lead: ${say(c, full)} of thread and ${tapLeadPlug.value} pitches want ${say(c, need)}; drilled ${say(c, hole.depth)}${bare ? ", too little even for a bottoming tap" : ""}`,
          source: bare ? tapLeadBottoming.source : tapLeadPlug.source,
          fix: { label: `drill ${depth}`, edits: [{ edit: "setRow" as const, id: row.row.id, body: next }] },
        },
      ];
    }),
};

export const tapDrill: Rule = {
  id: "tap-drill",
  find: (c) =>
    c.rows.filter(isTapped).flatMap((row) => {
      if (row.feature?.is !== "hole" || !row.feature.thread) return [];
      const { thread, diameter } = row.feature;
      const found = wrongDrill(c, thread, diameter);
      if (!found) return [];
      const fix = usualDrill(row, thread);
      return [
        {
          ...whose(row),
          severity: "caution" as const,
          ...found,
          place: facesOfRow(c, row.row.id)[0]?.face.point ?? null,
          ...(fix ? { fix } : {}),
        },
      ];
    }),
};

/** What is wrong with a hole for a thread; null where nothing is, or where its standard sets no limits. */
function wrongDrill(
  c: RuleContext,
  thread: Thread,
  diameter: number,
): Pick<Finding, "value" | "limit" | "text" | "source"> | null {
  // A taper thread has no per cent of its own: how far the plug goes in says it.
  const limits = thread.pipe ? null : threadLimits(thread, "inside");
  if (!limits || limits.minorMin === null) return null;
  const { minorMin: min, minorMax: max } = limits;
  const isUsual = isUsualClass(thread) && Math.abs(diameter - (thread.size?.tapDrill ?? -1)) < DISPLAY;
  // The chart's own drill is what taps are sold with, wherever it lies.
  if (isUsual) return null;
  const percent = percentThread(thread, diameter);
  const most = c.limits.threadPercentMost;
  const unit = thread.system === "metric" ? "mm" : c.job.unit;
  const drill = `drill ⌀${showLength(diameter, unit, 4)}`;
  const standard = `${limits.standard}${limits.class ? ` class ${limits.class}` : ""}, from memory`;
  const isSmallerThanUsual = !thread.size || diameter < thread.size.tapDrill - DISPLAY;
  const out = outOfLimits(diameter, min, max);
  if (out === "over" && max !== null)
    return {
      value: diameter,
      limit: max,
      text: `${drill} is over the largest minor diameter ⌀${showLength(max, unit, 4)}: ${percent.toFixed(0)} % of thread`,
      source: standard,
    };
  if (percent > most.value + CONTACT && isSmallerThanUsual && thread.form !== "acme")
    return {
      value: percent,
      limit: most.value,
      text: `${drill} leaves ${percent.toFixed(0)} % of thread: hard on the tap`,
      source: most.source,
    };
  if (out !== "under") return null;
  return {
    value: diameter,
    limit: min,
    text: `${drill} is under the smallest minor diameter ⌀${showLength(min, unit, 4)}`,
    source: standard,
  };
}
/** The table's drill in place of one that was typed, where it lies within the limits; else a drill that does. */
function usualDrill(row: SolvedRow, thread: Thread): Fix | undefined {
  const limits = threadLimits(thread, "inside");
  const next = structuredClone(row.row.body) as CutTapped;
  const lies = (d: number) => !outOfLimits(d, limits?.minorMin ?? null, limits?.minorMax ?? null);
  const usual = thread.size;
  if (next.drill?.diameter !== undefined && usual && (isUsualClass(thread) || lies(usual.tapDrill))) {
    delete next.drill.diameter;
    if (!Object.keys(next.drill).length) delete next.drill;
    return { label: `${usual.drillName} drill`, edits: [{ edit: "setRow", id: row.row.id, body: next }] };
  }
  const drills = thread.system === "metric" ? metricDrills : inchDrills;
  const fits = drills.rows.filter((d) => lies(d.diameter)).at(-1);
  if (!fits) return undefined;
  const diameter = lengthText(fits.diameter, thread.system === "metric" ? "mm" : "in");
  next.drill = {
    ...(next.drill ?? {}),
    diameter: toNumberText(`${diameter}${thread.system === "metric" ? "mm" : "in"}`),
  };
  return { label: `${fits.name} drill`, edits: [{ edit: "setRow", id: row.row.id, body: next }] };
}
