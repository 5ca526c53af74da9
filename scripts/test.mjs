// `npm test`: sets everything up, then format, types, lint, unit tests with their judges, and the real interface in Chromium.
import { spawn, spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import path from "node:path";
import { kernelCode } from "./kernelCode.mjs";
import { ensureBuild, ensureDebian, ensureKernelFiles, ensurePackages, root, say } from "./ensure.mjs";

ensurePackages();
ensureKernelFiles();
const python = (module) => spawnSync("/usr/bin/python3", ["-c", `import ${module}`], { stdio: "ignore" }).status === 0;
const command = (name) => spawnSync(name, ["--version"], { stdio: "ignore" }).error === undefined;
const chromium = ensureDebian(
  () => !existsSync("/usr/bin/chromium-headless-shell"),
  ["chromium-headless-shell"],
  "the real interface is tested in it",
);
const judges = ensureDebian(
  () =>
    !(
      python("ezdxf") &&
      python("gmsh") &&
      python("shapely") &&
      command("admesh") &&
      command("pdftotext") &&
      command("units")
    ),
  ["python3-ezdxf", "python3-gmsh", "python3-shapely", "admesh", "poppler-utils", "units"],
  "independent judges of our files",
);
if (!judges) say("The independent judges are missing: their tests are skipped and say so.");

const bin = (name) => path.join(root, "node_modules", ".bin", name);
const env = { ...process.env, NODE_NO_WARNINGS: "1" };
const ended = (name, code) => {
  if (code === 0) return;
  say(`\n${name} failed.`);
  process.exit(code ?? 1);
};

/** One core each: what is looked at without being run goes side by side, and is told whole when it is done. */
async function lookedAt(stages) {
  const run = ([name, program, args]) =>
    new Promise((resolve) => {
      const child = spawn(program, args, { cwd: root, env, stdio: ["ignore", "pipe", "pipe"] });
      let out = "";
      for (const stream of [child.stdout, child.stderr]) stream.on("data", (d) => (out += d));
      child.on("error", (e) => resolve({ name, code: 1, out: String(e) }));
      child.on("exit", (code) => resolve({ name, code, out }));
    });
  for (const { name, code, out } of await Promise.all(stages.map(run))) {
    say(`\n== ${name}`);
    process.stdout.write(out);
    ended(name, code);
  }
}
function stage(name, program, args) {
  say(`\n== ${name}`);
  ended(name, spawnSync(program, args, { cwd: root, stdio: "inherit", env }).status);
}

await lookedAt([
  ["format", bin("prettier"), ["--check", "--log-level", "warn", "."]],
  ["types", bin("tsc"), ["--noEmit", "-p", "."]],
  ["lint", bin("eslint"), ["."]],
]);
stage("unit and judges", process.execPath, [
  "--experimental-vm-modules",
  kernelCode,
  path.join(root, "node_modules/jest/bin/jest.js"),
  "--maxWorkers=2",
  ...(process.env.CI ? ["--ci"] : []),
]);
say("\n== build");
ensureBuild();
if (!chromium) {
  say("Chromium is missing and could not be installed: the interface was not tested.");
  process.exit(1);
}
stage("the real interface", bin("playwright"), ["test"]);
say("\nEverything passed.");
