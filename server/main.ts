import { createServer } from 'node:http';
import { parseArgs } from 'node:util';
import { createApp } from './app.ts';
import { openServices } from './services.ts';

/** Starts the server: `--data DIR --port N --upload-limit MB`. It listens on this machine only. */
const { values } = parseArgs({
  options: {
    data: { type: 'string', default: 'workspace' },
    port: { type: 'string', default: '4600' },
    'upload-limit': { type: 'string', default: '150' },
  },
});
const port = Number(values.port);
const uploadLimit = Number(values['upload-limit']);
if (!Number.isInteger(port) || port < 0 || port > 65_535)
  fail(`--port ${values.port}: a whole number from 0 to 65535 is expected.`);
if (!(uploadLimit > 0))
  fail(`--upload-limit ${values['upload-limit']}: a number of megabytes above 0 is expected.`);

const services = await openServices(values.data, uploadLimit);
const server = createServer(createApp(services));
server.on('error', (error: NodeJS.ErrnoException) => {
  fail(
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken by another program. Start with --port and another number.`
      : error.message,
  );
});
server.listen(port, '127.0.0.1', () => {
  const address = server.address();
  console.log(
    `Just Tally is at http://127.0.0.1:${typeof address === 'object' && address ? address.port : port}`,
  );
});

function fail(message: string): never {
  console.error(message);
  process.exit(1);
}
