#!/usr/bin/env node
import { run } from './run.ts';

/** The command line: `just-tally tally "joineries near Brno"`. */
process.exitCode = await run(
  process.argv.slice(2),
  (text) => process.stdout.write(`${text}\n`),
  (text) => process.stderr.write(`${text}\n`),
);
