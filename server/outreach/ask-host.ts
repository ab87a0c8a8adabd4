import { createConnection } from 'node:net';

/** What a mail host says of an address, without being sent anything. */
export const HOST_ANSWERS = ['accepts', 'refuses', 'accepts-all', 'puts-off', 'no-answer'] as const;
export type HostAnswer = (typeof HOST_ANSWERS)[number];

const WAIT_MS = 5000;
/** A mailbox that nobody has: a host that takes this one too takes anything. */
const NOBODY = 'no-such-mailbox-x7q3';

/**
 * Asks a mail host whether it would take a message for an address, and for one that nobody has: the beginning of a delivery by
 * SMTP (RFC 5321), ended before any text goes.
 */
export async function askHost(host: string, port: number, from: string, mail: string): Promise<HostAnswer> {
  const domain = mail.slice(mail.lastIndexOf('@') + 1);
  const dialogue = new Dialogue(host, port);
  try {
    if ((await dialogue.reply()) !== 220) return 'no-answer';
    if ((await dialogue.say('EHLO [127.0.0.1]')) !== 250) return 'no-answer';
    if ((await dialogue.say(`MAIL FROM:<${from}>`)) !== 250) return 'no-answer';
    const code = await dialogue.say(`RCPT TO:<${mail}>`);
    if (code >= 500) return 'refuses';
    if (code !== 250) return 'puts-off';
    const strange = await dialogue.say(`RCPT TO:<${NOBODY}@${domain}>`);
    return strange === 250 ? 'accepts-all' : 'accepts';
  } catch {
    return 'no-answer';
  } finally {
    dialogue.end();
  }
}

/** Lines said and codes of replies, one after the other. */
class Dialogue {
  private readonly socket;
  private text = '';
  private waiting: { resolve(code: number): void; reject(error: Error): void } | null = null;
  private failure: Error | null = null;

  constructor(host: string, port: number) {
    this.socket = createConnection({ host, port });
    this.socket.setTimeout(WAIT_MS, () => this.fail(new Error('The host does not answer.')));
    this.socket.setEncoding('latin1');
    this.socket.on('data', (part: string) => {
      this.text += part;
      this.settle();
    });
    this.socket.on('error', (error) => this.fail(error));
    this.socket.on('close', () => this.fail(new Error('The host has hung up.')));
  }

  /** The code of the next reply. */
  reply(): Promise<number> {
    return new Promise((resolve, reject) => {
      if (this.failure) return reject(this.failure);
      this.waiting = { resolve, reject };
      this.settle();
    });
  }

  say(line: string): Promise<number> {
    this.socket.write(`${line}\r\n`);
    return this.reply();
  }

  end(): void {
    this.socket.end('QUIT\r\n');
    this.socket.destroy();
  }

  /** A reply of several lines ends with the one whose code is followed by a blank. */
  private settle(): void {
    const end = /^(\d{3}) .*\r\n/m.exec(this.text);
    if (!end || !this.waiting) return;
    this.text = this.text.slice(end.index + end[0].length);
    const { resolve } = this.waiting;
    this.waiting = null;
    resolve(Number(end[1]));
  }

  private fail(error: Error): void {
    this.failure = error;
    this.waiting?.reject(error);
    this.waiting = null;
    this.socket.destroy();
  }
}
