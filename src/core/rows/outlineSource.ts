import { problems } from "./problems";
import type { Part } from "../grammar/grammar";
import { fail, ok, type Result } from "../base/result";
import { insideRegion } from "../outline/boolean";
import type { EvaluatedOutline } from "../outline/evaluateOutline";
import { directionAt, pointAt, reversed } from "../outline/meet";
import { COINCIDENT, CONTACT, PARALLEL } from "../geometry/tolerance";
import { distance2, type Vec2 } from "../geometry/vec";
import { loopArea, moveLoop, startOf, type Outline, type Segment } from "../outline";

/** Gives a job's outlines by name. */
export type OutlineSource = (name: string) => Result<EvaluatedOutline>;

/** The name of an outline in a row's callout. */
export const outlineName: Part = {
  expected: "the name of an outline in double quotes",
  starts: (r) => (r.skip(), r.text[r.pos] === '"'),
  read(r, row) {
    row.outline = r.quoted().trim();
    if (!row.outline) r.fail("the name of an outline");
  },
  write: (row) => `"${String(row.outline).replace(/"/g, "”")}"`,
  numbers: () => [],
};

/** An outline that can be carried into a row: it solves, and it does not cross itself. */
function sound(name: string, source: OutlineSource | undefined): Result<EvaluatedOutline> {
  const found = source ? source(name) : fail(problems.noOutline(name));
  if (!found.ok) return { ok: false, problems: found.problems.map((p) => ({ ...p, path: "outline" })) };
  const e = found.value;
  if (e.wire?.conflicts.length)
    return wrong(
      e,
      `its dimensions contradict one another (${e.wire.conflicts.map((c) => c.words + (c.shrunk ? ": a step would have no length" : "")).join("; and ")})`,
      "one of them dropped",
    );
  if (e.problems.length)
    return wrong(e, e.problems[0].message, e.problems[0].expected ?? "an outline that can be computed");
  const crossing = e.defects.find((d) => d.kind === "self-crossing" || d.kind === "overlap");
  if (crossing) return wrong(e, crossing.words, "an outline that does not cross itself");
  return ok(e);
}
const wrong = (e: EvaluatedOutline, message: string, expected: string) =>
  fail(problems.outlineFault(e.name, message), { path: "outline", expected });

/**
 * Closed regions of an outline, each with its holes (all counter-clockwise, as solids are made from them), turned.
 * What keeps it from being one is said.
 */
export function outlinesFor(name: string, source: OutlineSource | undefined, turn: number): Result<Outline[]> {
  const found = sound(name, source);
  if (!found.ok) return found;
  const e = found.value;
  if (e.open.length) return wrong(e, "it is not closed", "CLOSE, or OFFSET for a band round it");
  if (!e.region.length) return wrong(e, "it has no closed loop", "a closed walk or a shape");
  const outers = e.region.filter((l) => loopArea(l) > 0),
    holes = e.region.filter((l) => loopArea(l) < 0);
  return ok(
    outers.map((outer) => ({
      outer: moveLoop(outer, { x: 0, y: 0 }, turn),
      holes: holes
        .filter(
          (h) =>
            insideRegion([outer], pointAt(h[0], 0.37)) &&
            !outers.some(
              (o) =>
                o !== outer && insideRegion([outer], pointAt(o[0], 0.37)) && insideRegion([o], pointAt(h[0], 0.37)),
            ),
        )
        .map((h) => moveLoop([...h].reverse().map(reversed), { x: 0, y: 0 }, turn)),
    })),
  );
}

/** The one open chain of an outline that has no closed loop, turned; null where it is closed. */
export function openChainFor(name: string, source: OutlineSource | undefined, turn: number): Result<Segment[] | null> {
  const found = sound(name, source);
  if (!found.ok) return found;
  const e = found.value;
  if (!e.open.length) return ok(null);
  if (e.open.length > 1 || e.region.length)
    return wrong(e, "it is not closed", e.region.length ? "closed loops, or one open chain" : "one open chain");
  return ok(moveLoop(e.open[0], { x: 0, y: 0 }, turn));
}

