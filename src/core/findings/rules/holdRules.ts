import { fromFrame, boxOf, v2, type Box, type Vec2, type Vec3 } from "../../geometry/vec";
import { valueOf } from "../../engine/numbers";
import { loopBox } from "../../outline";
import { lengthText } from "../../number";
import type { BodyStep, PlacedBody } from "../../engine/kernel";
import type { Finding, Fix } from "../finding";
import { holdingRules } from "../holding";
import { down, say, whose, type Rule, type RuleContext } from "../rule";
import type { SolvedRow } from "../../engine/solve";
import { jawMet } from "../../paths/jaws";
import { planPaths } from "../../paths/plan";
import { levelsOfBody } from "../../engine/rowShape";
import { placeVise, type ViseSetup } from "../../hold/vise";
import { CONTACT } from "../../geometry/tolerance";

function setup(c: RuleContext): ViseSetup | null {
  if (!c.job.hold) return null;
  const v = placeVise(c.job.hold, c.scope, c.stock?.box ?? c.partBox);
  return v.ok ? v.value : null;
}

export const gripTooShallow: Rule = {
  id: holdingRules.tooShallow,
  find(c) {
    const v = setup(c);
    if (!v) return [];
    const { gripLeast, heightOverGrip } = c.limits;
    const need = Math.max(gripLeast.value, v.above / heightOverGrip.value);
    const whole = v.grip + v.above;
    const fits = Math.max(gripLeast.value, whole / (1 + heightOverGrip.value));
    if (v.grip >= gripLeast.value - CONTACT && v.above / v.grip <= heightOverGrip.value + CONTACT) return [];
    const grip = lengthText(Math.ceil(fits * 20 + 1) / 20, c.job.unit);
    const p = v.jaws[0].max;
    return [
      {
        row: null,
        rowId: null,
        severity: v.grip < gripLeast.value ? "stop" : "caution",
        value: v.grip,
        limit: need,
        place: { x: (v.jaws[0].min.x + p.x) / 2, y: p.y, z: v.jawTop },
        text: `grip of ${say(c, v.grip)} holds ${say(c, v.above)} above the jaws: ${need === gripLeast.value ? `at least ${say(c, need)}` : `${(v.above / v.grip).toFixed(1)} to 1`}. A qualified person judges clamping at the machine`,
        source: need === gripLeast.value ? gripLeast.source : heightOverGrip.source,
        fix: { label: `grip ${grip}`, edits: [{ edit: "setHold", hold: { ...c.job.hold!, grip } }] },
      },
    ];
  },
};

export const cutIntoJaw: Rule = {
  id: holdingRules.intoJaw,
  find(c) {
    const v = setup(c);
    if (!v || !c.job.hold) return [];
    const met = movesIntoJaws(c, v);
    // What has a path was looked at move by move; of the others the tool solid tells.
    return [...met, ...openCutsIntoJaws(c, v).filter((f) => !met.some((m) => m.rowId === f.rowId))];
  },
};

/** Every planned move, the outer outline too, with the round of its cutter. */
function movesIntoJaws(c: RuleContext, v: ViseSetup): Omit<Finding, "rule">[] {
  return planPaths(c.job, c.rows, c.stock?.box).flatMap((p) => {
    const met = jawMet(p, v);
    const row = c.rows[p.row - 1];
    return met
      ? [
          jawFinding(
            c,
            v,
            row,
            met.below,
            met.at,
            `the path goes ${say(c, met.below)} below the top of the jaws, into them`,
            "geometry: planned moves and jaws",
          ),
        ]
      : [];
  });
}

function jawFinding(
  c: RuleContext,
  v: ViseSetup,
  row: SolvedRow,
  below: number,
  place: Vec3,
  text: string,
  source: string,
): Omit<Finding, "rule"> {
  const grip = v.grip - below;
  const less = down(c, grip);
  const fix: Fix | null =
    grip > 0.1 ? { label: `grip ${less}`, edits: [{ edit: "setHold", hold: { ...c.job.hold!, grip: less } }] } : null;
  return { ...whose(row), severity: "stop", value: below, limit: 0, place, text, source, ...(fix ? { fix } : {}) };
}

