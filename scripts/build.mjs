import { rmSync } from 'node:fs';
import { build as buildWeb } from 'vite';
import { buildServer } from './build-server.mjs';

/** Builds the server with its worker threads and the demo maker, then the interface; both into dist/. */
rmSync('dist', { recursive: true, force: true });
await buildServer('dist');
await buildWeb({ logLevel: 'warn' });
