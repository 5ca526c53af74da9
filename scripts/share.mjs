// Prints how much of the code is tests, by lines: a quarter to a third is aimed at.
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
console.log(`tests: ${tests} of ${all} lines, ${((100 * tests) / all).toFixed(1)} %`);
