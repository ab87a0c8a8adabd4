import { rmSync } from 'node:fs';

/** Removes the data folder of an earlier test run. */
rmSync(process.argv[2], { recursive: true, force: true });
