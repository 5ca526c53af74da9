// `npm run bench`: every budget as a ratio against a baseline in the same run. Exit 1 when one is broken.
import { spawnSync } from "node:child_process";
import { toNumberText } from "../src/core/number";
import { readCard, writeCard } from "../src/core/callout";
import { readFileSync } from "node:fs";
import { apply } from "mutative";
import { unpackStanding } from "../src/core/evaluate/standing";
import { applyEdits, jobOf as workOf, readJobText, type Job } from "../src/core/job";
import { delta } from "../src/core/job/delta";
import { rowNumbers } from "../src/core/rows";
import { prepare, solve } from "../src/core/engine";
import { numberScope } from "../src/core/engine/numbers";
import { solveWire } from "../src/core/outline/wire";
import { OpenCascadeKernel } from "../src/kernel/openCascade";
import { warmUp } from "../src/kernel/warmUp";
import { loadEngine } from "../src/kernel/node";

const { oc } = await loadEngine();
const warm = new OpenCascadeKernel(oc);
warmUp(warm);
const ms = async (work: () => unknown) => {
  const t = performance.now();
  await work();
  return performance.now() - t;
};
const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
const repeat = async (n: number, work: () => unknown) => {
  const l: number[] = [];
  for (let i = 0; i < n; i++) l.push(await ms(work));
  return median(l);
};
let broken = 0;
/** @param felt a ratio of two things nobody waits for breaks nothing: it holds too where the time itself is held */
const say = (name: string, value: number, limit: number, detail: string, felt = false) => {
  const ok = value <= limit || felt;
  if (!ok) broken++;
  console.log(
    `${ok ? "ok    " : "BROKEN"} ${name.padEnd(58)} ${value.toFixed(3).padStart(8)}  held to ${limit}   ${detail}`,
  );
};
const jobOf = (lines: string[]): Job => {
  const r = readCard(["UNIT mm", ...lines].join("\n"));
  if (r.errors.length) throw new Error(JSON.stringify(r.errors));
  return r.job;
};
const solveOn = async (job: Job, kernel = new OpenCascadeKernel(oc)) => {
  const s = await solve(prepare(job), kernel);
  const bad = s.rows.find((r) => r.state === "failed");
  if (bad) throw new Error(`row ${bad.number}: ${bad.message}`);
  return { s, kernel };
};
const jobOfDemo = (name: string): Job => {
  const read = readJobText(readFileSync(new URL(`../demo/${name}.job.json`, import.meta.url), "utf8"));
  if (!read.ok) throw new Error(read.problems[0].message);
  return workOf(read.value);
};
/** Path of a row's first number. */
const numberOf = (row: Job["rows"][number]) => rowNumbers(row.body)[0].path;
const set = (job: Job, id: string, path: string, text: string): Job => {
  const r = applyEdits(job, [{ edit: "setNumber", id, path, text: toNumberText(text) }]);
  if (!r.ok) throw new Error(r.problems[0].message);
  return r.value.job;
};

// First, while the library's memory is as a worker finds it: later kernels of this run keep their states to its end.
const small = jobOf(["LEAVE BLOCK 60 X 40 X 20", "CUT POCKET 30 X 20 R4 DEEP 8", "CUT 4X ⌀5 THRU GRID 2 2 BY 50 30"]);
const heap = () => (oc as { wasmMemory: WebAssembly.Memory }).wasmMemory.buffer.byteLength;
const rebuilt = new OpenCascadeKernel(oc);
let after20 = 0;
for (let i = 0; i < 500; i++) {
  const { s } = await solveOn(set(small, "r2", "radius", String((4 + i / 1000).toFixed(3))), rebuilt);
  rebuilt.mesh(s.finalKey!);
  if (i === 20) after20 = heap();
}
say(
  "500 rebuilds, heap at the end / after 20",
  heap() / after20,
  1.1,
  `${(heap() / 1e6).toFixed(0)} MB of ${(after20 / 1e6).toFixed(0)} MB`,
);
if (process.argv.includes("--heap")) process.exit(broken ? 1 : 0);

