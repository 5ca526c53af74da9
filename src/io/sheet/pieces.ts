import { writeRow, writeStock } from "@/core/callout";
import type { SolidKernel } from "@/core/engine/kernel";
import { viewOf } from "@/core/engine/views";
import type { Evaluation } from "@/core/evaluate/evaluate";
import type { Finding } from "@/core/findings";
import { rowNames } from "@/core/job/names";
import type { RowNames } from "@/core/callout";
import type { SolvedRow } from "@/core/engine/solve";
import { rowValues } from "@/core/print/rowValues";
import { releaseState, releaseWords } from "@/core/job/release";
import type { Job } from "@/core/job/schema";
import { inCallout, showBulk, showLength, showWeight } from "@/core/number";
import type { PathPlan } from "@/core/paths/plan";
import { featureLabels } from "@/core/print/labels";
import { faces, labelledView } from "../labelledView";
import { drawingSvg } from "../svg";
import { boxed, figures, ink, label, quiet, red, ruled, runs, type Piece } from "./style";

/** What a setup sheet is made of. */
export interface SheetJob {
  job: Job;
  evaluation: Evaluation;
  kernel: SolidKernel;
  plans: PathPlan[];
  /** Remarks that stand: those nobody waived. */
  open: Finding[];
}

/** The title block across the head of the page. */
export const titleBlock = ({ job }: SheetJob): Piece => titleBlockOf(job, "Setup sheet");

/** Whether this revision is released, on every sheet: what has changed since is not what was signed. */
const stateOf = (job: Job): Piece => ({
  text: runs(releaseWords(job)),
  fontSize: 6.5,
  ...(releaseState(job).state === "released" ? {} : { color: ink.red }),
});

/** The same of a sheet that says what it is. */
export function titleBlockOf(job: Job, what: string): Piece {
  const cell = (l: string, v: string, ...more: Piece[]): Piece => ({
    stack: [label(l), { text: runs(v), fontSize: 10 }, ...more],
    margin: [4, 2, 4, 2],
  });
  const name = { text: "SGORBIA", bold: true, fontSize: 13, color: ink.dye, characterSpacing: 2, margin: [4, 7, 0, 0] };
  return {
    table: {
      widths: [70, "*", 66, 30, "*", 86],
      body: [
        [
          name,
          cell(what, job.name),
          cell("Rev", job.revision, stateOf(job)),
          cell("Unit", job.unit),
          cell("Material", job.material.name || "—"),
          cell("Drawing", job.title.drawing ?? "—"),
        ],
      ],
    },
    layout: boxed,
  };
}

/** The piece in two views, and its stock. */
export function pictures(s: SheetJob): Piece {
  const key = s.evaluation.solved.finalKey!;
  const view = (v: "pictorial" | "right", hidden: boolean, fit: [number, number]) => ({
    svg: drawingSvg(s.kernel.drawing(key, viewOf[v], hidden), { stroke: ink.line }),
    fit,
  });
  return {
    margin: [0, 8, 0, 6],
    columns: [
      { width: 250, stack: [view("pictorial", false, [245, 170])] },
      { width: 140, stack: [label("Right"), view("right", true, [130, 150])] },
      { width: "*", stack: stockFigures(s) },
    ],
  };
}

function stockFigures({ job, evaluation }: SheetJob): Piece[] {
  const { stock, part } = evaluation;
  const mass = (g: number | null) => (g === null ? "—" : showWeight(g, job.unit));
  const figure = (l: string, v: string) => [label(l), figures(v, 8)];
  const sides = ["left", "right", "front", "back", "bottom", "top"] as const;
  const toClean = stock
    ? sides.map((side) => figure(`to clean, ${side}`, showLength(stock.allowance[side], job.unit)))
    : [];
  return [
    label("Stock"),
    {
      text: runs(job.stock ? writeStock(job.stock).replace(/^STOCK /, "") : "none chosen"),
      font: "Figures",
      fontSize: 8.5,
      margin: [0, 0, 0, 4],
    },
    {
      layout: "noBorders",
      table: {
        widths: ["*", "auto"],
        body: [
          figure("blank", mass(stock?.mass ?? null)),
          figure("part", mass(part!.mass)),
          figure("chips", mass(stock?.chipMass ?? null)),
          figure("part volume", showBulk(part!.volume, job.unit)),
          ...toClean,
          figure("hold", holdWords(job)),
        ],
      },
    },
  ];
}

/** The rows of the card: what each leaves or cuts, how much it takes, what the red pencil says. */
export function routeTable({ job, evaluation, open }: SheetJob): Piece {
  const names = rowNames(job.rows);
  const struck = { decoration: "lineThrough", color: ink.soft };
  const body = evaluation.solved.rows.map((r) => {
    const remarks = open.filter((f) => f.row === r.number).map((f) => `${f.severity}: ${f.text}`);
    const said = [...(r.state === "failed" ? [`failed: ${r.message}`] : []), ...remarks].join(". ");
    const style = { font: "Figures", fontSize: 8, ...(r.state === "off" ? struck : {}) };
    return [
      { text: String(r.number), font: "Figures", fontSize: 8 },
      { text: calloutRuns(r, job, names, style) },
      figures(r.state === "ok" && r.removed > 0 ? showBulk(r.removed, job.unit) : ""),
      red(said, 7.5),
    ];
  });
  const right = { alignment: "right" };
  return {
    table: {
      headerRows: 1,
      widths: [18, "*", 54, 150],
      body: [[label("Row"), label("Leave / cut"), label("Takes", right), label("Red pencil")], ...body],
    },
    layout: ruled,
  };
}

