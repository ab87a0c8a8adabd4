import { ensureBuild, ensurePackages, run } from './setup.mjs';

/** `npm start -- --data DIR --port N`: installs and builds what is missing, then serves a workspace, empty at first. */
ensurePackages();
ensureBuild();
process.exit(
  run('node', ['--enable-source-maps', 'dist/server/main.js', ...process.argv.slice(2)], {
    env: { ...process.env, NODE_ENV: 'production' },
  }),
);
