import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Webhook } from 'standardwebhooks';
import { hashOf } from '../../core/text/hash.ts';

/** Bytes of a request at most. */
const MOST = 64 * 2 ** 20;
/** One request in so many fails at its first attempts, by the seed. */
const FAILS_ONE_IN = 4;

export interface Received {
  requests: number;
  /** Answered with a failure by the seed. */
  refused: number;
  /** Rows taken, those of a request that came twice once. */
  rows: number;
  wrongSignatures: number;
}

/** A receiver of webhooks on this machine, which takes, verifies and fails by a seed. */
export class StandInReceiver {
  private readonly seed: number;
  private readonly secrets: () => readonly string[];
  private server: Server | null = null;
  private attempts = new Map<string, number>();
  private taken = new Map<string, string>();
  readonly received: Received = { requests: 0, refused: 0, rows: 0, wrongSignatures: 0 };

  /** @param secrets of the webhooks that go to it */
  constructor(seed: number, secrets: () => readonly string[]) {
    this.seed = seed;
    this.secrets = secrets;
  }

  async start(): Promise<void> {
    const server = createServer((request, response) => void this.take(request, response));
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    server.unref();
    this.server = server;
  }

  get url(): string {
    return `http://127.0.0.1:${(this.server!.address() as AddressInfo).port}/hook`;
  }

  /** The bodies taken, by the id of their request. */
  get bodies(): ReadonlyMap<string, string> {
    return this.taken;
  }

  async stop(): Promise<void> {
    this.server?.closeAllConnections();
    await new Promise((resolve) => (this.server ? this.server.close(resolve) : resolve(null)));
  }

  private async take(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const chunks: Buffer[] = [];
    let size = 0;
    for await (const chunk of request as AsyncIterable<Buffer>) {
      size += chunk.length;
      if (size > MOST) return void response.writeHead(413).end('too large');
      chunks.push(chunk);
    }
    this.received.requests++;
    const body = Buffer.concat(chunks).toString('utf8');
    const id = String(request.headers['webhook-id']);
    const attempt = (this.attempts.get(id) ?? 0) + 1;
    this.attempts.set(id, attempt);
    if (!this.isSigned(body, request.headers as Record<string, string>)) {
      this.received.wrongSignatures++;
      return void response.writeHead(401).end('the signature is not right');
    }
    if (this.fails(id, attempt)) {
      this.received.refused++;
      return void response.writeHead(attempt % 2 ? 503 : 500).end('not now');
    }
    if (!this.taken.has(id)) {
      this.taken.set(id, body);
      this.received.rows += body.split('\n').filter(Boolean).length;
    }
    response.writeHead(202).end('taken');
  }

  private isSigned(body: string, headers: Record<string, string>): boolean {
    return this.secrets().some((secret) => {
      try {
        new Webhook(secret).verify(body, headers, { jsonParse: false });
        return true;
      } catch {
        return false;
      }
    });
  }

  /** Whether an attempt fails; nothing fails more than twice. */
  private fails(id: string, attempt: number): boolean {
    return attempt <= 2 && hashOf(`${this.seed} ${id} ${attempt}`) % FAILS_ONE_IN === 0;
  }
}
