// Whether the packages of the lock file are installed, told by content and never by dates; and who is installing them.
import { createHash } from "node:crypto";
import { existsSync, linkSync, readFileSync, renameSync, rmSync, unlinkSync, writeFileSync } from "node:fs";
import path from "node:path";
import { execFileSync } from "node:child_process";

const keptHash = (root) => path.join(root, "node_modules", ".sgorbia-lock");
const lockText = (root) => readFileSync(path.join(root, "package-lock.json"), "utf8");
const hashOf = (text) => createHash("sha256").update(text).digest("hex");

/**
 * Whether what is installed is what the lock file says: by the hash kept with our own install, or package by package
 * by npm's own record.
 */
export function packagesAreThere(root) {
  const text = lockText(root);
  if (existsSync(keptHash(root)) && readFileSync(keptHash(root), "utf8").trim() === hashOf(text)) return true;
  const record = path.join(root, "node_modules", ".package-lock.json");
  if (!existsSync(record)) return false;
  try {
    const wanted = JSON.parse(text).packages;
    const there = JSON.parse(readFileSync(record, "utf8")).packages;
    return Object.entries(wanted).every(([place, p]) => place === "" || p.optional || p.peer || same(there[place], p));
  } catch {
    return false;
  }
}
const same = (there, wanted) =>
  there !== undefined && there.version === wanted.version && there.integrity === wanted.integrity;

/** Keeps with the install what it was made from. */
export const keepPackagesHash = (root) => writeFileSync(keptHash(root), hashOf(lockText(root)));

/**
 * Taken away before an install begins: one that is interrupted leaves no hash behind and is repaired by the next
 * set-up.
 */
export const forgetPackagesHash = (root) => rmSync(keptHash(root), { force: true });

/**
 * What tells a process from a later one with the same number: when it was started; null when nobody has that number.
 */
export function startOf(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, "utf8");
    // The name in brackets may hold spaces; the start time is the 20th figure after it.
    return stat.slice(stat.lastIndexOf(")") + 2).split(" ")[19];
  } catch {
    if (existsSync("/proc/self/stat")) return null;
  }
  try {
    return execFileSync("ps", ["-o", "lstart=", "-p", String(pid)], { encoding: "utf8" }).trim() || null;
  } catch {
    return null;
  }
}

const turnFile = (root) => path.join(root, ".sgorbia-installing");
const me = () => ({ pid: process.pid, start: startOf(process.pid) });

/** The living process that installs right now, or null: a mark left by one that died counts for nothing. */
export function installer(root) {
  try {
    const mark = JSON.parse(readFileSync(turnFile(root), "utf8"));
    return mark.start !== null && startOf(mark.pid) === mark.start ? mark : null;
  } catch {
    return null;
  }
}

/** Takes the turn to install; false when a living process has it. */
export function takeTurn(root) {
  const own = `${turnFile(root)}-${process.pid}`;
  writeFileSync(own, JSON.stringify(me()));
  try {
    if (linked(own, root)) return true;
    if (installer(root)) return false;
    clearDeadTurn(root);
    return linked(own, root);
  } finally {
    unlinkSync(own);
  }
}
function linked(own, root) {
  try {
    // A link appears whole or not at all, and never over another.
    linkSync(own, turnFile(root));
    return true;
  } catch {
    return false;
  }
}
/** Moves a dead mark aside; one that came to life meanwhile is put back. */
function clearDeadTurn(root) {
  const aside = `${turnFile(root)}-dead-${process.pid}`;
  rmSync(aside, { force: true, recursive: true });
  try {
    renameSync(turnFile(root), aside);
  } catch {
    return;
  }
  try {
    const mark = JSON.parse(readFileSync(aside, "utf8"));
    if (startOf(mark.pid) === mark.start) linkSync(aside, turnFile(root));
  } catch {
    // No mark of ours (an older version made a folder): it counts for nothing.
  }
  rmSync(aside, { force: true, recursive: true });
}
export const giveTurn = (root) => rmSync(turnFile(root), { force: true });

/** What stands in the way of running anything, in one line; null when the packages are there. */
export function missingPackages(root) {
  const busy = installer(root);
  if (busy) return `The packages are being installed by another process (${busy.pid}): try again when it is done.`;
  if (packagesAreThere(root)) return null;
  return 'The packages of package-lock.json are not installed, or not whole: run "npm start" or "npm test" once, they set everything up. This command never installs anything.';
}
