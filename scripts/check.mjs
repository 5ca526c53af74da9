// `npm run check`: form, types, lint and the tests that need no solid, side by side; under a minute on two cores.
import { spawn } from "node:child_process";
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";

const root = path.resolve(import.meta.dirname, "..");
const bin = (name) => path.join(root, "node_modules", ".bin", name);
const tests = (folder) =>
  readdirSync(folder, { withFileTypes: true })
    .flatMap((e) => (e.isDirectory() ? tests(path.join(folder, e.name)) : [path.join(folder, e.name)]))
    .filter((f) => /\.test\.tsx?$/.test(f));
// What loads the library says so by what it takes: the kernel's door, or a helper that evaluates.
const SOLID =
  /kernel\/(node|openCascade)|\b(evaluateJob|evaluateCard|findingsOf|volumeOf|afterFix)\b|loadEngine|\bkernel\(\)/;
const plain = tests(path.join(root, "src")).filter((f) => !SOLID.test(readFileSync(f, "utf8")));

function run(what, command, args, isTold = false) {
  const began = performance.now();
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: root,
      env: { ...process.env, NODE_OPTIONS: "--experimental-vm-modules --no-warnings" },
    });
    let said = "";
    child.stdout.on("data", (d) => (said += d));
    child.stderr.on("data", (d) => (said += d));
    child.on("close", (code) => {
      const seconds = ((performance.now() - began) / 1000).toFixed(1);
      console.log(`${code === 0 ? "ok    " : "BROKEN"} ${what} (${seconds} s)`);
      if (code !== 0 || isTold) console.log(said.trimEnd());
      resolve(code === 0);
    });
  });
}

const results = await Promise.all([
  run("form", bin("prettier"), ["--check", "--cache", "."]),
  run("types", bin("tsc"), ["--noEmit", "-p", "."]),
  run("lint", bin("eslint"), [".", "--cache", "--cache-location", "node_modules/.cache/eslint/"]),
  run(`${plain.length} test files without a solid`, bin("jest"), ["--maxWorkers=2", ...plain]),
]);
await import("./share.mjs");
await run("figures of the tables", process.execPath, ["--import", "tsx", "scripts/figures.mts"], true);
process.exit(results.every(Boolean) ? 0 : 1);
