// One file of a program that runs outside the page: four hundred modules read one by one take seconds to start.
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from "node:fs";
import path from "node:path";
import { pathToFileURL } from "node:url";
import { root } from "./ensure.mjs";

/**
 * Imports a program of ours as one file, bundled anew only when a source has changed. Where nothing can be written,
 * its modules are read one by one.
 */
export async function importBundled(entry) {
  const file = await bundled(entry).catch(() => null);
  if (file !== null) return import(pathToFileURL(file).href);
  const { register } = await import("tsx/esm/api");
  register();
  return import(pathToFileURL(path.join(root, entry)).href);
}

/** The bundled file of a program; packages stay outside it. Two callers at once each write their own and agree. */
async function bundled(entry) {
  const folder = path.join(root, "node_modules", ".cache", "sgorbia");
  const name = path.basename(entry, path.extname(entry));
  const file = path.join(folder, `${name}-${stampOfSources()}.mjs`);
  if (existsSync(file)) return file;
  mkdirSync(folder, { recursive: true });
  const { build } = await import("esbuild");
  const own = `${file}.${process.pid}`;
  await build({
    entryPoints: [path.join(root, entry)],
    absWorkingDir: root,
    bundle: true,
    platform: "node",
    format: "esm",
    packages: "external",
    sourcemap: "inline",
    sourcesContent: false,
    logLevel: "error",
    outfile: own,
  });
  renameSync(own, file);
  for (const old of readdirSync(folder))
    if (old.startsWith(`${name}-`) && old.endsWith(".mjs") && !file.endsWith(old))
      rmSync(path.join(folder, old), { force: true });
  return file;
}

function stampOfSources() {
  const hash = createHash("sha256");
  const walk = (dir) => {
    for (const e of readdirSync(dir, { withFileTypes: true })) {
      const p = path.join(dir, e.name);
      if (e.isDirectory()) {
        walk(p);
        continue;
      }
      const { mtimeMs, size } = statSync(p);
      hash.update(`${p.slice(root.length)} ${mtimeMs} ${size}\n`);
    }
  };
  walk(path.join(root, "src"));
  for (const f of ["tsconfig.json", "package-lock.json"]) hash.update(String(statSync(path.join(root, f)).mtimeMs));
  return hash.digest("hex").slice(0, 16);
}
