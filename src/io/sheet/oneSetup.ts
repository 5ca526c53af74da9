import { keyOf } from "@/core/base/key";
import type { SolidKernel } from "@/core/engine/kernel";
import { viewOf } from "@/core/engine/views";
import type { Frame } from "@/core/geometry/vec";
import { rowNames } from "@/core/job/names";
import type { Job } from "@/core/job/schema";
import type { Evaluation } from "@/core/evaluate/evaluate";
import { showArea, showLength } from "@/core/number";
import type { EvaluatedSetup } from "@/core/setups";
import { drawingSvg } from "../svg";
import { calloutRuns, titleBlockOf } from "./pieces";
import { page } from "./page";
import { tablesOfSetup } from "./tables";
import { figures, ink, label, quiet, red, ruled, runs, type Piece } from "./style";

interface OneSetup {
  assembly: { key: string; name: string; place: Frame }[];
  evaluated: EvaluatedSetup;
  marked: number[];
}

/** The sheet of one setup: the piece the right way up on its datum in what holds it, its rows, cutters and cautions. */
export function oneSetupSheet(
  job: Job,
  { assembly, evaluated, marked }: OneSetup,
  { ledger, solved: { rows: all } }: Pick<Evaluation, "ledger" | "solved">,
  kernel: SolidKernel,
): Promise<Uint8Array> {
  const { op } = evaluated.setup;
  const { standing } = evaluated;
  const key = keyOf(null, assembly);
  kernel.together(key, assembly);
  return page(job, `setup ${op}`, [
    titleBlockOf(job, `Setup ${op}`),
    pictures(kernel, key, job, evaluated),
    rowTable(job, evaluated),
    ...remarks(evaluated),
    quiet(CLAMPING, 8),
    ...(standing
      ? tablesOfSetup(job, {
          setup: evaluated.setup,
          rows: standing.piece.rows,
          all,
          datum: standing.frame,
          ledger,
          marked,
        })
      : []),
  ]);
}
const CLAMPING =
  "Grip and clearances are geometry only. Clamping force, jaw speed and the ratings of vise and chuck are judged at the machine by a qualified person, by the maker’s manual.";

function pictures(kernel: SolidKernel, key: string, job: Job, evaluated: EvaluatedSetup): Piece {
  const view = (v: "pictorial" | "front" | "top", fit: [number, number]) => ({
    svg: drawingSvg(kernel.drawing(key, viewOf[v], false), { stroke: ink.line }),
    fit,
  });
  return {
    margin: [0, 8, 0, 6],
    columns: [
      { width: 250, stack: [view("pictorial", [245, 200])] },
      { width: 140, stack: [label("Front"), view("front", [130, 95]), label("Top"), view("top", [130, 95])] },
      { width: "*", stack: facts(job, evaluated) },
    ],
  };
}

function facts(job: Job, { setup, standing, hold, room }: EvaluatedSetup): Piece[] {
  const len = (mm: number | null | undefined) => (mm == null ? "—" : showLength(mm, job.unit));
  const at = standing?.frame.origin;
  const rows: [string, string][] = [
    ["machine", setup.machine === "lathe" ? "lathe, X as ⌀" : setup.machine],
    ["up", typeof setup.up === "string" ? setup.up : "turned"],
    ["held by", hold ? (hold.part ?? hold.kind) : "—"],
    ["grip", len(hold?.grip)],
    ["grip area", hold?.gripArea == null ? "—" : showArea(hold.gripArea, job.unit)],
    ["stands out", len(hold?.above)],
    ["piece is high", len(standing && standing.box.max.z - standing.box.min.z)],
    ["room round it", len(room)],
    ["X0 in the job", len(at?.x)],
    ["Y0 in the job", len(at?.y)],
    ["Z0 in the job", len(at?.z)],
  ];
  return [
    label("Datum"),
    { text: runs(standing?.datumWords ?? "—"), fontSize: 8, margin: [0, 0, 0, 4] },
    {
      layout: "noBorders",
      table: { widths: ["*", "auto"], body: rows.map(([what, value]) => [label(what), figures(value, 8)]) },
    },
  ];
}

/** The rows of the setup in their order, with what cuts them. */
function rowTable(job: Job, { standing, plans }: EvaluatedSetup): Piece {
  const names = rowNames(job.rows);
  const right = { alignment: "right" };
  const body = (standing?.piece.rows ?? []).map((r) => {
    const plan = plans.find((p) => p.rowId === r.row.id);
    return [
      figures(String(r.number), 8),
      { text: calloutRuns(r, job, names, { font: "Figures", fontSize: 8 }) },
      { text: runs(plan?.cutter?.name ?? plan?.drill ?? "not planned"), fontSize: 8 },
      figures(plan ? showLength(plan.depth, job.unit) : ""),
      figures(plan ? plan.minutes.toFixed(1) : ""),
    ];
  });
  return {
    margin: [0, 0, 0, 6],
    table: {
      headerRows: 1,
      widths: [22, "*", 90, 48, 34],
      body: [[label("Row"), label("Leave / cut"), label("Cutter"), label("Deep", right), label("Min", right)], ...body],
    },
    layout: ruled,
  };
}

const remarks = ({ findings, problem }: EvaluatedSetup): Piece[] => [
  label("Red pencil"),
  ...(problem ? [red(problem.message)] : []),
  ...(findings.length ? findings.map((f) => red(`${f.severity}: ${f.text} (${f.source})`)) : [quiet("no remarks")]),
];
