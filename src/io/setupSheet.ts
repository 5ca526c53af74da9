import path from "node:path";
import { releaseState } from "@/core/job/release";
import type { Job } from "@/core/job/schema";
import type { Evaluation } from "@/core/evaluate/evaluate";
import type { SolidKernel } from "@/core/engine/kernel";
import { viewOf } from "@/core/engine/views";
import { inCallout, showBulk, showLength, showWeight } from "@/core/number";
import { writeRow, writeStock } from "@/core/callout";
import { rowNames } from "@/core/job/names";
import { planPaths } from "@/core/paths/plan";
import { featureLabels } from "@/core/print/labels";
import { faces, labelledView } from "./labelledView";
import { drawingSvg } from "./svg";

const INK = "#22262b",
  SOFT = "#5b5f63",
  RULE = "#a99c80",
  RED = "#c8371f",
  DYE = "#22389c";

const fontFile = (family: string, file: string) =>
  path.join(process.cwd(), "node_modules", "@fontsource", family, "files", file);
const fonts = {
  Text: {
    normal: fontFile("barlow", "barlow-latin-400-normal.woff"),
    bold: fontFile("barlow", "barlow-latin-600-normal.woff"),
    italics: fontFile("barlow", "barlow-latin-500-italic.woff"),
    bolditalics: fontFile("barlow", "barlow-latin-600-normal.woff"),
  },
  Figures: {
    normal: fontFile("spline-sans-mono", "spline-sans-mono-latin-400-normal.woff"),
    bold: fontFile("spline-sans-mono", "spline-sans-mono-latin-500-normal.woff"),
  },
  Symbols: { normal: fontFile("noto-sans-math", "noto-sans-math-latin-400-normal.woff") },
};

/** Drawing symbols are missing from text faces: they are set in the symbol face, run by run. */
const runs = (text: string, style: Record<string, unknown> = {}) =>
  text
    .split(/([⌀↧∅→▲]+)/)
    .filter(Boolean)
    .map((t) => ({
      text: t,
      ...style,
      ...(/[⌀↧∅→▲]/.test(t) ? { font: "Symbols", bold: false, italics: false } : {}),
    }));

const label = (t: string) => ({ text: t.toUpperCase(), fontSize: 6.5, color: SOFT, characterSpacing: 0.5 });
const ruled = {
  hLineWidth: () => 0.5,
  vLineWidth: () => 0,
  hLineColor: () => RULE,
  paddingLeft: () => 3,
  paddingRight: () => 3,
  paddingTop: () => 1.5,
  paddingBottom: () => 1.5,
};

/** Who signed, and whether what is on this sheet is what was signed. */
function signature(job: Job): object[] {
  const s = job.signOff;
  if (!s) return [];
  const { state } = releaseState(job);
  const words = `${s.by}, ${s.on}, rev ${s.revision}`;
  const heading =
    state === "released"
      ? "Released"
      : state === "changed"
        ? "Changed since release"
        : "Draft; an earlier revision was released";
  return [
    { ...label(heading), ...(state === "released" ? {} : { color: RED }), margin: [0, 4, 0, 0] },
    { text: words, fontSize: 8 },
    ...(s.reason ? [{ text: `signed with something open: ${s.reason}`, fontSize: 7.5, color: RED }] : []),
  ];
}

