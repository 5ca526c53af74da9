// An inch job says nothing in millimetres or grams, whatever is wrong with it; a metric one nothing in inches.
import { readFileSync } from "node:fs";
import { readableExplanations, readableReport } from "@/cli/readable";
import { headlessReport } from "@/core/evaluate/report";
import { jobOf as workOf, readJobText, type Job } from "@/core/job";
import { explain } from "@/core/mismatch";
import { evaluateJob, inch, jobOf, kernel } from "../helpers/card";

/** Everything a value says to somebody, however deep it lies. */
function sentences(value: unknown): string[] {
  if (typeof value === "string") return [value];
  if (typeof value !== "object" || value === null) return [];
  return Object.values(value).flatMap(sentences);
}
const METRIC = /\d\s*(mm|cm|mm²|mm³|cm³|g|kg)(?![\w/])|⟦/;
const INCH = /\d\s*(in(?! the)|in²|in³|lb|oz|inch)(?![\w/])|\d"|⟦/;

async function said(job: Job): Promise<string[]> {
  const e = await evaluateJob(job);
  const found = await explain(job, e, await kernel());
  return [
    ...sentences(headlessReport(job, e, [], null)),
    ...readableReport(job, e).split("\n"),
    ...readableExplanations(job, e, found).split("\n"),
  ];
}
const demo = (name: string): Job => {
  const read = readJobText(readFileSync(`demo/${name}.job.json`, "utf8"));
  if (!read.ok) throw new Error(read.problems[0].message);
  return workOf(read.value);
};
/** Whether a line says a check value in the unit that the print itself gives it in: it was asked for. */
const isAsked = (line: string, job: Job): boolean =>
  /^(check +)?mass: /.test(line) && job.checks.some((c) => "unit" in c && line.includes(` ${c.unit} printed`));
/** Names of tools and threads are what they are called; a figure's source says its own unit. */
const spoken = (list: string[], other: RegExp) =>
  list.filter((t) => other.test(t.replace(/"[^"]*"/g, "").replace(/\b(ISO|ASME|DIN) [^;)]*/g, "")));

test.each(["sensor-clamp", "gauge-lid"])(
  "%s, in inches, is told in inches",
  async (name) => {
    const job = demo(name);
    const unasked = (await said(job)).filter((line) => !isAsked(line, job));
    expect(spoken(unasked, METRIC)).toEqual([]);
  },
  120_000,
);

test.each(["float-pulley", "chart-drum-hub"])(
  "%s, in millimetres, is told in millimetres",
  async (name) => {
    expect(spoken(await said(demo(name)), INCH)).toEqual([]);
  },
  120_000,
);

test("what is wrong with rows and outlines of an inch job is told in inches", async () => {
  const lines = inch(
    "STOCK PLATE 4 X 3 X 1",
    'OUTLINE "rounds"',
    "RECTANGLE 2 X 1",
    "ROUND .75 ALL",
    "END",
    'OUTLINE "open"',
    "START 0,0",
    "LINE TO 1,0",
    "LINE TO 1,1",
    "END",
    'OUTLINE "away"',
    "RECTANGLE 1 X 1",
    "BREAK AT 3,3",
    "END",
    'OUTLINE "axis"',
    "RECTANGLE 1 X 1",
    "END",
    "LEAVE BLOCK 4 X 3 X 1",
    'CUT POCKET "open" DEEP .1',
    'CUT POCKET "rounds" DEEP .1',
    'CUT POCKET "away" DEEP .1',
    'CUT TURNED "axis"',
    "CUT POCKET 1 X .5 DEEP .98",
    "CUT ⌀.05 DEEP .9 AT 1.98,0",
    "CUT ⌀.5 DEEP 20 AT 1,1",
    "CUT ⌀.00001 THRU",
    "CUT ⌀99999 THRU",
  );
  const read = jobOf(lines);
  const all = await said(read);
  expect(spoken(all, METRIC)).toEqual([]);
  expect(all.some((t) => /does not fit; the largest that does is \.\d+ in/.test(t))).toBe(true);
  expect(all.some((t) => /an open end at .* in$/.test(t))).toBe(true);
}, 120_000);