// A fixture plate: three pockets, 49 holes.
const plate = jobOf([
  "LEAVE BLOCK 300 X 200 X 38 R8",
  "CUT POCKET 70 X 50 R8 DEEP 15 AT -90,40",
  "CUT POCKET 70 X 50 R8 DEEP 15 AT 0,40",
  "CUT POCKET 70 X 50 R8 DEEP 15 AT 90,40",
  "CUT 24X ⌀6 THRU GRID 8 3 BY 34 18 AT 0,-50",
  "CUT 12X M6 DEEP 12 DRILL DEEP 16 GRID 6 2 BY 50 170",
  "CUT 12X ⌀8 THRU CBORE ⌀14 DEEP 8 GRID 4 3 BY 20 10 AT -90,40 ON FLOOR OF 2",
  "CUT ⌀10 DEEP 20 FLAT AT 130,0",
]);
let d = 10;
const standing = await solveOn(plate);
standing.kernel.mesh(standing.s.finalKey!);
const steps = standing.s.rows.map((r) => r.placed!.step!);
// The bare calls are booleans, row by row: what the engine does without one counts as its gain.
const booleansOnly = () => new OpenCascadeKernel(oc, { inserts: false });
const bareCalls = () => {
  const k = booleansOnly();
  let key: string | null = null;
  steps.forEach((s, i) => {
    const r = k.apply(`b${i}`, key, s);
    if (!r.ok) throw new Error(r.problems[0].message);
    key = `b${i}`;
  });
};
// In turns, the first two of each unmeasured: the library gets faster while it runs, and neither shall gain by it.
const times: { full: number; bare: number }[] = [];
for (let i = 0; i < 9; i++) times.push({ full: await ms(() => solveOn(plate)), bare: await ms(bareCalls) });
const [full, bare] = (["full", "bare"] as const).map((of) => median(times.slice(2).map((t) => t[of])));
const last = await repeat(7, async () => {
  const { s } = await solveOn(set(plate, "r8", "diameter", String((d += 0.01).toFixed(2))), standing.kernel);
  standing.kernel.mesh(s.finalKey!);
});
console.log(`plate of ${standing.kernel.faces(standing.s.finalKey!).length} faces`);
say(
  "edit of the last row, keystroke to picture / full rebuild",
  last / full,
  0.35,
  `${last.toFixed(0)} ms of ${full.toFixed(0)} ms`,
);

say(
  "full rebuild through the engine / bare boolean calls",
  full / bare,
  0.5,
  `${full.toFixed(0)} ms of ${bare.toFixed(0)} ms`,
);

// Its counterbores break out of their pocket's walls: that row stays a boolean. Closer in and apart, nothing does.
const spaced = jobOf(
  writeCard(plate)
    .split("\n")
    .filter((l) => !l.startsWith("JOB") && !l.startsWith("UNIT"))
    .map((l) => l.replace("BY 20 10", "BY 16 15")),
);
const spacedFull = await repeat(5, () => solveOn(spaced));
const spacedBare = await repeat(5, () => solveOn(spaced, booleansOnly()));
say(
  "the same plate, its counterbores apart / its booleans",
  spacedFull / spacedBare,
  0.5,
  `${spacedFull.toFixed(0)} ms of ${spacedBare.toFixed(0)} ms`,
);

const windows = jobOf(["LEAVE BLOCK 254 X 508 X 6.35", "CUT POCKET 25.4 X 25.4 THRU GRID 6 13 BY 38 38"]);
const single = jobOf([
  "LEAVE BLOCK 254 X 508 X 6.35",
  ...Array.from(
    { length: 78 },
    (_, i) => `CUT POCKET 25.4 X 25.4 DEEP 7 AT ${((i % 6) - 2.5) * 38},${(Math.floor(i / 6) - 6) * 38}`,
  ),
]);
const flat = await repeat(5, () => solveOn(windows)),
  singles = await ms(() => solveOn(single, booleansOnly()));
say(
  "window plate (78) from its card / 78 single cuts",
  flat / singles,
  0.1,
  `${flat.toFixed(0)} ms of ${singles.toFixed(0)} ms`,
);

