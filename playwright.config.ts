import { defineConfig } from '@playwright/test';
import { baseOf, PORTS } from './e2e/ports.ts';

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
    baseURL: baseOf('demo'),
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] },
    // Recording every flow would slow all of them down.
    trace: process.env.CI ? 'on-first-retry' : 'off',
    acceptDownloads: true,
  },
  webServer: {
    command: `node scripts/e2e-servers.mjs test-results/data-demo:12000:${PORTS.demo} test-results/data-large:100000:${PORTS.large} test-results/data-empty:0:${PORTS.empty}`,
    // The last one to answer; the others are ready long before.
    url: `${baseOf('large')}/api/health`,
    timeout: 600_000,
  },
});
