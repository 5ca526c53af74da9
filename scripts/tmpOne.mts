import { evaluate } from "@/core/evaluate";
import { readCard } from "@/core/callout";
import { loadKernel } from "@/kernel/node";
import { readFileSync } from "node:fs";
const kernel = await loadKernel();
const r = readCard(readFileSync(process.argv[2], "utf8"));
if (r.errors.length) console.log(r.errors);
const e = await evaluate(r.job, kernel);
for (const l of e.ledger) if (!process.argv[3] || process.argv[3].split(",").includes(String(l.number))) { console.log(`#${l.number} ${l.state} ${l.measured} of ${l.nominal}: ${l.by}`); for (const c of l.claims) console.log("    ", c.of, c.state, c.says, "|", c.by, c.on.length); }
process.exit(0);
