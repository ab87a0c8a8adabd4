import type { AddressInfo } from 'node:net';
import type { SMTPServer } from 'smtp-server';

/** What servers of this machine that speak SMTP have in common. */

/** Listens on this machine alone, on a port that is free. */
export function listenHere(server: SMTPServer): Promise<void> {
  return new Promise((resolve, reject) => {
    server.server.once('error', reject);
    server.listen(0, '127.0.0.1', () => {
      server.server.off('error', reject);
      resolve();
    });
  });
}

export function portOf(server: SMTPServer): number {
  return (server.server.address() as AddressInfo).port;
}

export function stopServer(server: SMTPServer): Promise<void> {
  return new Promise((resolve) => server.close(() => resolve()));
}

/** Most bytes of a message that are read. */
const MOST_BYTES = 5_000_000;

/** All of a message as it comes. @throws Error where it is longer than any that is read */
export async function sourceOf(stream: AsyncIterable<Buffer>): Promise<Buffer> {
  const parts: Buffer[] = [];
  let size = 0;
  let tooLong = false;
  for await (const part of stream) {
    size += part.length;
    if (size > MOST_BYTES) tooLong = true;
    else parts.push(part);
  }
  if (tooLong) throw Object.assign(new Error('5.3.4 The message is too large'), { responseCode: 552 });
  return Buffer.concat(parts);
}
