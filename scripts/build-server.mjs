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
  'server/load/own-values-worker.ts',
  'server/load/titles-worker.ts',
  'server/load/precedence-worker.ts',
  'server/load/coverage-worker.ts',
  'server/gather/try-sites-worker.ts',
  'server/outreach/addresses-worker.ts',
  'server/outreach/check-worker.ts',
  'server/exports/worker.ts',
  'server/exports/csv-worker.ts',
  'server/exports/tape-worker.ts',
  'server/gather/worker.ts',
  'server/runs/worker.ts',
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

/**
 * Packages that stay files of their own: with native parts, with threads or files of their own, or
 * needed only by the server itself or by few threads. All others are bundled, since a thread that reads
 * one file starts in two thirds of the time of one that looks up a hundred.
 */
const APART = [
  '@duckdb/node-api',
  '@playwright/test',
  'better-sqlite3',
  'class-transformer',
  'class-validator',
  'class-validator-jsonschema',
  'exceljs',
  'express',
  'fuzzball',
  'helmet',
  'hyparquet',
  'hyparquet-writer',
  'multer',
  'nodemailer',
  'pdfkit',
  'pino',
  'prom-client',
  'reflect-metadata',
  'smtp-server',
];

/** Bundled packages of the older kind ask for Node's own modules by `require`. */
const REQUIRE =
  "import { createRequire as requireOf } from 'node:module'; const require = requireOf(import.meta.url);";

/** What runs in the browser, in the frame that shows a page as it came. */
const IN_FRAMES = ['server/gather/frame-script.ts'];

/** Builds server, threads, demo maker and bench into a folder within the project. */
export async function buildServer(outdir) {
  const common = {
    outdir,
    outbase: '.',
    bundle: true,
    format: 'esm',
    sourcemap: true,
    logLevel: 'warning',
  };
  await build({ ...common, entryPoints: IN_FRAMES, platform: 'browser', target: 'es2022' });
  await build({
    ...common,
    entryPoints: ENTRIES,
    external: APART,
    banner: { js: REQUIRE },
    platform: 'node',
    target: 'node20',
  });
}
