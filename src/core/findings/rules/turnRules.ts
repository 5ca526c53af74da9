import type { SolvedRow } from "../../engine/solve";
import { shaftOf, type Shaft } from "../../engine/rowShape";
import { lengthText, showLength, toNumberText, unitOf } from "../../number";
import { morseTapers, outOfLimits, threadLimits, type Thread } from "../../tables";
import type { Finding, Fix } from "../finding";
import { say, whose, type Rule, type RuleContext } from "../rule";
import { setNumber } from "./holes";
import { boxInFrame, dot, toFrame } from "../../geometry/vec";
import { CONTACT, DISPLAY, PARALLEL } from "../../geometry/tolerance";

type Found = Omit<Finding, "rule">;
const standing = (c: RuleContext): SolvedRow[] => c.rows.filter((r) => r.state === "ok");

/** A bore along a bend: no straight tool goes round it. */
export const curvedBore: Rule = {
  id: "curved-bore",
  find: (c) =>
    standing(c).flatMap((row): Found[] => {
      const step = row.placed?.step;
      if (row.feature?.is !== "bend" || !step || step.op !== "cut" || step.body.body !== "tube") return [];
      const bends = step.body.chain.filter((s) => s.kind === "arc").length;
      if (!bends) return [];
      return [
        {
          ...whose(row),
          severity: "stop",
          value: bends,
          limit: 0,
          place: step.frame.origin,
          text: `bends ${bends === 1 ? "once" : `${bends} times`}: no straight tool follows it; split the part, cast it, or bore it straight from both ends`,
          source: "geometry of the path",
        },
      ];
    }),
};

/** What is laid round a shaft is cut while that turns. */
export const rotaryAxis: Rule = {
  id: "rotary-axis",
  find: (c) =>
    standing(c).flatMap((row): Found[] => {
      const body = row.recipe && "body" in row.recipe ? row.recipe.body : null;
      if (body?.body !== "wrapped" && body?.body !== "wrappedVee") return [];
      const under = shaftUnder(c, body.row);
      if (!under) return [];
      return [
        {
          ...whose(row),
          severity: "note",
          value: 2 * under.shaft.radius,
          limit: 0,
          place: under.shaft.frame.origin,
          text: `laid round the ⌀${say(c, 2 * under.shaft.radius)} of row ${under.row.number}: it wants a rotary axis about that round`,
          source: "geometry: the row is laid along the girth",
        },
      ];
    }),
};

const degrees = (angle: number): string => {
  const seconds = Math.round(((angle * 180) / Math.PI) * 3600);
  const [d, m, s] = [Math.floor(seconds / 3600), Math.floor((seconds % 3600) / 60), seconds % 60];
  return `${d}°${String(m).padStart(2, "0")}'${String(s).padStart(2, "0")}"`;
};
/** Two tapers are the same within this share of their ratio. */
const SAME_TAPER = 3e-4;

/** Tapers that have a name and are the same in every size. */
const namedTapers = [{ name: "machine taper 7 : 24", ratio: 7 / 24, source: "ISO 7388, from memory" }];

/** A cone by its name, where it has one, with its ratio and half its angle. */
export const taper: Rule = {
  id: "taper",
  find: (c) =>
    standing(c).flatMap((row): Found[] => {
      if (row.feature?.is !== "taper") return [];
      const { large, small, deep } = row.feature;
      const ratio = (large - small) / deep;
      const morse = morseTapers.rows.find((t) => Math.abs(t.taper / ratio - 1) < SAME_TAPER);
      const other = namedTapers.find((t) => Math.abs(t.ratio / ratio - 1) < SAME_TAPER);
      const name = morse ? `Morse ${morse.number} (gauge ${say(c, morse.gauge)}), ` : other ? `${other.name}, ` : "";
      return [
        {
          ...whose(row),
          severity: "note",
          value: ratio,
          limit: 0,
          place: row.planes?.start?.origin ?? null,
          text: `${name}1 : ${Number((1 / ratio).toFixed(3))}, half angle ${degrees(Math.atan(ratio / 2))}`,
          source: morse ? morseTapers.source : (other?.source ?? "geometry: half angle = atan(ratio / 2)"),
        },
      ];
    }),
};

/** The shaft a row is said of, and the row that made it. */
function shaftUnder(c: RuleContext, id: string): { shaft: Shaft; row: SolvedRow } | null {
  const row = c.rows.find((r) => r.row.id === id);
  const shaft = row?.planes?.shape ? shaftOf(row.planes.shape) : null;
  return row && shaft ? { shaft, row } : null;
}

