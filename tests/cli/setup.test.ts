import { spawn, spawnSync } from "node:child_process";
import {
  chmodSync,
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { fileURLToPath } from "node:url";

const root = fileURLToPath(new URL("../../", import.meta.url));
const made: string[] = [];
afterAll(() => made.forEach((d) => rmSync(d, { recursive: true, force: true })));

const lock = (version: string) =>
  JSON.stringify({
    lockfileVersion: 3,
    packages: { "": {}, "node_modules/some": { version, integrity: `sha512-${version}` } },
  });

/**
 * A checkout with our scripts, a lock file, and an npm that only says that it was called (and may take its time, or
 * die).
 */
function checkout(npm = "mkdir -p node_modules/some; cp package-lock.json node_modules/.package-lock.json") {
  const dir = mkdtempSync(path.join(tmpdir(), "sgorbia-setup-"));
  made.push(dir);
  cpSync(path.join(root, "scripts"), path.join(dir, "scripts"), { recursive: true });
  writeFileSync(path.join(dir, "package-lock.json"), lock("1.0.0"));
  mkdirSync(path.join(dir, "bin"));
  writeFileSync(path.join(dir, "bin", "npm"), `#!/bin/sh\necho "$@" >> npm-was-called\n${npm}\n`);
  chmodSync(path.join(dir, "bin", "npm"), 0o755);
  const env = { ...process.env, PATH: `${path.join(dir, "bin")}:${process.env.PATH}` };
  const calls = () =>
    existsSync(path.join(dir, "npm-was-called"))
      ? readFileSync(path.join(dir, "npm-was-called"), "utf8").trim().split("\n")
      : [];
  const job = () =>
    spawnSync(process.execPath, ["scripts/job.mjs", "check", "none.card"], { cwd: dir, env, encoding: "utf8" });
  const setUp = [
    "--input-type=module",
    "-e",
    "const { ensurePackages } = await import('./scripts/ensure.mjs'); ensurePackages();",
  ];
  const install = () => spawnSync(process.execPath, setUp, { cwd: dir, env, encoding: "utf8" });
  const start = () => spawn(process.execPath, setUp, { cwd: dir, env, stdio: "ignore" });
  return { dir, calls, job, install, start };
}
const until = async (test: () => boolean) => {
  for (let i = 0; i < 200 && !test(); i++) await new Promise((r) => setTimeout(r, 25));
  expect(test()).toBe(true);
};

describe("the headless command", () => {
  it("never installs: it says in one line what is missing", () => {
    const c = checkout();
    const r = c.job();
    expect(r.status).toBe(3);
    expect(r.stderr.trim().split("\n")).toHaveLength(1);
    expect(r.stderr).toMatch(/npm start/);
    expect(r.stdout).toBe("");
    expect(c.calls()).toEqual([]);
    expect(existsSync(path.join(c.dir, "node_modules"))).toBe(false);
  });

  it("does not care for dates, only for what the lock file says", () => {
    const c = checkout();
    expect(c.install().status).toBe(0);
    const tomorrow = new Date(Date.now() + 86_400_000);
    utimesSync(path.join(c.dir, "package-lock.json"), tomorrow, tomorrow);
    expect(c.job().stderr).not.toMatch(/not installed/);
    writeFileSync(path.join(c.dir, "package-lock.json"), lock("2.0.0"));
    utimesSync(path.join(c.dir, "package-lock.json"), new Date(0), new Date(0));
    expect(c.job().stderr).toMatch(/not installed/);
    expect(c.calls()).toHaveLength(1);
  });

  it("takes packages that were installed by hand, told by npm's own record", () => {
    const c = checkout();
    mkdirSync(path.join(c.dir, "node_modules"));
    writeFileSync(path.join(c.dir, "node_modules", ".package-lock.json"), lock("1.0.0"));
    expect(c.job().stderr).not.toMatch(/not installed/);
    writeFileSync(path.join(c.dir, "node_modules", ".package-lock.json"), lock("0.9.0"));
    expect(c.job().stderr).toMatch(/not installed/);
  });
});

describe("setting up", () => {
  it("installs once, and not again", () => {
    const c = checkout();
    expect(c.install().status).toBe(0);
    expect(c.install().status).toBe(0);
    expect(c.calls()).toEqual(["ci --no-audit --no-fund"]);
  });

  it("repairs at once what an interrupted install left", async () => {
    const c = checkout(
      "mkdir -p node_modules/some; if [ ! -f second ]; then touch second; sleep 30; fi; cp package-lock.json node_modules/.package-lock.json",
    );
    const first = c.start();
    await until(() => existsSync(path.join(c.dir, "second")));
    expect(c.job().stderr).toMatch(/being installed by another process/);
    first.kill("SIGKILL");
    await new Promise((r) => first.once("exit", r));
    expect(c.job().stderr).toMatch(/not installed/);
    const from = Date.now();
    expect(c.install().status).toBe(0);
    expect(Date.now() - from).toBeLessThan(10_000);
    expect(c.calls()).toHaveLength(2);
    expect(c.job().stderr).not.toMatch(/install/);
  });

  it("lets one install while the other waits", async () => {
    const c = checkout("mkdir -p node_modules/some; sleep 1; cp package-lock.json node_modules/.package-lock.json");
    const both = [c.start(), c.start()].map((p) => new Promise((r) => p.once("exit", r)));
    expect(await Promise.all(both)).toEqual([0, 0]);
    expect(c.calls()).toHaveLength(1);
  });
});