/** Cuts without a path that run out of a side at a floor below the jaws' top. */
function openCutsIntoJaws(c: RuleContext, v: ViseSetup): Omit<Finding, "rule">[] {
  return c.rows.flatMap((row) => {
    const step = row.placed?.step;
    if (row.state !== "ok" || step?.op !== "cut") return [];
    // Only cuts made from above in this setup; the others are made in another one.
    if (step.frame.normal.z * (v.upIsTop ? 1 : -1) < 0.999) return [];
    const box = toolBox(step);
    const floor = v.upIsTop ? box.min.z : box.max.z;
    const below = v.upIsTop ? v.jawTop - floor : floor - v.jawTop;
    const open =
      box.min[v.across] <= c.partBox.min[v.across] + CONTACT || box.max[v.across] >= c.partBox.max[v.across] - CONTACT;
    if (!open || below <= CONTACT) return [];
    const place = { x: (box.min.x + box.max.x) / 2, y: (box.min.y + box.max.y) / 2, z: floor };
    return [
      jawFinding(
        c,
        v,
        row,
        below,
        place,
        `cuts ${say(c, below)} into the jaw: it runs out of the side at a floor below the jaws' top`,
        "geometry: jaws and cut",
      ),
    ];
  });
}

/** A grip that cannot be: nothing, or the whole height of the piece. */
export const gripRefused: Rule = {
  id: holdingRules.refused,
  find(c) {
    const piece = c.stock?.box ?? c.partBox;
    if (!c.job.hold) return [];
    const v = placeVise(c.job.hold, c.scope, piece);
    if (v.ok) return [];
    const [problem] = v.problems;
    const grip = valueOf(c.job.hold.grip, "length", c.scope);
    const whole = piece.max.z - piece.min.z;
    const half = down(c, whole / 2);
    return [
      {
        row: null,
        rowId: null,
        severity: "stop",
        value: grip.ok ? grip.value.value : 0,
        limit: whole,
        place: { x: (piece.min.x + piece.max.x) / 2, y: piece.min.y, z: piece.min.z },
        text: `the piece cannot be held so: ${problem.message}`,
        source: "geometry: jaws and piece",
        fix: { label: `grip ${half}`, edits: [{ edit: "setHold", hold: { ...c.job.hold, grip: half } }] },
      },
    ];
  },
};

/** Box in space of a cut's tool solid, all its copies together. */
function toolBox(step: BodyStep): Box {
  const corners = step.places.flatMap((p) => {
    const b = reachOf(step.body);
    return [b.min, b.max].flatMap((q) => [b.from, b.to].map((d) => fromFrame(step.frame, v2(q.x + p.x, q.y + p.y), d)));
  });
  return boxOf(corners);
}
/** What a tool solid takes up in its frame: across, and from which depth to which. */
function reachOf(body: PlacedBody): { min: Vec2; max: Vec2; from: number; to: number } {
  const around = (r: number, from: number, to: number) => ({ min: v2(-r, -r), max: v2(r, r), from, to });
  switch (body.body) {
    case "prism": {
      const all = body.edge ?? loopBox([body.outline, ...(body.more ?? [])].flatMap((o) => o.outer));
      return { ...all, from: body.from, to: body.to };
    }
    case "revolved":
      return around(widest(body.profile), body.profile[0].z, body.profile[body.profile.length - 1].z);
    // Heights of a half profile count upwards, depths downwards.
    case "turned": {
      const b = loopBox(body.outlines.flatMap((o) => o.outer));
      return around(b.max.x, -b.max.y, -b.min.y);
    }
    case "helix":
      return around(body.outer.radius, body.from, body.to);
    // Unrolled it is wider than it is round its shaft.
    case "wrapped":
      return { ...loopBox(body.outlines.flatMap((o) => o.outer)), from: body.from, to: body.to };
    case "vee":
    case "wrappedVee": {
      const b = loopBox(body.chains.flat()),
        w = body.depth * Math.tan(body.halfAngle);
      return { min: v2(b.min.x - w, b.min.y - w), max: v2(b.max.x + w, b.max.y + w), from: 0, to: body.depth };
    }
    case "imported":
      return { ...body.box, from: -body.box.max.z, to: -body.box.min.z };
    case "tube":
    case "rib": {
      const b = loopBox(body.chain);
      const w = body.body === "tube" ? body.outer : body.thick / 2;
      const { low, high } = levelsOfBody(body);
      return { min: v2(b.min.x - w, b.min.y - w), max: v2(b.max.x + w, b.max.y + w), from: -high, to: -low };
    }
  }
}
const widest = (profile: { r: number }[]) => Math.max(...profile.map((p) => p.r));
