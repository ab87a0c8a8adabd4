import { ensureBuild, ensurePackages, serve } from './setup.mjs';

/** `npm start -- --data DIR --port N`: installs and builds what is missing, then serves a workspace, empty at first. */
ensurePackages();
ensureBuild();
serve(['dist/server/main.js', ...process.argv.slice(2)]);
