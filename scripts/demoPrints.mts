// Draws the prints of the demo jobs from their own solids and writes the demo documents with pinned balloons and
// calibration.
// Run by hand when a demo card changes: node --import tsx scripts/demoPrints.mts
import type { FaceInfo } from "@/core/engine/kernel";
import { featureOf } from "@/core/print/features";
import { readFileSync, writeFileSync } from "node:fs";
import { createHash } from "node:crypto";
import { chromium } from "@playwright/test";
import { readCard, writeBalloonText } from "../src/core/callout";
import { evaluate } from "../src/core/evaluate/evaluate";
import { viewOf } from "../src/core/engine/views";
import type { Job, JobDocument } from "../src/core/job";
import { unitOf } from "../src/core/number";
import { toNumberText, lengthText } from "../src/core/number";
import { loadKernel } from "../src/kernel/node";

type Place = "L" | "R" | "T";
/** Where each balloon points, in the job's unit, in the coordinates of its view, and to which side its text stands. */
type Notes = Record<number, [view: "top" | "front", x: number, y: number, side: Place]>;

const W = 1500,
  H = 1060;
const c45 = Math.SQRT1_2;
const jobs: {
  file: string;
  drawing: string;
  views: { top: "top" | "bottom" };
  notes: Notes;
  asPrinted?: [string, string];
}[] = [
  {
    file: "gauge-lid",
    drawing: "TG-014",
    views: { top: "bottom" },
    notes: {
      1: ["front", 1.625, 0.3, "R"],
      2: ["front", -1.625, 0.45, "L"],
      3: ["top", 0.875 * c45, 0.875 * c45, "R"],
      4: ["front", -0.875, 0.35, "L"],
      5: ["top", 1.15 * c45, -1.15 * c45, "R"],
      6: ["top", -1.032 * c45, -1.032 * c45, "L"],
      7: ["front", -1.1, 0.04, "L"],
      8: ["top", -1.375, 0, "L"],
      9: ["top", 1.375, 0, "R"],
      10: ["front", 1.2, 0.52, "R"],
      11: ["front", 1.547, 0.43, "R"],
      12: ["top", -0.41, 0.41, "L"],
      13: ["top", 0, 1.625, "R"],
      14: ["top", 0.41, 0.41, "R"],
      15: ["top", 0.25 * c45, -0.25 * c45, "R"],
      16: ["front", 0.875, 0.2, "R"],
    },
  },
  {
    file: "sensor-clamp",
    drawing: "TG-022",
    views: { top: "top" },
    notes: {
      1: ["top", 0, 1.5, "T"],
      2: ["top", 2.25, 0.9, "R"],
      3: ["front", 2.25, 0.5, "R"],
      4: ["top", 2.18, -1.43, "R"],
      5: ["top", -1.5, -1.2, "L"],
      6: ["front", -1.6, 0.7, "L"],
      7: ["top", 0.9, 0.625, "T"],
      8: ["top", 1.5, -0.2, "R"],
      9: ["front", 0.8, 0.475, "R"],
      10: ["top", 1.46, -0.59, "R"],
      11: ["top", 0.5, 0, "T"],
      12: ["top", 1.875, 1.125, "R"],
      13: ["top", -1, -1.125, "L"],
      14: ["front", 1.8, 0.6, "R"],
      15: ["top", -1, 1.125, "L"],
      16: ["top", 1.875, -1.0, "R"],
      17: ["top", -1.9, 0.6, "L"],
      18: ["front", -1.9, 0.25, "L"],
      19: ["top", -1.9, -0.6, "L"],
      20: ["top", -2.0, 0, "L"],
    },
  },
  {
    file: "indexing-dial",
    drawing: "TG-031",
    views: { top: "top" },
    asPrinted: ["11X M4", "12X M4"],
    notes: {
      1: ["front", 47.5, 7, "R"],
      2: ["front", -47.5, 10, "L"],
      3: ["top", 10 * c45, -10 * c45, "R"],
      4: ["top", 16 * c45, 16 * c45, "R"],
      5: ["front", -16, 11, "L"],
      6: ["top", 0, 39, "R"],
      7: ["top", -39 * c45, 39 * c45, "L"],
      8: ["front", 39, 9, "R"],
      9: ["top", -11, 0, "L"],
      10: ["top", 12, -2, "R"],
      11: ["front", -11, 6, "L"],
      12: ["top", 27 * 0.5, -27 * 0.866, "R"],
      13: ["top", -27, 0, "L"],
      14: ["top", -30 * c45, -30 * c45, "L"],
      15: ["top", 33, 5, "R"],
      16: ["front", 31, 13, "R"],
    },
  },
  {
    file: "float-pulley",
    drawing: "TG-009",
    views: { top: "top" },
    notes: {
      1: ["front", 36, 8, "R"],
      2: ["front", -36, 18, "L"],
      3: ["top", 11 * c45, 11 * c45, "R"],
      4: ["front", 11.95, 20, "R"],
      5: ["front", -11.9, 20.4, "L"],
      6: ["front", -11, 22.5, "L"],
      7: ["top", -20 * c45, 20 * c45, "L"],
      8: ["front", 24, 19, "R"],
      9: ["top", 26 * 0.866, 13, "R"],
      10: ["top", -26, 0, "L"],
      11: ["front", 30, 18.4, "R"],
      12: ["front", -28, 18, "L"],
    },
  },
  {
    file: "chart-drum-hub",
    drawing: "TG-027",
    views: { top: "top" },
    notes: {
      1: ["top", 45 * c45, 45 * c45, "R"],
      8: ["top", 33.6, 17.5, "R"],
      9: ["top", 9.06, 33.8, "R"],
      10: ["top", 33.8, 9.1, "R"],
      11: ["top", 37.5, 0, "R"],
      5: ["top", 10 * c45, -10 * c45, "R"],
      3: ["top", 25 * c45, -25 * c45, "R"],
      14: ["top", 21 * 0.5, -21 * 0.866, "R"],
      32: ["top", -14.8, -31.5, "R"],
      12: ["top", -35.8, 17.5, "L"],
      27: ["top", -37, 0, "L"],
      28: ["top", -17, 0, "L"],
      20: ["top", -22, 8, "L"],
      6: ["top", -15 * c45, -15 * c45, "L"],
      31: ["top", -19.9, -31.7, "L"],
      15: ["top", -18 * c45, 18 * c45, "L"],
      25: ["top", -14 * 0.9, -14 * 0.436, "L"],
      4: ["front", 25, 38, "R"],
      18: ["front", 15.7, 31.9, "R"],
      22: ["front", 44.5, 0.5, "R"],
      23: ["front", 2, 22, "R"],
      29: ["front", 16, 37.5, "R"],
      30: ["front", 25, 26, "R"],
      17: ["front", 15.7, 31.2, "R"],
      2: ["front", -45, 6, "L"],
      7: ["front", -15, 33, "L"],
      13: ["front", -35.8, 8, "L"],
      16: ["front", -19.5, 1, "L"],
      19: ["front", -15.7, 34, "L"],
      21: ["front", -22, 34, "L"],
      24: ["front", -2, 22, "L"],
      26: ["front", 14, 1.5, "R"],
    },
  },
  {
    file: "ratchet-wheel",
    drawing: "TG-033",
    views: { top: "top" },
    notes: {
      1: ["top", 40 * 0.6, -40 * 0.8, "R"],
      2: ["top", -41, 23, "L"],
      3: ["top", 0, -47, "L"],
      4: ["top", 4, 45, "R"],
      5: ["top", -3.2, 46, "L"],
      6: ["top", 10 * c45, -10 * c45, "R"],
      7: ["top", 29.8, 9.8, "R"],
      8: ["top", -28 * 0.95, -28 * 0.31, "L"],
      9: ["front", 40, 5, "R"],
      10: ["top", -17 * c45, 17 * c45, "L"],
      11: ["front", -17, 9, "L"],
      12: ["top", 3, 11, "R"],
      13: ["top", 0, 12.8, "R"],
    },
  },
  {
    file: "counterweight",
    drawing: "TG-036",
    views: { top: "bottom" },
    notes: {
      1: ["front", 27, 24, "R"],
      2: ["front", -10, 60, "L"],
      3: ["front", 10, 57, "R"],
      4: ["front", 24.7, 41.7, "R"],
      5: ["front", -20, 44, "L"],
      6: ["front", 2.2, 54.2, "R"],
      7: ["front", -3.1, 52, "L"],
      8: ["front", 25.5, 12, "R"],
      9: ["front", -27, 12, "L"],
      10: ["top", 2.5, 0, "R"],
      11: ["front", -2.5, 8, "L"],
    },
  },
  {
    file: "gauge-spindle",
    drawing: "TG-041",
    views: { top: "top" },
    notes: {
      1: ["front", -10, 15, "L"],
      2: ["front", 10, 25, "R"],
      3: ["front", -6, 50, "L"],
      4: ["front", 6, 58, "R"],
      5: ["front", -4, 84, "L"],
      6: ["front", 4, 80, "R"],
      7: ["front", 5.7, 66.4, "R"],
      8: ["front", -5.8, 66, "L"],
      9: ["front", -6, 69, "L"],
      10: ["front", 4, 86, "R"],
      11: ["front", -4, 88, "L"],
      12: ["front", 5, 0.5, "R"],
      13: ["front", 4.2, 17.5, "R"],
      14: ["front", 3.6, 89.6, "R"],
    },
  },
  {
    file: "station-ring",
    drawing: "TG-044",
    views: { top: "top" },
    notes: {
      1: ["top", 60 * c45, 60 * c45, "R"],
      2: ["top", 45 * c45, -45 * c45, "R"],
      3: ["front", 58, 30, "R"],
      4: ["top", 10, -55, "R"],
      5: ["front", 8 * c45, 20 + 8 * c45, "R"],
      6: ["front", -8.5, 11.5, "L"],
      7: ["front", -12 * c45, 20 + 12 * c45, "L"],
      8: ["top", 0, 50, "L"],
      9: ["top", -50 * c45, 50 * c45, "L"],
      10: ["front", 8.5, 11.5, "R"],
    },
  },
  {
    file: "float-bracket",
    drawing: "TG-046",
    views: { top: "top" },
    notes: {
      1: ["top", 0.05, 0.06, "L"],
      2: ["front", 0.6, 0.7, "R"],
      3: ["top", 1.55, 0.2, "R"],
      4: ["top", 1.74, 0.9, "R"],
      5: ["top", 1.7, 1.48, "L"],
      6: ["front", 0.47, 0.46, "L"],
      7: ["front", 0.375, 0.375, "L"],
      8: ["top", 1.7, 1.03, "L"],
      9: ["front", 1.7, 0.575, "R"],
      10: ["top", 1.75, 1.0, "R"],
    },
  },
  {
    file: "guide-block",
    drawing: "TG-048",
    views: { top: "top" },
    notes: {
      1: ["front", -40, 4, "L"],
      2: ["top", 30, 20, "R"],
      3: ["front", -40, 26, "L"],
      4: ["front", 36, 30.5, "L"],
      5: ["front", 43, 38, "R"],
      6: ["top", 46, 6, "R"],
      7: ["front", 47, 33, "R"],
      8: ["front", 46.4, 36.3, "R"],
      9: ["top", -10, 19, "R"],
      10: ["front", -11, 16, "R"],
      11: ["top", -30, 12, "L"],
      12: ["top", 30, -12, "R"],
      13: ["top", -30, -12, "L"],
      14: ["top", -39, 18.5, "L"],
    },
  },
];

