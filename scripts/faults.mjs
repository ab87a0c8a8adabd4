import { ensureBuild, ensurePackages, run } from './setup.mjs';

/** `npm run faults -- --short`: a hostile day for the built program, in processes and folders of its own. */
ensurePackages();
ensureBuild();
process.exit(run('node', ['--import', 'tsx', 'faults/main.ts', ...process.argv.slice(2)]));
