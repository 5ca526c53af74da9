// What the two commands need on a fresh machine. Everything it says goes to standard error.
import { execFileSync, spawnSync } from "node:child_process";
import { copyFileSync, existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { createHash } from "node:crypto";
import {
  forgetPackagesHash,
  giveTurn,
  installer,
  keepPackagesHash,
  missingPackages,
  packagesAreThere,
  takeTurn,
} from "./packages.mjs";

export const root = path.resolve(import.meta.dirname ?? path.dirname(new URL(import.meta.url).pathname), "..");
export const say = (text) => process.stderr.write(`${text}\n`);

/**
 * Installs the packages of the lock file unless they are there, told by content. Two callers at once: one installs,
 * the other waits. Only `npm start` and `npm test` do this.
 */
export function ensurePackages() {
  for (let waited = 0; !packagesAreThere(root) || installer(root); waited++) {
    if (!takeTurn(root)) {
      if (waited === 0) say("Waiting for another install …");
      Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 500);
      continue;
    }
    try {
      if (packagesAreThere(root)) return;
      say("Installing packages (npm ci) …");
      forgetPackagesHash(root);
      execFileSync("npm", ["ci", "--no-audit", "--no-fund"], { cwd: root, stdio: ["ignore", "ignore", "inherit"] });
      keepPackagesHash(root);
      return;
    } finally {
      giveTurn(root);
    }
  }
}

/** For every other command: says in one line what is missing and ends, or goes on. */
export function needPackages() {
  const missing = missingPackages(root);
  if (missing === null) return;
  say(missing);
  process.exit(3);
}

/**
 * Puts the solid kernel's wasm and the PDF reader's worker where the page can load them: nothing comes from the
 * network at run time.
 */
export function ensureKernelFiles() {
  const files = [
    ["node_modules/replicad-opencascadejs/dist/replicad_single.wasm", "public/kernel/kernel.wasm"],
    ["node_modules/pdfjs-dist/build/pdf.worker.min.mjs", "public/kernel/pdf.worker.mjs"],
  ];
  for (const [source, target] of files) {
    const from = path.join(root, source),
      to = path.join(root, target);
    if (existsSync(to) && statSync(to).size === statSync(from).size) continue;
    mkdirSync(path.dirname(to), { recursive: true });
    copyFileSync(from, to);
  }
}

/**
 * Installs Debian packages when something of theirs is missing; says so when it cannot. @returns whether all is
 * there now
 */
export function ensureDebian(missing, packages, why) {
  if (!missing()) return true;
  say(`Installing ${packages.join(", ")} from Debian's packages (${why}) …`);
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
  const update = spawnSync("apt-get", ["update", "-qq"], { env, stdio: ["ignore", "ignore", "inherit"] });
  const install =
    update.status === 0
      ? spawnSync("apt-get", ["install", "-y", "-qq", ...packages], { env, stdio: ["ignore", "ignore", "inherit"] })
      : update;
  if (install.status !== 0 || missing()) {
    say(
      `Could not install ${packages.join(", ")}: needs root and Debian's packages. Install them by hand, then run this again.`,
    );
    return false;
  }
  return true;
}

/** Builds the application when its sources are newer than the last build. */
export function ensureBuild() {
  const mark = path.join(root, ".next", "sgorbia-build");
  const now = sourcesHash();
  if (existsSync(mark) && readFileSync(mark, "utf8") === now) return;
  say("Building Sgorbia (about half a minute) …");
  execFileSync(process.execPath, [path.join(root, "node_modules/next/dist/bin/next"), "build"], {
    cwd: root,
    stdio: ["ignore", "ignore", "inherit"],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
  });
  writeFileSync(mark, now);
}

function sourcesHash() {
  const hash = createHash("sha256");
  const walk = (dir) => {
    for (const e of readdirSync(dir, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      const p = path.join(dir, e.name);
      if (e.isDirectory()) walk(p);
      else hash.update(p.slice(root.length)).update(readFileSync(p));
    }
  };
  for (const d of ["app", "src", "public"]) walk(path.join(root, d));
  for (const f of ["next.config.ts", "proxy.ts", "package-lock.json", "tsconfig.json"])
    hash.update(readFileSync(path.join(root, f)));
  return hash.digest("hex");
}
