import { cornerEqualsCutter, cornerTooSmall, deepForItsCutter, sharpInsideCorner } from "./rules/pocketRules";
import { drillDepthRatio, tapDepth, tapDrill } from "./rules/holeRules";
import { countersink, screwClearance } from "./rules/screwRules";
import { edgeDistance } from "./rules/edgeDistance";
import { edgeBreak, outsideStock, stockOverCut } from "./rules/jobRules";
import { edgesLeft } from "./rules/edgeRules";
import { tooBigToDrill } from "./rules/drillRules";
import { addsNothing, closedVoid, cutsNothing, inPieces, runsOff } from "./rules/rowRules";
import { breaksOut, entryOverStep, mouthOverEdge, overlap, slantedEntry } from "./rules/entryRules";
import { thinFloor, thinWall } from "./rules/wallRules";
import { planeChanged, planeInside } from "./rules/planeRules";
import { heldToPrint } from "./heldToPrint";
import { rotaryAxis, curvedBore, knurl, taper, threadBlank, threadRunOut } from "./rules/turnRules";
import { grooveDepth, ringGroove } from "./rules/grooveRules";
import { cutIntoJaw, gripRefused, gripTooShallow } from "./rules/holdRules";
import type { Finding } from "./finding";
import type { Rule, RuleContext } from "./rule";

// One line a rule.
export const rules: readonly Rule[] = [
  cutsNothing,
  addsNothing,
  inPieces,
  closedVoid,
  overlap,
  breaksOut,
  mouthOverEdge,
  slantedEntry,
  entryOverStep,
  thinWall,
  thinFloor,
  runsOff,
  planeChanged,
  planeInside,
  sharpInsideCorner,
  cornerTooSmall,
  cornerEqualsCutter,
  deepForItsCutter,
  drillDepthRatio,
  tooBigToDrill,
  tapDepth,
  tapDrill,
  screwClearance,
  countersink,
  edgeDistance,
  outsideStock,
  stockOverCut,
  edgeBreak,
  edgesLeft,
  curvedBore,
  rotaryAxis,
  taper,
  knurl,
  threadBlank,
  threadRunOut,
  grooveDepth,
  ringGroove,
  gripRefused,
  gripTooShallow,
  cutIntoJaw,
];

const rank = { stop: 0, caution: 1, note: 2 };

/** What a rule finds. One that breaks down is said, and keeps nothing else from being found. */
function found(rule: Rule, c: RuleContext): Omit<Finding, "rule">[] {
  try {
    return rule.find(c);
  } catch (e) {
    const why = e instanceof Error ? e.message : String(e);
    const text = "this rule could not be worked out on this part: look at it yourself, and report it";
    return [
      {
        severity: "note",
        row: null,
        rowId: null,
        place: null,
        value: 0,
        limit: 0,
        text,
        source: `a fault of the program: ${why}`,
      },
    ];
  }
}

/** Every remark the rules make, the gravest first; waived ones carry their reason. */
export function findAll(c: RuleContext): Finding[] {
  return rules
    .flatMap((r) => found(r, c).map((f): Finding => heldToPrint(c, { rule: r.id, ...f })))
    .map((f) => {
      const w = c.job.waivers.find((x) => x.rule === f.rule && (x.row ?? null) === f.rowId);
      return w ? { ...f, waived: w.reason } : f;
    })
    .sort((a, b) => rank[a.severity] - rank[b.severity] || (a.row ?? 1e9) - (b.row ?? 1e9));
}