const gmsh = spawnSync(
  "/usr/bin/python3",
  [
    "-c",
    `
import gmsh,time,json,math
gmsh.initialize(); gmsh.option.setNumber("General.Terminal",0); o=gmsh.model.occ
def run():
    gmsh.clear(); t=time.time()
    b=[(3,o.addBox(-150,-100,0,300,200,38))]
    for x in (-90,0,90): b,_=o.cut(b,[(3,o.addBox(x-35,15,23,70,50,15))])
    b,_=o.cut(b,[(3,o.addCylinder((i-3.5)*34,-50+(j-1)*18,-1,0,0,40,3)) for i in range(8) for j in range(3)])
    b,_=o.cut(b,[(3,o.addCylinder((i-2.5)*50,(j-.5)*170,22,0,0,17,2.5)) for i in range(6) for j in range(2)])
    b,_=o.cut(b,[(3,o.addCylinder(-90+(i-1.5)*20,40+(j-1)*10,-1,0,0,25,4)) for i in range(4) for j in range(3)])
    b,_=o.cut(b,[(3,o.addCylinder(130,0,18,0,0,21,5))])
    return time.time()-t
run(); print(json.dumps(sorted(run() for _ in range(3))[1]*1000))`,
  ],
  { encoding: "utf8" },
);
if (gmsh.status === 0) {
  const like = jobOf([
    "LEAVE BLOCK 300 X 200 X 38",
    ...[-90, 0, 90].map((x) => `CUT POCKET 70 X 50 DEEP 15 AT ${x},40`),
    "CUT 24X ⌀6 DEEP 40 FLAT GRID 8 3 BY 34 18 AT 0,-50",
    "CUT 12X ⌀5 DEEP 16 FLAT GRID 6 2 BY 50 170",
    "CUT 12X ⌀8 DEEP 40 FLAT GRID 4 3 BY 20 10 AT -90,40",
    "CUT ⌀10 DEEP 20 FLAT AT 130,0",
  ]);
  const ours = await repeat(3, () => solveOn(like, booleansOnly())),
    native = Number(gmsh.stdout.trim().split("\n").pop());
  say(
    "the same booleans, ours warm / native library",
    ours / native,
    1.5,
    `${ours.toFixed(0)} ms of ${native.toFixed(0)} ms`,
  );
} else console.log("skip   the native library is not here (python3-gmsh)");

const long = (n: number) =>
  jobOf([
    "LEAVE BLOCK 900 X 900 X 30",
    ...Array.from(
      { length: n - 1 },
      (_, i) => `CUT ⌀5 DEEP 10 FLAT AT ${((i % 20) - 10) * 40 + 7},${(Math.floor(i / 20) - 12) * 34}`,
    ),
  ]);
const big = long(200);
prepare(big);
let k = 5;
const stages = await repeat(40, () => prepare(set(big, "r150", "diameter", String((k += 0.01).toFixed(2)))));
say("stages 1 to 3, 200 rows, a keystroke (ms)", stages, 5, "");

// A comb of 60 elements, every one located by relations and four lengths alone.
const comb = [
  "START 0,0",
  ...Array.from({ length: 15 }, (_, i) => [
    `LINE TO ?,? NEAR ${i * 10 + 1},21`,
    `LINE TO ?,? NEAR ${i * 10 + 6},19`,
    `LINE TO ?,? NEAR ${i * 10 + 4},1`,
    `LINE TO ?,? NEAR ${i * 10 + 11},-1`,
  ]).flat(),
  "LENGTH 1 20",
  "LENGTH 2 5",
  "LENGTH 4 5",
  "EQUAL 1 3",
  ...Array.from({ length: 15 }, (_, i) => [
    `VERTICAL ${4 * i + 1}`,
    `HORIZONTAL ${4 * i + 2}`,
    `VERTICAL ${4 * i + 3}`,
    `HORIZONTAL ${4 * i + 4}`,
    ...(i ? [1, 2, 3, 4].map((q) => `EQUAL ${4 * i + q} ${q}`) : []),
  ]).flat(),
];
const walked = jobOf(['OUTLINE "comb"', ...comb, "END", "LEAVE BLOCK 1 X 1 X 1"]),
  outlineScope = numberScope(walked);
