import { defineConfig } from '@playwright/test';

const DEMO = 4711;
const EMPTY = 4712;
export const LARGE_PORT = 4713;

/** Flows through the real interface: the built program, a small demo universe, a large one, and an empty workspace. */
export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // Generous: a busy machine is no fault of a flow, and waiting costs nothing where all is well.
  timeout: 120_000,
  expect: { timeout: 30_000 },
  workers: 1,
  // A noisy machine may drop a frame; a flow that fails twice has failed.
  retries: process.env.CI ? 1 : 0,
  reporter: process.env.CI ? 'line' : 'list',
  use: {
    baseURL: `http://127.0.0.1:${DEMO}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] },
    // Recording every flow would slow all of them down.
    trace: process.env.CI ? 'on-first-retry' : 'off',
    acceptDownloads: true,
  },
  webServer: {
    command: `node scripts/e2e-servers.mjs test-results/data-demo:12000:${DEMO} test-results/data-large:100000:${LARGE_PORT} test-results/data-empty:0:${EMPTY}`,
    // The last one to answer; the others are ready long before.
    url: `http://127.0.0.1:${LARGE_PORT}/api/health`,
    timeout: 600_000,
  },
});
