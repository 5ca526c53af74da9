// `npm run dev`: live reload.
import { ensureKernelFiles, ensurePackages } from './ensure.mjs';

ensurePackages();
ensureKernelFiles();
const { serve } = await import('./server.mjs');
process.exit(await serve('dev'));