/** The blank under a knurl carries a whole number of teeth, or the second turn does not fall into the first. */
export const knurl: Rule = {
  id: "knurl",
  find: (c) =>
    standing(c).flatMap((row): Found[] => {
      const { feature } = row;
      const under = feature?.is === "knurl" ? shaftUnder(c, feature.shaft) : null;
      if (feature?.is !== "knurl" || !under) return [];
      const blank = 2 * under.shaft.radius;
      const teeth = (Math.PI * blank) / feature.pitch;
      const nearest = Math.max(1, Math.round(teeth));
      const fits = (nearest * feature.pitch) / Math.PI;
      const even = Math.abs(fits - blank) < KNURL_SLACK;
      return [
        {
          ...whose(row),
          severity: even ? "note" : "caution",
          value: teeth,
          limit: nearest,
          place: under.shaft.frame.origin,
          text: even
            ? `${nearest} teeth on ⌀${say(c, blank)}`
            : `${teeth.toFixed(2)} teeth on ⌀${say(c, blank)}: a blank of ⌀${lengthText(fits, c.job.unit)} carries ${nearest}`,
          source: "geometry: π × blank / pitch is a whole number",
        },
      ];
    }),
};
/** A blank that differs by less rolls evenly, mm; common practice, no source. */
const KNURL_SLACK = 0.02;

/** An outside thread on its blank: within the limits of the thread's major diameter in its class. */
export const threadBlank: Rule = {
  id: "thread-blank",
  find: (c) =>
    standing(c).flatMap((row): Found[] => {
      const { feature } = row;
      const under = feature?.is === "thread" ? shaftUnder(c, feature.shaft) : null;
      const limits = feature?.is === "thread" ? threadLimits(feature.thread, "outside") : null;
      if (!limits || limits.majorMax === null || !under || feature?.is !== "thread") return [];
      const blank = 2 * under.shaft.radius;
      const { majorMin, majorMax } = limits;
      const out = outOfLimits(blank, majorMin, majorMax);
      if (!out) return [];
      const unit = feature.thread.system === "metric" ? "mm" : c.job.unit;
      const shown = (mm: number) => `⌀${showLength(mm, unit, 4)}`;
      return [
        {
          ...whose(row),
          // Over the basic size no ring goes on; between that and the class's largest one may.
          severity: blank > feature.thread.major + CONTACT ? "stop" : "caution",
          value: blank,
          limit: out === "over" ? majorMax : majorMin!,
          place: under.shaft.frame.origin,
          text: `the shaft is ${shown(blank)}: ${limits.class} wants ${shown(majorMin ?? 0)} to ${shown(majorMax)} for the thread's outside`,
          source: `${limits.standard} class ${limits.class}, from memory`,
          ...blankFix(c, under.row, blank, majorMin ?? 0, majorMax),
        },
      ];
    }),
};
/** Another diameter of the row that made the blank, where a number of it is that: the middle of the limits. */
function blankFix(c: RuleContext, row: SolvedRow, blank: number, min: number, max: number): { fix?: Fix } {
  const number = row.numbers.find((n) => n.means === "diameter" && Math.abs((n.value?.value ?? 0) - blank) < CONTACT);
  const wants = toNumberText(lengthText((min + max) / 2, c.job.unit, unitOf[c.job.unit].places.shown));
  return number ? { fix: setNumber(row, number.path, wants, `blank ⌀${wants}`) } : {};
}

export const threadRunOut: Rule = {
  id: "thread-run-out",
  find: (c) =>
    standing(c).flatMap((row): Found[] => {
      const { feature, recipe } = row;
      const under = feature?.is === "thread" ? shaftUnder(c, feature.shaft) : null;
      if (feature?.is !== "thread" || recipe?.op !== "said" || !under) return [];
      const { shaft } = under;
      const left = shaft.high - shaft.low - recipe.from - recipe.length;
      const limit = c.limits.threadRelief;
      const shoulder = c.faces.some(
        (f) =>
          f.surface === "plane" &&
          f.tag?.row !== feature.shaft &&
          Math.abs(dot(f.normal, shaft.frame.normal)) > PARALLEL &&
          Math.abs(toFrame(shaft.frame, f.point).z - shaft.low) < CONTACT,
      );
      if (!shoulder || left >= limit.value * feature.thread.pitch - CONTACT) return [];
      if (endsInGroove(c, shaft, shaft.low + left, feature.thread)) return [];
      return [
        {
          ...whose(row),
          severity: "caution",
          value: left / feature.thread.pitch,
          limit: limit.value,
          place: shaft.frame.origin,
          text: `ends ${(left / feature.thread.pitch).toFixed(1)} pitches before the shoulder: the tool wants ${limit.value} to run out, or a groove`,
          source: limit.source,
        },
      ];
    }),
};

/** Whether a groove down to the thread's core is turned where the thread ends: the tool runs out into it. */
function endsInGroove(c: RuleContext, { frame, low }: Shaft, end: number, { major, pitch }: Thread): boolean {
  // Core of an outside thread: d - 1.22687 P (ISO 724 with the rounded root of ISO 68-1; the same for a Unified thread).
  const core = major - 1.22687 * pitch;
  return c.faces.some((f) => {
    if (f.surface !== "cylinder" || f.hollow || 2 * f.radius! > core + DISPLAY) return false;
    const axis = toFrame(frame, f.axis!.origin);
    const isOnAxis = Math.abs(dot(f.axis!.direction, frame.normal)) > PARALLEL && Math.hypot(axis.x, axis.y) < CONTACT;
    const { min, max } = boxInFrame(frame, f.box);
    return isOnAxis && min.z > low - CONTACT && min.z < end + CONTACT && max.z > end - CONTACT;
  });
}
