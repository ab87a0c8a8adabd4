import { defineConfig } from '@playwright/test';

const DEMO = 4711;
const EMPTY = 4712;
export const LARGE_PORT = 4713;

/** Flows through the real interface: the built program, a small demo universe, and an empty workspace. */
export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  timeout: 60_000,
  expect: { timeout: 10_000 },
  workers: 1,
  // A noisy machine may drop a frame; a flow that fails twice has failed.
  retries: process.env.CI ? 1 : 0,
  reporter: process.env.CI ? 'line' : 'list',
  use: {
    baseURL: `http://127.0.0.1:${DEMO}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] },
    trace: 'retain-on-failure',
    acceptDownloads: true,
  },
  webServer: [
    {
      command: `node scripts/fresh-data.mjs test-results/data-demo && node dist/demo/make.js test-results/data-demo 12000 && node dist/server/main.js --data test-results/data-demo --port ${DEMO}`,
      url: `http://127.0.0.1:${DEMO}/api/health`,
      timeout: 120_000,
    },
    {
      command: `node scripts/fresh-data.mjs test-results/data-large && node dist/demo/make.js test-results/data-large 100000 && node dist/server/main.js --data test-results/data-large --port ${LARGE_PORT}`,
      url: `http://127.0.0.1:${LARGE_PORT}/api/health`,
      timeout: 300_000,
    },
    {
      command: `node scripts/fresh-data.mjs test-results/data-empty && node dist/server/main.js --data test-results/data-empty --port ${EMPTY}`,
      url: `http://127.0.0.1:${EMPTY}/api/health`,
      timeout: 60_000,
    },
  ],
});
