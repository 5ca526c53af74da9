import { spawnSync } from 'node:child_process';
import { ensurePackages, root } from './ensure.mjs';

ensurePackages();
process.exit(spawnSync(process.execPath, ['--import', 'tsx', 'scripts/bench.mts'], { cwd: root, stdio: 'inherit' }).status ?? 1);
