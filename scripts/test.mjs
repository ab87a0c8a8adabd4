import { spawn } from 'node:child_process';
import { ensureBuild, ensureChromium, ensurePackages, ensurePdfText, ensureReaders } from './setup.mjs';

/** `npm test`: installs what is missing, then unit, API and interface tests and a short hostile day; the last line is the total. */
ensurePackages();
ensureChromium();
ensurePdfText();
ensureReaders();
ensureBuild();

/** What failed is said again at the end, where the log of a long run is read. */
const LONGEST_FAILURE = 8000;
const failures = [];

/** Runs a test command, shows what it prints, and reads its closing counts with `patterns`. */
function tests(args, patterns) {
  return new Promise((resolve) => {
    const child = spawn('node', args, {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NODE_NO_WARNINGS: '1' },
    });
    let text = '';
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk) => {
        text += chunk;
        process.stdout.write(chunk);
      });
    child.on('close', (code) => {
      const count = (pattern) => Number(pattern.exec(text)?.[1] ?? 0);
      const passed = count(patterns.passed);
      const wrong = patterns.wrong.exec(text)?.[0];
      if (code !== 0 && wrong) failures.push(wrong.slice(0, LONGEST_FAILURE));
      // A runner that failed without saying how many tests failed counts as one.
      resolve({ passed, failed: count(patterns.failed) || (code === 0 && passed > 0 ? 0 : 1) });
    });
  });
}

const unit = await tests(['--experimental-vm-modules', 'node_modules/jest/bin/jest.js'], {
  passed: /Tests:.*?(\d+) passed/,
  failed: /Tests:.*?(\d+) failed/,
  wrong: /Summary of all failing tests[^]*/,
});
const e2e = await tests(['node_modules/@playwright/test/cli.js', 'test'], {
  passed: /^\s*(\d+) passed/m,
  failed: /^\s*(\d+) failed/m,
  wrong: /^ {2}1\) [^]*/m,
});
const faults = await tests(['--import', 'tsx', 'faults/main.ts', '--short', '--seed', '1'], {
  passed: /^Faults: (\d+) passed/m,
  failed: /^Faults: \d+ passed, (\d+) failed/m,
  wrong: /^ *✗ [^]*/m,
});
const failed = unit.failed + e2e.failed + faults.failed;
for (const wrong of failures) console.log(`\nFailed:\n${wrong}`);
console.log(`${unit.passed + e2e.passed + faults.passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
