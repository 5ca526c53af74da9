import { readFileSync } from "node:fs";
import { jobOf, readJobText } from "@/core/job";
import { kernel, jobOf as cardJob, mm } from "../helpers/card";
import { runs } from "../helpers/thorough";
import { torture } from "../helpers/torture";

const line = (name: string, ...steps: string[]) => [`OUTLINE "${name}"`, ...steps, "END"].join("\n");
/** A part with a row of nearly every new kind. */
const busy = mm(
  line("way", "START 0,0", "LINE TO X 30", "ARC TANGENT CENTRE 30,15 TO 45,15"),
  line("dots", "CIRCLE ⌀4 AT -5,0", "CIRCLE ⌀4 AT 5,0"),
  'PLANE "p" OFFSET 6 FROM TOP',
  'PLANE "t" TILT 30 ABOUT X AT 0,0,20',
  "LEAVE BLOCK 80 X 60 X 20",
  'LEAVE ROUND ⌀16 X TO NEXT AT 20,10 ON PLANE "p"',
  "CUT ⌀6 DEEP TO NEXT AT 20,10",
  "CUT POCKET 20 X 14 R3 DEEP 8 AT -20,0",
  'LEAVE TEXT "dots" X 1 ON FLOOR OF 4 AT -20,0',
  "CUT ROUND 2 VERTICAL OF 1",
  "CUT TAPER ⌀10 1:10 DEEP 8 AT 0,20",
  "REPEAT 7 LINE 2X BY 12 ALONG X",
  "MIRROR 7-8 ABOUT Y",
  'CUT ⌀3 DEEP 6 AT 0,-15 ON PLANE "t"',
);

describe("random edits", () => {
  it("to a part of many kinds: nothing breaks, and all is undone", async () => {
    const k = await kernel();
    const most = runs(200, 40);
    let done = 0;
    for (let seed = 1; done < most; seed++) done += await torture(cardJob(busy), k, seed, 40);
    expect(done).toBeGreaterThanOrEqual(most);
  }, 240_000);
  it("to demo jobs", async () => {
    const k = await kernel();
    const most = runs(100, 25);
    let done = 0;
    for (const [i, name] of ["gauge-lid", "sensor-clamp", "float-pulley"].entries()) {
      const read = readJobText(readFileSync(`demo/${name}.job.json`, "utf8"));
      if (!read.ok) throw new Error(read.problems[0].message);
      done += await torture(jobOf(read.value), k, 40 + i, most);
    }
    expect(done).toBeGreaterThanOrEqual(3 * most);
  }, 240_000);
});
