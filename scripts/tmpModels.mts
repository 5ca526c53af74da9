import { untrue, right } from "../tests/claims/models";
import { evaluate } from "@/core/evaluate";
import { readCard } from "@/core/callout";
import { loadKernel } from "@/kernel/node";
const kernel = await loadKernel();
const only = process.argv[2];
for (const [list, wanted] of [[untrue, "not proved"], [right, "proved"]] as const) {
  let bad = 0, n = 0, off=0;
  for (const m of list) {
    if (only && !m.name.includes(only)) continue;
    const { job, errors } = readCard(['JOB "t"', "UNIT mm", ...m.lines].join("\n"));
    if (errors.length) { console.log("?? CARD", m.name, errors.map((e) => `${e.line}: ${e.message} (${e.expected})`).join("; ")); continue; }
    const e = await evaluate(job, kernel);
    const failed = e.solved.rows.filter((r) => r.state === "failed");
    if (failed.length) { console.log("?? ROW", m.name, failed.map((r) => r.message).join("; ")); continue; }
    const l = e.ledger.find((x) => x.number === m.of)!;
    n++;
    const isBad = wanted === "proved" ? l.state !== "proved" : l.state === "proved";
    if (isBad) bad++;
    if (wanted==="proved" && l.state==="off") off++;
    if (isBad || only) console.log(`${wanted === "proved" ? "RIGHT" : "UNTRUE"} ${m.name}: ${l.state} ${l.measured} for ${l.nominal}; ${l.by}${l.problem ? " !" + l.problem : ""}`);
    if (only) for (const c of (l as any).claims ?? []) console.log("     ", c.state, c.text, "|", c.by);
  }
  console.log(`== ${wanted}: ${bad} of ${n} bad (${off} off)`);
}
process.exit(0);
