import { existsSync, openAsBlob } from 'node:fs';
import { basename } from 'node:path';
import type { ErrorAnswer, Job, JobAnswer } from '../contract/responses.ts';

/** What a command came to, as its exit code says. */
export const EXIT = { done: 0, refused: 1, usage: 2, noServer: 3, failed: 4 } as const;

/** A command that does not go on, with the code it ends with. */
export class Ended extends Error {
  readonly code: number;
  constructor(code: number, message: string) {
    super(message);
    this.code = code;
  }
}

const PAUSE = 250;

/** The API of a running server. */
export class Client {
  private readonly server: string;
  private readonly tell: (line: string) => void;

  /** @param tell where progress is written */
  constructor(server: string, tell: (line: string) => void) {
    this.server = server.endsWith('/') ? server.slice(0, -1) : server;
    this.tell = tell;
  }

  /** @throws Ended where nothing answers, or the answer is a refusal */
  async call<T>(method: 'GET' | 'POST', path: string, body?: object | FormData): Promise<T> {
    const answer = await this.ask(path, {
      method,
      ...(body === undefined
        ? {}
        : body instanceof FormData
          ? { body }
          : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
    });
    return (await answer.json()) as T;
  }

  /** The bytes of a file that the server has. */
  async file(path: string): Promise<{ body: ReadableStream<Uint8Array>; name: string }> {
    const answer = await this.ask(path, {});
    const said = answer.headers.get('content-disposition') ?? '';
    const name =
      /filename\*=UTF-8''([^;]+)/.exec(said)?.[1] ?? /filename="([^"]+)"/.exec(said)?.[1] ?? 'export';
    return { body: answer.body!, name: decodeURIComponent(name) };
  }

  async upload<T>(path: string, file: string): Promise<T> {
    if (!existsSync(file)) throw new Ended(EXIT.usage, `There is no file ${file}.`);
    const form = new FormData();
    form.append('file', await openAsBlob(file), basename(file));
    return this.call<T>('POST', path, form);
  }

  /** Waits for a job, telling how far it is. @throws Ended where it does not come to a good end */
  async ended(id: string): Promise<Job> {
    for (;;) {
      const { job } = await this.call<JobAnswer>('GET', `/jobs/${id}`);
      if (job.state === 'running') {
        const share = job.total ? ` ${Math.floor((100 * job.done) / job.total)} %` : '';
        this.tell(`${job.title}${share}`);
        await new Promise((resolve) => setTimeout(resolve, PAUSE));
        continue;
      }
      if (job.state !== 'done') throw new Ended(EXIT.failed, job.message ?? `${job.title}: ${job.state}`);
      this.tell(`${job.title}: done`);
      return job;
    }
  }

  private async ask(path: string, init: RequestInit): Promise<Response> {
    let answer: Response;
    try {
      answer = await fetch(`${this.server}/api${path}`, init);
    } catch {
      throw new Ended(
        EXIT.noServer,
        `Nothing answers at ${this.server}. Start the program with npm start, or name another with --server.`,
      );
    }
    if (answer.ok) return answer;
    const { error } = (await answer
      .json()
      .catch(() => ({ error: { message: answer.statusText } }))) as ErrorAnswer;
    throw new Ended(EXIT.refused, error.rule ? `${error.message} Expected: ${error.rule}.` : error.message);
  }
}
