import { spawnSync } from "node:child_process";
import { needPackages, root } from "./ensure.mjs";

needPackages();
process.exit(
  spawnSync(process.execPath, ["--import", "tsx", "scripts/bench.mts"], { cwd: root, stdio: "inherit" }).status ?? 1,
);