for (let i = 0; i < 6; i++) solveWire(walked.outlines[0].items, outlineScope);
say(
  "an outline of 60 elements solved and diagnosed (ms)",
  await repeat(9, () => {
    if (solveWire(walked.outlines[0].items, outlineScope).freedom !== 0) throw new Error("the comb is not located");
  }),
  50,
  "",
);

// Every hole a row of its own: the last one is edited.
const tail: Record<number, { solved: number; pictured: number; whole: number }> = {};
for (const n of [50, 100, 200, 500]) {
  const job = long(n);
  const kernel = new OpenCascadeKernel(oc);
  // As often as the row it is compared with: one run alone would be measured cold.
  await solveOn(job, kernel);
  const whole = await repeat(n > 200 ? 1 : 3, () => solveOn(job));
  let x = 5;
  const edited = () => set(job, `r${n}`, "diameter", String((x += 0.01).toFixed(2)));
  const pictured = await repeat(5, async () => kernel.mesh((await solveOn(edited(), kernel)).s.finalKey!));
  tail[n] = { solved: await repeat(9, () => solveOn(edited(), kernel)), pictured, whole };
}
const told = (what: "solved" | "pictured" | "whole") =>
  Object.entries(tail)
    .map(([n, t]) => `${n}: ${t[what].toFixed(0)}`)
    .join(", ") + " ms";
say(
  "the last hole's edit, 500 rows / 50 rows: the solid",
  tail[500].solved / tail[50].solved,
  1.5,
  `or one frame, 16 ms: ${told("solved")}`,
  tail[500].solved <= 16,
);
say(
  "the same, with its picture",
  tail[500].pictured / tail[50].pictured,
  1.5,
  `or 100 ms: ${told("pictured")}`,
  tail[500].pictured <= 100,
);
const inOne = jobOf(["LEAVE BLOCK 900 X 900 X 30", "CUT 200X ⌀5 DEEP 10 FLAT GRID 20 10 BY 40 60"]);
const oneRow = await repeat(3, () => solveOn(inOne));
say(
  "200 rows of one hole / one row of 200 holes",
  tail[200].whole / oneRow,
  2,
  `${oneRow.toFixed(0)} ms of ${told("whole")}`,
);

// Seven letters: joined for the first time, and when a row before them changes.
const lettered = (length: string) =>
  jobOf([
    `LEAVE BLOCK ${length} X 40 X 10`,
    'OUTLINE "t"',
    'TEXT "TIDE 71" HEIGHT 8',
    "END",
    'CUT ENGRAVE "t" V 60 DEEP .3',
  ]);
const engraver = new OpenCascadeKernel(oc);
const joined = await ms(() => solveOn(lettered("120"), engraver));
const moved = await repeat(3, () => solveOn(lettered(String(120 + (k += 0.01))), engraver));
say("seven letters, a row before them changed (ms)", moved, 1000, `joined the first time: ${joined.toFixed(0)} ms`);
say("seven letters, the first time (ms)", joined, 1000, "");

// What a keystroke costs on the worker's side of its door: the change cloned, put on the job, stages 1 to 3.
const ratchet = jobOfDemo("ratchet-wheel");
let at = ratchet;
prepare(at);
const door = await repeat(40, () => {
  const next = set(at, at.rows[0].id, numberOf(at.rows[0]), String((k += 0.01).toFixed(2)));
  const patches = structuredClone(delta(at, next));
  at = apply(at as object, patches) as Job;
  prepare(at);
});
say("one keystroke through the worker's door, ratchet wheel (ms)", door, 10, "");

const bytes = new Uint8Array(readFileSync(new URL("../demo/chart-drum-hub.standing.gz", import.meta.url)));
say("opening: what was kept of the hub, unpacked (ms)", await repeat(7, () => unpackStanding(bytes)), 100, "");

process.exit(broken ? 1 : 0);