/** Views with the balloons' dimensions beside the features that face them: from the top, and from the front if any do. */
function dimensioned(job: Job, evaluation: Evaluation, kernel: SolidKernel): object[] {
  const labels = featureLabels(job, evaluation.solved.rows);
  const views = (["top", "front"] as const).filter((v) => labels.some((l) => faces(l, viewOf[v])));
  if (!views.length) return [];
  const drawing = (v: (typeof views)[number]) =>
    labelledView(kernel.drawing(evaluation.solved.finalKey!, viewOf[v], false), viewOf[v], labels, INK);
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

/**
 * The setup sheet: picture, stock, hold, rows with callouts, cutters, findings and cautions, on one page where they
 * fit.
 * @returns the PDF's bytes
 */
export async function setupSheet(job: Job, evaluation: Evaluation, kernel: SolidKernel): Promise<Uint8Array> {
  const { default: pdfmake } = (await import("pdfmake")) as { default: PdfMake };
  pdfmake.setFonts(fonts);
  // Nothing is fetched: every font and picture is on this machine.
  pdfmake.setUrlAccessPolicy?.(() => false);
  pdfmake.setLocalAccessPolicy?.(() => true);
  const key = evaluation.solved.finalKey!;
  const plans = planPaths(job, evaluation.solved.rows, evaluation.stock?.placed.box);
  const open = evaluation.findings.filter((f) => !f.waived);
  const len = (mm: number) => showLength(mm, job.unit);
  const mass = (g: number | null) => (g === null ? "—" : showWeight(g, job.unit));
  const volume = (mm3: number) => showBulk(mm3, job.unit);
  const stock = evaluation.stock;
  const names = rowNames(job.rows);
  const cell = (l: string, v: string) => ({ stack: [label(l), { text: runs(v), fontSize: 10 }], margin: [4, 2, 4, 2] });
  const figure = (l: string, v: string) => [
    { ...label(l) },
    { text: v, font: "Figures", fontSize: 8, alignment: "right" },
  ];

  const document = {
    pageSize: { in: "LETTER", mm: "A4" }[job.unit],
    pageMargins: [32, 28, 32, 40],
    info: { title: `${job.name} rev ${job.revision}, setup sheet`, creator: "Sgorbia" },
    defaultStyle: { font: "Text", fontSize: 8.5, color: INK, lineHeight: 1.1 },
    footer: (page: number, pages: number) => ({
      margin: [32, 8, 32, 0],
      fontSize: 7,
      color: SOFT,
      columns: [
        {
          width: "*",
          text: "A plan, not a proven program. The machine builder’s manual, the tool maker’s ratings, shop rules and a qualified person at the machine come first.",
        },
        { width: 60, text: `${page} / ${pages}`, alignment: "right" },
      ],
    }),
    content: [
      {
        table: {
          widths: [70, "*", 34, 30, "*", 90],
          body: [
            [
              { text: "SGORBIA", bold: true, fontSize: 13, color: DYE, characterSpacing: 2, margin: [4, 7, 0, 0] },
              cell("Setup sheet", job.name),
              cell("Rev", job.revision),
              cell("Unit", job.unit),
              cell("Material", job.material.name || "—"),
              cell("Drawing", job.title.drawing ?? "—"),
            ],
          ],
        },
        layout: { hLineWidth: () => 1, vLineWidth: () => 0.5, hLineColor: () => INK, vLineColor: () => RULE },
      },
      {
        margin: [0, 8, 0, 6],
        columns: [
          {
            width: 250,
            stack: [
              { svg: drawingSvg(kernel.drawing(key, viewOf.pictorial, false), { stroke: INK }), fit: [245, 170] },
            ],
          },
          {
            width: 140,
            stack: [
              label("Right"),
              { svg: drawingSvg(kernel.drawing(key, viewOf.right, true), { stroke: INK }), fit: [130, 150] },
            ],
          },
          {
            width: "*",
            stack: [
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
                    figure("part", mass(evaluation.part!.mass)),
                    figure("chips", mass(stock?.chipMass ?? null)),
                    figure("part volume", volume(evaluation.part!.volume)),
                    ...(stock
                      ? (["left", "right", "front", "back", "bottom", "top"] as const).map((s) =>
                          figure(`to clean, ${s}`, len(stock.allowance[s])),
                        )
                      : []),
                    figure("hold", job.hold ? `vise, grip ${inCallout(job.hold.grip)}` : "—"),
                  ],
                },
              },
            ],
          },
        ],
      },
      {
        table: {
          headerRows: 1,
          widths: [18, "*", 54, 150],
          body: [
            [label("Row"), label("Leave / cut"), { ...label("Takes"), alignment: "right" }, label("Red pencil")],
            ...evaluation.solved.rows.map((r) => [
              { text: String(r.number), font: "Figures", fontSize: 8 },
              {
                text: [
                  ...runs(writeRow(r.row, names), {
                    font: "Figures",
                    fontSize: 8,
                    ...(r.state === "off" ? { decoration: "lineThrough", color: SOFT } : {}),
                  }),
                ],
              },
              {
                text: r.state === "ok" && r.removed > 0 ? volume(r.removed) : "",
                font: "Figures",
                fontSize: 7.5,
                alignment: "right",
              },
              {
                text: runs(
                  [
                    r.state === "failed" ? `failed: ${r.message}` : "",
                    ...open.filter((f) => f.row === r.number).map((f) => `${f.severity}: ${f.text}`),
                  ]
                    .filter(Boolean)
                    .join(". "),
                ),
                color: RED,
                italics: true,
                fontSize: 7.5,
              },
            ]),
          ],
        },
        layout: ruled,
      },
      {
        margin: [0, 8, 0, 0],
        columns: [
          {
            width: "*",
            table: {
              headerRows: 1,
              widths: ["*", 62, 42, 48, 40],
              body: [
                [
                  label("Path"),
                  label("Cutter"),
                  { ...label("Deep"), alignment: "right" },
                  { ...label("Length"), alignment: "right" },
                  { ...label("Min"), alignment: "right" },
                ],
                ...plans.map((p) => [
                  { text: p.title, fontSize: 8 },
                  { text: runs(p.cutter?.name ?? p.drill ?? p.problem ?? "—"), fontSize: 8 },
                  ...[len(p.depth), len(p.length), p.minutes.toFixed(1)].map((t) => ({
                    text: t,
                    font: "Figures",
                    fontSize: 7.5,
                    alignment: "right",
                  })),
                ]),
                [
                  {
                    text: "Times are estimates from the crib’s feeds; speeds and feeds are set by the tool maker’s ratings.",
                    colSpan: 5,
                    fontSize: 7,
                    color: SOFT,
                  },
                  "",
                  "",
                  "",
                  "",
                ],
              ],
            },
            layout: ruled,
          },
          { width: 12, text: "" },
          {
            width: 190,
            stack: [
              label("For the whole job"),
              ...(open.filter((f) => f.row === null).length
                ? open
                    .filter((f) => f.row === null)
                    .map((f) => ({ text: runs(`${f.severity}: ${f.text}`), color: RED, italics: true, fontSize: 8 }))
                : [{ text: "no remarks", color: SOFT, fontSize: 8 }]),
              ...(job.waivers.length
                ? [
                    { ...label("Waived"), margin: [0, 4, 0, 0] },
                    ...job.waivers.map((w) => ({ text: `${w.rule}: ${w.reason}`, fontSize: 7.5 })),
                  ]
                : []),
              { ...label("Check values"), margin: [0, 4, 0, 0] },
              ...(evaluation.checks.length
                ? evaluation.checks.map((k) => ({
                    text: `${k.kind}${k.of ? ` ${k.of}` : ""}: ${k.agrees ? "agrees" : "off"}`,
                    fontSize: 8,
                    color: k.agrees ? INK : RED,
                  }))
                : [{ text: "none on the print", color: SOFT, fontSize: 8 }]),
              { ...label("Clamping"), margin: [0, 4, 0, 0] },
              {
                text: "Grip and clearances are geometry only. Clamping force is judged at the machine by a qualified person.",
                fontSize: 7.5,
                color: SOFT,
              },
              ...signature(job),
            ],
          },
        ],
      },
      ...dimensioned(job, evaluation, kernel),
    ],
  };
  return new Uint8Array(await pdfmake.createPdf(document).getBuffer());
}

interface PdfMake {
  setFonts(f: unknown): void;
  setUrlAccessPolicy?(p: (url: string) => boolean): void;
  setLocalAccessPolicy?(p: (path: string) => boolean): void;
  createPdf(d: unknown): { getBuffer(): Promise<Uint8Array> };
}