/** The document of a card with what the print adds to the workpiece: its pins, its sheet, what was picked. */
function whole({ title, prints, balloons }: Job, document: JobDocument): JobDocument {
  return { ...document, title, prints, balloons };
}

const escape = (t: string) => t.replace(/&/g, "&amp;").replace(/</g, "&lt;");
const demo = new URL("../demo/", import.meta.url);
const kernel = await loadKernel();
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium-headless-shell",
  args: ["--no-sandbox", "--disable-background-networking"],
});
const page = await browser.newPage({ viewport: { width: W, height: H } });

// Reference dimensions drive nothing: what each measures is picked, as on the stage.
type Pick = (f: FaceInfo, row: (n: number) => string) => boolean;
const side =
  (n: number, role: string): Pick =>
  (f, row) =>
    f.tag?.row === row(n) && f.tag.role === role && f.surface === "plane";
const picks: Record<string, Record<number, Pick[]>> = {
  "chart-drum-hub": { 30: [side(1, "top"), side(2, "top")] },
  "gauge-lid": { 16: [side(3, "floor"), side(1, "bottom")] },
};

// One demo alone, by its file: node --import tsx scripts/demoPrints.mts counterweight
for (const j of jobs.filter((x) => !process.argv[2] || x.file === process.argv[2])) {
  const text = readFileSync(new URL(`${j.file}.card`, demo), "utf8");
  const read = readCard(text);
  if (read.errors.length) throw new Error(`${j.file}: ${JSON.stringify(read.errors)}`);
  const job: Job = structuredClone(read.job);
  // The print shows the part as it should be; one demo card has a slip in it on purpose.
  const e = await evaluate(j.asPrinted ? readCard(text.replace(...j.asPrinted)).job : job, kernel);
  const key = e.solved.finalKey!;
  const k = unitOf[job.unit].mm;
  const { min, max } = e.part!.box;
  const width = max.x - min.x,
    depth = max.y - min.y,
    height = max.z - min.z;
  const scale = Math.min(620 / width, 520 / depth, 700 / (depth + height + 0.12 * depth));
  const centreX = 640,
    topY = 70 + (depth * scale) / 2 + 30,
    frontY = topY + (depth * scale) / 2 + 90 + (height * scale) / 2;
  const views = {
    top: { name: j.views.top, cy: topY, midY: (min.y + max.y) / 2 },
    front: { name: "front" as const, cy: frontY, midY: (min.z + max.z) / 2 },
  };
  const at = (v: "top" | "front", x: number, y: number) => ({
    x: centreX + (x - (min.x + max.x) / 2) * scale,
    y: views[v].cy - (y - views[v].midY) * scale,
  });
  const parts: string[] = [];
  for (const v of ["top", "front"] as const) {
    for (const hidden of [true, false]) {
      const d = kernel
        .drawing(key, viewOf[views[v].name], true)
        .filter((l) => l.hidden === hidden)
        .map((l) =>
          l.points
            .map((p, i) => {
              const q = at(v, p.x, p.y);
              return `${i ? "L" : "M"}${q.x.toFixed(1)} ${q.y.toFixed(1)}`;
            })
            .join(""),
        )
        .join("");
      parts.push(
        `<path d="${d}" fill="none" stroke="#111" stroke-width="${hidden ? 0.9 : 2}" ${hidden ? 'stroke-dasharray="7 4"' : ""}/>`,
      );
    }
    const a = at(v, min.x, views[v].midY),
      b = at(v, max.x, views[v].midY);
    parts.push(
      `<path d="M${a.x - 24} ${a.y}H${b.x + 24}" stroke="#111" stroke-width=".8" stroke-dasharray="22 4 5 4"/>`,
    );
    if (v === "top")
      parts.push(
        `<path d="M${centreX} ${at("top", 0, min.y).y + 24}V${at("top", 0, max.y).y - 24}" stroke="#111" stroke-width=".8" stroke-dasharray="22 4 5 4"/>`,
      );
  }
  // Texts stand in columns beside each view, in the order of what they point to.
  for (const v of ["top", "front"] as const)
    for (const side of ["L", "R", "T"] as Place[]) {
      const mine = job.balloons
        .filter((b) => j.notes[b.number]?.[0] === v && j.notes[b.number]?.[3] === side)
        .map((b) => ({ b, to: at(v, j.notes[b.number][1] * k, j.notes[b.number][2] * k) }));
      mine.sort((p, q) => (side === "T" ? p.to.x - q.to.x : p.to.y - q.to.y));
      const half = ((v === "top" ? depth : height) * scale) / 2,
        step = 34;
      let last = -Infinity;
      mine.forEach(({ b, to }, i) => {
        const y =
          side === "T" ? views[v].cy - half - 34 : Math.max(last + step, Math.min(to.y - 10, views[v].cy + half));
        last = y;
        const x =
          side === "T"
            ? centreX + (i - (mine.length - 1) / 2) * 190
            : side === "L"
              ? centreX - (width * scale) / 2 - 70
              : centreX + (width * scale) / 2 + 70;
        const text = escape(
          writeBalloonText({
            ...b,
            note: undefined,
            reference: undefined,
            middle: undefined,
            basic: undefined,
          }).replace(/ X (\d+)°/, " × $1°"),
        );
        const shown = b.reference ? `(${text})` : b.basic ? `[${text}]` : text;
        const anchor = side === "L" ? "end" : side === "R" ? "start" : "middle";
        const elbow = side === "L" ? x + 8 : side === "R" ? x - 8 : x;
        const dx = to.x - elbow,
          dy = to.y - (side === "T" ? y + 8 : y - 6),
          l = Math.hypot(dx, dy) || 1;
        const [ux, uy] = [dx / l, dy / l];
        parts.push(
          `<path d="M${elbow} ${side === "T" ? y + 8 : y - 6}L${to.x} ${to.y}" stroke="#111" stroke-width="1" fill="none"/><path d="M${to.x} ${to.y}l${(-ux * 11 - uy * 3.4).toFixed(1)} ${(-uy * 11 + ux * 3.4).toFixed(1)}l${(uy * 6.8).toFixed(1)} ${(-ux * 6.8).toFixed(1)}z" fill="#111"/>`,
        );
        parts.push(`<text x="${x}" y="${y}" text-anchor="${anchor}" class="d">${shown}</text>`);
        const w = shown.length * 10.2;
        const px = side === "L" ? x - w - 34 : side === "R" ? x + w + 34 : x - w / 2 - 32;
        b.place = { print: "sheet1", x: Number((px / W).toFixed(4)), y: Number(((y - 6) / W).toFixed(4)) };
      });
    }
  const checks = job.checks
    .map((c) =>
      c.kind === "mass"
        ? `FINISHED MASS ${c.value} ${c.unit}`
        : c.kind === "area"
          ? `AREA OF ${c.of.toUpperCase()} FACE ${c.value} ${job.unit}²`
          : c.kind === "size"
            ? `OVERALL ${c.of.toUpperCase()} ${c.value}`
            : c.kind === "holes"
              ? `${c.value} HOLES`
              : "",
    )
    .filter(Boolean);
  const notes = [
    "NOTES",
    `ALL DIMENSIONS IN ${{ in: "INCHES", mm: "MILLIMETRES" }[unitOf[job.unit].figures]}`,
    job.title.edgeBreak ? `BREAK ALL EDGES ${job.title.edgeBreak} MAX` : "REMOVE BURRS",
    ...(job.title.general ? [`GENERAL TOLERANCES ISO 2768-${job.title.general}`] : []),
    ...checks,
  ];
  parts.push(
    notes
      .map((n, i) => `<text x="60" y="${H - 44 - (notes.length - 1 - i) * 18}" class="n">${escape(n)}</text>`)
      .join(""),
  );
  const cells: [number, number, string, string][] = [
    [0, 250, "TITLE", job.name.toUpperCase()],
    [250, 130, "DRAWING", j.drawing],
    [380, 60, "REV", job.revision],
  ];
  const cells2: [number, number, string, string][] = [
    [0, 250, "MATERIAL", job.material.name.toUpperCase()],
    [250, 130, "UNIT", { in: "INCH", mm: "MM" }[unitOf[job.unit].figures]],
    [380, 60, "SHEET", "1/1"],
  ];
  const tx = W - 500,
    ty = H - 166;
  parts.push(
    `<rect x="${tx}" y="${ty}" width="440" height="126" fill="#fff" stroke="#111" stroke-width="2"/><text x="${tx + 10}" y="${ty + 25}" class="t">HARBOUR TIDE-GAUGE WORKSHOP</text><path d="M${tx} ${ty + 36}h440M${tx} ${ty + 81}h440" stroke="#111"/>`,
  );
  [cells, cells2].forEach((row, r) =>
    row.forEach(([x, , l, t]) =>
      parts.push(
        `<path d="M${tx + x} ${ty + 36 + r * 45}v45" stroke="#111"/><text x="${tx + x + 8}" y="${ty + 50 + r * 45}" class="l">${l}</text><text x="${tx + x + 8}" y="${ty + 71 + r * 45}" class="t">${escape(t)}</text>`,
      ),
    ),
  );
  const font = (f: string) =>
    `data:font/woff2;base64,${readFileSync(new URL(`../node_modules/@fontsource/${f}`, import.meta.url)).toString("base64")}`;
  const html = `<style>@font-face{font-family:D;src:url(${font("spline-sans-mono/files/spline-sans-mono-latin-400-normal.woff2")})}@font-face{font-family:S;src:url(${font("noto-sans-math/files/noto-sans-math-latin-400-normal.woff2")});unicode-range:U+2300}body{margin:0}.d{font:17px S,D}.n{font:15px D}.t{font:16px D}.l{font:10px D}</style><svg xmlns="http://www.w3.org/2000/svg" width="${W}" height="${H}" style="display:block;background:#fff"><rect x="30" y="30" width="${W - 60}" height="${H - 60}" fill="none" stroke="#111" stroke-width="2.5"/>${parts.join("")}</svg>`;
  await page.setContent(html);
  await page.evaluate(() => document.fonts.ready.then(() => undefined));
  const png = await page.screenshot({ type: "png" });
  writeFileSync(new URL(`${j.file}.png`, demo), png);
  const a = at("top", min.x, views.top.midY),
    b = at("top", max.x, views.top.midY);
  const fa = at("front", min.x, views.front.midY),
    fb = at("front", max.x, views.front.midY),
    split = topY + (depth * scale) / 2 + 42;
  job.title.drawing = j.drawing;
  job.title.projection = "third";
  job.prints = [
    {
      id: "sheet1",
      name: `${j.drawing} sheet 1`,
      attachment: createHash("sha256").update(png).digest("hex"),
      mediaType: "image/png",
      // The sheet holds two views: each is a stretch of its own.
      regions: [
        {
          view: j.views.top,
          page: 1,
          a: { x: a.x / W, y: a.y / W },
          b: { x: b.x / W, y: b.y / W },
          distance: lengthText(width, job.unit),
          direction: "x",
          place: { x: lengthText(min.x, job.unit), y: toNumberText("0") },
          box: { x0: 0.02, y0: 0.02, x1: 0.98, y1: split / W },
        },
        {
          view: "front",
          page: 1,
          a: { x: fa.x / W, y: fa.y / W },
          b: { x: fb.x / W, y: fb.y / W },
          distance: lengthText(width, job.unit),
          direction: "x",
          place: { x: lengthText(min.x, job.unit), y: lengthText((min.z + max.z) / 2, job.unit) },
          box: { x0: 0.02, y0: split / W, x1: 0.98, y1: (frontY + (height * scale) / 2 + 40) / W },
        },
      ],
    },
  ];
  for (const [number, wanted] of Object.entries(picks[j.file] ?? {})) {
    const faces = kernel.faces(e.solved.finalKey!);
    const [a, b] = wanted.map((is) => {
      const f = faces.find((g) => is(g, (n) => job.rows[n - 1].id))!;
      return featureOf(f, f.point)!;
    });
    const balloon = job.balloons.find((x) => x.number === Number(number))!;
    balloon.measure = { a, b };
  }
  writeFileSync(new URL(`${j.file}.job.json`, demo), JSON.stringify(whole(job, read.document), null, 1) + "\n");
  console.log(j.file, png.length);
}
await browser.close();
process.exit(0);