/** A row's callout with its values, and small beside them the balloons they come from. */
export function calloutRuns(r: SolvedRow, job: Job, names: RowNames, style: Piece): Piece[] {
  const [verb] = writeRow(r.row, names).replace(/^OFF /, "").split(" ");
  const head = `${r.row.off ? "OFF " : ""}${verb} ${r.row.name ? `“${r.row.name}” ` : ""}`;
  const small = { ...style, fontSize: 10, color: ink.dye, sup: true };
  return [
    ...runs(head, style),
    ...rowValues(r.row, r.numbers, job, names).flatMap((p) => [
      ...runs(p.text, style),
      ...(p.balloons.length ? [{ text: p.balloons.join(" "), ...small }] : []),
    ]),
  ];
}

/** How the piece is held, of the whole job; with setups each has a sheet of its own. */
function holdWords({ hold, setups }: Job): string {
  if (hold) return `vise, grip ${inCallout(hold.grip)}`;
  return setups?.length ? `setup${setups.length > 1 ? "s" : ""} ${setups.map((s) => s.op).join(", ")}` : "—";
}

/** Paths with their cutters, depths and times; beside them what holds for the whole job. */
export const pathsAndRemarks = (s: SheetJob): Piece => ({
  margin: [0, 8, 0, 0],
  columns: [
    { width: "*", ...pathTable(s) },
    { width: 12, text: "" },
    { width: 190, stack: wholeJob(s) },
  ],
});

function pathTable({ job, plans }: SheetJob): Piece {
  const right = { alignment: "right" };
  const estimate = "Times are estimates from the crib’s feeds; speeds and feeds are set by the tool maker’s ratings.";
  return {
    table: {
      headerRows: 1,
      widths: ["*", 62, 42, 48, 40],
      body: [
        [label("Path"), label("Cutter"), label("Deep", right), label("Length", right), label("Min", right)],
        ...plans.map((p) => [
          { text: runs(p.title), fontSize: 8 },
          { text: runs(p.cutter?.name ?? p.drill ?? p.problem ?? "—"), fontSize: 8 },
          figures(showLength(p.depth, job.unit)),
          figures(showLength(p.length, job.unit)),
          figures(p.minutes.toFixed(1)),
        ]),
        [{ ...quiet(estimate, 7), colSpan: 5 }, "", "", "", ""],
      ],
    },
    layout: ruled,
  };
}

function wholeJob({ job, evaluation, open }: SheetJob): Piece[] {
  const remarks = open.filter((f) => f.row === null).map((f) => red(`${f.severity}: ${f.text}`));
  const checks = evaluation.checks.map((k) => ({
    text: `${k.kind}${k.of ? ` ${k.of}` : ""}: ${k.agrees ? "agrees" : "off"}`,
    fontSize: 8,
    color: k.agrees ? ink.line : ink.red,
  }));
  const below = { margin: [0, 4, 0, 0] };
  const waived = job.waivers.map((w) => ({ text: runs(`${w.rule}: ${w.reason}`), fontSize: 7.5 }));
  const clamping =
    "Grip and clearances are geometry only. Clamping force is judged at the machine by a qualified person.";
  return [
    label("For the whole job"),
    ...(remarks.length ? remarks : [quiet("no remarks")]),
    ...(waived.length ? [label("Waived", below), ...waived] : []),
    label("Check values", below),
    ...(checks.length ? checks : [quiet("none on the print")]),
    label("Clamping", below),
    quiet(clamping, 7.5),
    ...signature(job),
  ];
}

/** Who signed, and whether what is on this sheet is what was signed. */
function signature(job: Job): Piece[] {
  const s = job.signOff;
  if (!s) return [];
  const { state } = releaseState(job);
  const headings = { released: "Released", changed: "Changed since release" };
  const heading =
    state in headings ? headings[state as keyof typeof headings] : "Draft; an earlier revision was released";
  return [
    label(heading, { ...(state === "released" ? {} : { color: ink.red }), margin: [0, 4, 0, 0] }),
    { text: runs(`${s.by}, ${s.on}, rev ${s.revision}`), fontSize: 8 },
    ...(s.reason ? [{ text: runs(`signed with something open: ${s.reason}`), fontSize: 7.5, color: ink.red }] : []),
  ];
}

/** Views with the balloons' dimensions beside the features that face them: from the top, and from the front if any do. */
export function dimensionedViews({ job, evaluation, kernel }: SheetJob): Piece[] {
  const labels = featureLabels(job, evaluation.solved.rows);
  const views = (["top", "front"] as const).filter((v) => labels.some((l) => faces(l, viewOf[v])));
  if (!views.length) return [];
  const drawing = (v: (typeof views)[number]) =>
    labelledView(kernel.drawing(evaluation.solved.finalKey!, viewOf[v], false), viewOf[v], labels, ink.line);
  return [
    {
      margin: [0, 10, 0, 0],
      unbreakable: true,
      columns: views.map((v) => ({
        stack: [label(`${v}, dimensions by balloon`), { svg: drawing(v), fit: [530 / views.length - 8, 172] }],
      })),
    },
  ];
}
