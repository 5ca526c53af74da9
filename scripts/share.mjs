// Prints how much tests there are, by lines: as a share of the code they test (a quarter to a third is aimed at), and
// of all lines.
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { root } from "./ensure.mjs";

const files = execFileSync("git", ["ls-files", "*.ts", "*.tsx", "*.mts", "*.mjs"], { cwd: root, encoding: "utf8" })
  .split("\n")
  .filter((f) => f && !f.includes("tables/glyphs/"));
const isTest = (f) => /\.(test|spec)\.tsx?$/.test(f) || /^(e2e|tests)\//.test(f);
const lines = (list) => list.reduce((n, f) => n + readFileSync(`${root}/${f}`, "utf8").split("\n").length, 0);
const tests = lines(files.filter(isTest));
const all = lines(files);
const percent = (of) => `${((100 * tests) / of).toFixed(1)} %`;
console.log(`tests: ${tests} lines to ${all - tests} of code, ${percent(all - tests)}; ${percent(all)} of all lines`);
