import { build } from 'esbuild';
import { rmSync } from 'node:fs';
import { build as buildWeb } from 'vite';

/** Builds the server with its worker threads and the demo maker, then the interface; both into dist/. */
rmSync('dist', { recursive: true, force: true });
await build({
  entryPoints: [
    'server/main.ts',
    'server/write-parquet.ts',
    'server/engine/worker.ts',
    'server/engine/columns-worker.ts',
    'server/engine/names-worker.ts',
    'server/load/worker.ts',
    'server/load/remove-worker.ts',
    'server/exports/worker.ts',
    'server/exports/csv-worker.ts',
    'server/paper/worker.ts',
    'demo/worker.ts',
    'demo/rows-worker.ts',
    'server/load/rows-worker.ts',
    'demo/make.ts',
    'bench/main.ts',
    'bench/oracle.ts',
    'bench/peer-process.ts',
  ],
  outdir: 'dist',
  outbase: '.',
  bundle: true,
  packages: 'external',
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
});
await buildWeb({ logLevel: 'warn' });
