import { problems } from "./problems";
import { showLength, type LengthUnit, unitOf } from "@/core/number";
import type { Loop } from "@/core/outline";
import { endOf, startOf } from "@/core/outline";
import type { PathFile } from "@/core/paths/file";
import type { PathPlan } from "@/core/paths/plan";
import { pathPractice } from "@/core/tables";
import { fail, ok, type Result } from "@/core/base/result";

/**
 * Paths cut from above as plain RS-274 words (NIST IR 6556): G17 G20/G21 G90, arcs by centre (I J).
 * X and Y are the job's own; Z0 is the plane of the highest path. The first lines say every row that is not in the
 * file and every word
 * the machine still needs. A file that could only do harm is not written, with the reasons.
 */
export function pathsNc(file: PathFile, unit: LengthUnit, jobName: string): Result<string> {
  if (file.refused.length)
    return fail(problems.noWords(file.refused.join("; ")), {
      expected: "what is named there put right first",
    });
  const words = new Words(unit, file.zero);
  const out = ["%", ...heading(file, unit, jobName), `G17 ${unitOf[unit].inFiles.nc} G40 G49 G80 G90 G94`];
  let standing = file.standing.before;
  file.plans.forEach((p, i) => {
    out.push(...words.path(p, i + 1, standing));
    // Once everything is faced, that is what stands.
    if (p.kind === "face" && file.plans[i + 1]?.kind !== "face") standing = file.standing.faced;
  });
  out.push("M5", "M30", "%");
  return ok(out.join("\n") + "\n");
}

const remark = (t: string) =>
  `(${t
    .toUpperCase()
    .replace(/[()]/g, " ")
    .replace(/[^\x20-\x7e]/g, (c) => (c === "⌀" ? "DIA " : c === "×" ? "X" : " "))})`;

function heading(file: PathFile, unit: LengthUnit, jobName: string): string[] {
  const len = (mm: number) => showLength(mm, unit);
  const { zero, standing } = file;
  return [
    remark(jobName),
    remark("a plan, not a proven program: check against the machine manual and prove it out"),
    ...(file.leftOut.length
      ? [
          remark("not in this file:"),
          ...file.leftOut.map((l) => remark(`  row ${l.row}${l.what ? `, its ${l.what}` : ""}: ${l.why}`)),
        ]
      : [remark("every row of the card is in this file")]),
    remark(`the machine still needs: ${file.needs.join(", ")}`),
    remark(`unit: ${unitOf[unit].word}`),
    ...(file.stockKnown ? [] : [remark("no stock is chosen: what stands over the part is not known here")]),
    remark(
      `X0 Y0 are the job's own, Z0 is the top of what is cut. Stock and jaws stand up to Z${len(standing.before - zero)}; rapids go over them`,
    ),
  ];
}

class Words {
  constructor(
    private readonly unit: LengthUnit,
    private readonly zero: number,
  ) {}

  n(mm: number): string {
    const t = (mm / unitOf[this.unit].mm).toFixed(unitOf[this.unit].places.exact).replace(/\.?0+$/, "");
    return t === "-0" || t === "" ? "0" : t.includes(".") ? t : `${t}.`;
  }

  /** One path. @param standing the highest that stands while it is cut, in the job's coordinates */
  path(p: PathPlan, tool: number, standing: number): string[] {
    const z = (depth: number) => this.n(p.frame.origin.z - depth - this.zero);
    const safe = this.n(Math.max(standing, p.frame.origin.z) - this.zero + pathPractice.clearance);
    const change = this.n(Math.max(standing, p.frame.origin.z) - this.zero + pathPractice.changeHeight);
    const out = [remark(`${p.title} ${p.cutter?.name ?? p.drill ?? ""}`), `T${tool} M6`, `G0 Z${change}`];
    if (p.kind === "drill")
      for (const q of p.points)
        out.push(
          `G0 X${this.n(q.x)} Y${this.n(q.y)}`,
          `Z${safe}`,
          `G1 Z${z(p.depth)} F${this.n(pathPractice.drillFeed)}`,
          `G0 Z${safe}`,
        );
    else
      for (const depth of p.levels)
        for (const loop of [...p.clearing].reverse().concat(p.chains))
          out.push(...this.chain(loop, z(depth), safe, p.cutter!.feed));
    return [...out, `G0 Z${change}`];
  }

  private chain(loop: Loop, z: string, safe: string, feed: number): string[] {
    const first = startOf(loop[0]);
    const words = [
      `G0 X${this.n(first.x)} Y${this.n(first.y)}`,
      `Z${safe}`,
      `G1 Z${z} F${this.n(feed * pathPractice.plungeShare)}`,
    ];
    loop.forEach((s, i) => {
      const f = i === 0 ? ` F${this.n(feed)}` : "";
      const e = endOf(s);
      if (s.kind === "line") words.push(`G1 X${this.n(e.x)} Y${this.n(e.y)}${f}`);
      else {
        const from = startOf(s);
        words.push(
          `${s.sweep > 0 ? "G3" : "G2"} X${this.n(e.x)} Y${this.n(e.y)} I${this.n(s.centre.x - from.x)} J${this.n(s.centre.y - from.y)}${f}`,
        );
      }
    });
    words.push(`G0 Z${safe}`);
    return words;
  }
}
