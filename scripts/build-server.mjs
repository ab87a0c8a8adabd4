import { build } from 'esbuild';

/** Every program and thread that is started by its file: all else is bundled into these. */
const ENTRIES = [
  'server/main.ts',
  'server/write-parquet.ts',
  'server/engine/worker.ts',
  'server/load/reading-worker.ts',
  'server/load/reading-job.ts',
  'server/engine/opening/columns-worker.ts',
  'server/engine/rows/names-worker.ts',
  'server/load/worker.ts',
  'server/load/remove-worker.ts',
  'server/load/rows-worker.ts',
  'server/lists/worker.ts',
  'server/match/match-worker.ts',
  'server/match/doubles-worker.ts',
  'server/match/again-worker.ts',
  'server/match/enriched-worker.ts',
  'server/load/join-worker.ts',
  'server/outreach/addresses-worker.ts',
  'server/outreach/check-worker.ts',
  'server/exports/worker.ts',
  'server/exports/csv-worker.ts',
  'server/exports/tape-worker.ts',
  'server/gather/worker.ts',
  'server/runs/worker.ts',
  'server/gather/frame-script.ts',
  'server/paper/worker.ts',
  'cli/main.ts',
  'demo/make.ts',
  'demo/worker.ts',
  'demo/month-worker.ts',
  'demo/rows-worker.ts',
  'bench/main.ts',
  'bench/oracle.ts',
  'bench/peer-process.ts',
];

/** Builds server, threads, demo maker and bench into a folder within the project. */
export function buildServer(outdir) {
  return build({
    entryPoints: ENTRIES,
    outdir,
    outbase: '.',
    bundle: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    logLevel: 'warning',
  });
}