/** Every chain of an outline, open and closed, turned: what an engraving follows. */
export function chainsFor(name: string, source: OutlineSource | undefined, turn: number): Result<Segment[][]> {
  const found = sound(name, source);
  if (!found.ok) return found;
  const all = [...found.value.region, ...found.value.open];
  return all.length
    ? ok(all.map((c) => moveLoop(c, { x: 0, y: 0 }, turn)))
    : wrong(found.value, "it has no chain", "a walk, a shape or a text");
}

/** The one open chain of an outline, turned: what a strip, a rib or a tube follows. */
export function onlyChain(name: string, source: OutlineSource | undefined, turn: number): Result<Segment[]> {
  const chain = openChainFor(name, source, turn);
  if (!chain.ok) return chain;
  return chain.value ? ok(chain.value) : fail(problems.outlineIsClosed(name), { path: "outline" });
}

/** What of an outline gives places to a pattern; the middles of sides that look along x or y are told apart. */
export const spotKinds = ["rounds", "circles", "corners", "middles", "middles x", "middles y"] as const;
export type SpotKind = (typeof spotKinds)[number];

/** Where a straight side of an outline has its middle, if it looks the way that is asked for. */
function middleOf(s: Segment, of: SpotKind): Vec2[] {
  if (s.kind !== "line") return [];
  const d = directionAt(s, 0);
  const looks = { "middles x": Math.abs(d.y), "middles y": Math.abs(d.x) }[of as "middles x" | "middles y"] ?? 1;
  return looks > PARALLEL ? [pointAt(s, 0.5)] : [];
}

/** Places an outline gives to a pattern: centres, corners or middles; none twice. */
export function spotsOf(name: string, of: SpotKind, source: OutlineSource | undefined): Result<Vec2[]> {
  const found = sound(name, source);
  if (!found.ok) return found;
  const chains = [
    ...found.value.region.map((c) => ({ c, closed: true })),
    ...found.value.open.map((c) => ({ c, closed: false })),
  ];
  const spots = chains.flatMap(({ c, closed }) =>
    c.flatMap((s, i): Vec2[] => {
      if (of === "corners") return cornerAt(c, i, closed);
      if (of.startsWith("middles")) return middleOf(s, of);
      const whole = s.kind === "arc" && Math.abs(s.sweep) > 2 * Math.PI - COINCIDENT;
      return s.kind === "arc" && whole === (of === "circles") ? [s.centre] : [];
    }),
  );
  const once = spots.filter((p, i) => !spots.slice(0, i).some((q) => distance2(p, q) < CONTACT));
  return once.length ? ok(once) : wrong(found.value, `it has no ${of}`, "an outline that has some");
}

/** The corner a segment begins at, where the way turns there. */
function cornerAt(chain: Segment[], i: number, closed: boolean): Vec2[] {
  const before = i > 0 ? chain[i - 1] : closed ? chain[chain.length - 1] : null;
  if (!before || before === chain[i]) return [];
  const [d, e] = [directionAt(before, 1), directionAt(chain[i], 0)];
  return Math.abs(d.x * e.y - d.y * e.x) > CONTACT || d.x * e.x + d.y * e.y < 0 ? [startOf(chain[i])] : [];
}

/** The outlines a row is made from: its own, and the one its pattern takes places from. */
export function outlinesNamed(body: object): string[] {
  const { outline, pattern } = body as { outline?: string; pattern?: { outline?: string } };
  return [outline, pattern?.outline].filter((name) => name !== undefined);
}
/** The same, under another name where it is meant. Changes what it is given. */
export function renameOutlines(body: object, same: (name: string) => boolean, to: string): void {
  const named = body as { outline?: string; pattern?: { outline?: string } };
  if (named.outline !== undefined && same(named.outline)) named.outline = to;
  if (named.pattern?.outline !== undefined && same(named.pattern.outline)) named.pattern.outline = to;
}
