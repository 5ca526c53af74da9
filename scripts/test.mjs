// `npm test`: sets everything up, then format, types, lint, unit tests with their judges, and the real interface in Chromium.
import { spawnSync } from "node:child_process";
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
  () => !(python("ezdxf") && python("gmsh") && python("shapely") && command("admesh") && command("pdftotext")),
  ["python3-ezdxf", "python3-gmsh", "python3-shapely", "admesh", "poppler-utils"],
  "independent judges of our files",
);
if (!judges) say("The independent judges are missing: their tests are skipped and say so.");

const bin = (name) => path.join(root, "node_modules", ".bin", name);
const stages = [
  ["format", bin("prettier"), ["--check", "--log-level", "warn", "."]],
  ["types", bin("tsc"), ["--noEmit", "-p", "."]],
  ["lint", bin("eslint"), ["."]],
  [
    "unit and judges",
    process.execPath,
    [
      "--experimental-vm-modules",
      kernelCode,
      path.join(root, "node_modules/jest/bin/jest.js"),
      "--maxWorkers=2",
      ...(process.env.CI ? ["--ci"] : []),
    ],
  ],
  ["build", null, []],
  ["the real interface", bin("playwright"), ["test"]],
];
for (const [name, program, args] of stages) {
  say(`\n== ${name}`);
  if (name === "build") {
    ensureBuild();
    continue;
  }
  if (name === "the real interface" && !chromium) {
    say("Chromium is missing and could not be installed: the interface was not tested.");
    process.exit(1);
  }
  const run = spawnSync(program, args, { cwd: root, stdio: "inherit", env: { ...process.env, NODE_NO_WARNINGS: "1" } });
  if (run.status !== 0) {
    say(`\n${name} failed.`);
    process.exit(run.status ?? 1);
  }
}
say("\nEverything passed.");
