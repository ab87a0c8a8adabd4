import { defineConfig } from '@playwright/test';
import { baseOf, folderOf, LANES, portOf, type ServerName } from './e2e/ports.ts';

/** The servers of one kind, one a lane, as `scripts/e2e-servers.mjs` takes them. */
function lanesOf(server: ServerName): string {
  const lanes = Array.from({ length: LANES }, (_, lane) => lane);
  return lanes.map((lane) => `${folderOf(server, lane)}:${portOf(server, lane)}`).join(',');
}

/** Flows through the real interface: the built program, a small demo universe and an empty workspace for each worker, and a large one. */
export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // Generous: a busy machine is no fault of a flow, and waiting costs nothing where all is well.
  timeout: 240_000,
  expect: { timeout: 30_000 },
  workers: LANES,
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
    command: `node scripts/e2e-servers.mjs 12000 ${lanesOf('demo')} 100000 ${folderOf('large')}:${portOf('large')} 0 ${lanesOf('empty')}`,
    // The last one to answer; the others are ready long before.
    url: `${baseOf('large')}/api/health`,
    timeout: 600_000,
  },
});
