import { createServer } from 'node:http';
import { parseArgs } from 'node:util';
import { createApp } from './app.ts';
import { LOG_LEVELS, openLog } from './log.ts';
import { closeServices, openServices } from './services.ts';
import { troubleWith } from './start-trouble.ts';

/** Starts the server: `--data DIR --port N --upload-limit MB --log-level LEVEL --log FILE`. It listens on this machine only. */
const OPTIONS = {
  data: { type: 'string', default: 'workspace' },
  port: { type: 'string', default: '4600' },
  'upload-limit': { type: 'string', default: '150' },
  'log-level': { type: 'string', default: 'warn' },
  log: { type: 'string' },
} as const;

/** How long what is being answered may take once the server is asked to stop. */
const GRACE_MS = 5000;

const values = read();
const port = Number(values.port);
const uploadLimit = Number(values['upload-limit']);
if (!Number.isInteger(port) || port < 0 || port > 65_535 || values.port.trim() === '')
  fail(`--port ${values.port}: a whole number from 0 to 65535 is expected.`);
if (!(uploadLimit > 0))
  fail(`--upload-limit ${values['upload-limit']}: a number of megabytes above 0 is expected.`);
if (!(LOG_LEVELS as readonly string[]).includes(values['log-level']))
  fail(`--log-level ${values['log-level']}: one of ${LOG_LEVELS.join(', ')} is expected.`);

const log = openTheLog();
process.on('unhandledRejection', (error) => log.error({ err: error }, 'A promise was rejected unseen'));
process.on('uncaughtException', (error) => log.error({ err: error }, 'An error was thrown unseen'));

const services = await openServices(values.data, uploadLimit, log).catch((error: unknown) => {
  log.debug({ err: error }, 'The data could not be opened');
  return fail(troubleWith(values.data, error));
});
const server = createServer(createApp(services));
server.on('error', (error: NodeJS.ErrnoException) => {
  fail(
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken by another program. Start with --port and another number.`
      : error.code === 'EACCES'
        ? `Port ${port} may not be used by this user. Start with --port and a number from 1024 on.`
        : error.message,
  );
});
server.listen(port, '127.0.0.1', () => {
  const address = server.address();
  console.log(
    `Just Tally is at http://127.0.0.1:${typeof address === 'object' && address ? address.port : port}`,
  );
});

let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    log.info({ signal }, 'Stopping');
    server.close();
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), GRACE_MS).unref();
    closeServices(services).then(
      () => process.exit(0),
      (error: unknown) => {
        log.error({ err: error }, 'The data could not be closed');
        process.exit(1);
      },
    );
  });

function read() {
  try {
    return parseArgs({ options: OPTIONS }).values;
  } catch (error) {
    return fail(
      `${(error as Error).message} Known are ${Object.keys(OPTIONS)
        .map((name) => `--${name}`)
        .join(', ')}.`,
    );
  }
}

function openTheLog() {
  try {
    return openLog({ level: values['log-level'], ...(values.log ? { file: values.log } : {}) });
  } catch (error) {
    return fail(`--log ${values.log}: it cannot be written (${(error as Error).message}).`);
  }
}

function fail(message: string): never {
  console.error(message);
  process.exit(1);
}
