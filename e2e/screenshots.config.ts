import { defineConfig } from '@playwright/test';
import base from '../playwright.config.ts';
import { baseOf, folderOf, portOf } from './ports.ts';

/** `npm run screenshots`: one picture of each main view from the demo of 48,000 companies, into docs/screenshots/. */
export default defineConfig({
  ...base,
  testDir: '.',
  testMatch: 'screenshots.ts',
  webServer: [
    {
      command: `node dist/demo/make.js data-demo/48000 48000 && node dist/server/main.js --data data-demo/48000 --port ${portOf('demo')}`,
      cwd: '..',
      url: `${baseOf('demo')}/api/health`,
      timeout: 180_000,
    },
    {
      command: `node scripts/e2e-servers.mjs 0 ${folderOf('empty')}:${portOf('empty')}`,
      cwd: '..',
      url: `${baseOf('empty')}/api/health`,
      timeout: 60_000,
    },
  ],
});
