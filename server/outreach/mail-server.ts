import { chmodSync, existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createTransport, type Transporter } from 'nodemailer';
import type { MailServerBody } from '../../contract/outreach.ts';

/** One's own mail server, kept in a file that only the owner of the data can read. */

const FILE = 'mail-server.json';
const OWNER_ONLY = 0o600;
const CONNECT_MS = 15_000;

/** Whom mail is from that tells what there is to tell, where it goes to the stand-in. */
export const OWN_SENDER = 'just-tally@localhost';

/** The server that is set up, or null: then messages go to the stand-in. */
export function ownMailServer(dir: string): MailServerBody | null {
  const path = join(dir, FILE);
  return existsSync(path) ? (JSON.parse(readFileSync(path, 'utf8')) as MailServerBody) : null;
}

export function writeMailServer(dir: string, server: MailServerBody): void {
  const path = join(dir, FILE);
  const part = `${path}.part`;
  writeFileSync(part, JSON.stringify(server, null, 2), { mode: OWNER_ONLY });
  chmodSync(part, OWNER_ONLY);
  renameSync(part, path);
}

export function removeMailServer(dir: string): void {
  rmSync(join(dir, FILE), { force: true });
}

/** A way to hand messages over: to one's own server, or to the stand-in at a port of this machine. */
export function transportTo(own: MailServerBody | null, standInPort: number): Transporter {
  const waits = { connectionTimeout: CONNECT_MS, greetingTimeout: CONNECT_MS, socketTimeout: 2 * CONNECT_MS };
  if (!own) return createTransport({ host: '127.0.0.1', port: standInPort, ignoreTLS: true, ...waits });
  const { host, port, secure, user, password } = own;
  return createTransport({
    ...{ host, port, secure, requireTLS: !secure && !isLoopback(host) },
    ...(user ? { auth: { user, pass: password } } : {}),
    ...waits,
  });
}

/** A server of this machine may go without TLS: nothing leaves it. */
function isLoopback(host: string): boolean {
  return host === 'localhost' || host.startsWith('127.') || host === '::1';
}
