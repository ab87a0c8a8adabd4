import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { JobAnswer, UploadAnswer } from '../contract/responses.ts';
import { ROOT } from '../server/reference.ts';
import { hold } from './harness.ts';

/** An answer with its status; the body as JSON where it is that. */
export interface Answer {
  status: number;
  body: unknown;
  ms: number;
  headers: Headers;
}

/** A start that did not come to an address: how it ended, and what it said. */
export interface Refused {
  code: number | null;
  said: string;
}

/** The built program on a folder of data, as a process of its own that can be killed. */
export class Program {
  readonly address: string;
  readonly dir: string;
  private readonly child: ChildProcess;
  private readonly lines: string[];

  private constructor(child: ChildProcess, dir: string, address: string, lines: string[]) {
    this.child = child;
    this.dir = dir;
    this.address = address;
    this.lines = lines;
  }

  /** Starts it; `Refused` where it ends before it has an address. */
  static async start(dir: string, more: readonly string[] = []): Promise<Program | Refused> {
    const child = spawn(
      process.execPath,
      [join(ROOT, 'dist/server/main.js'), '--data', dir, '--port', '0', ...more],
      { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, NODE_ENV: 'production' } },
    );
    const lines: string[] = [];
    child.stderr.on('data', (chunk) => lines.push(String(chunk)));
    return new Promise((resolve) => {
      child.once('exit', (code) => resolve({ code, said: lines.join('').trim() }));
      child.stdout.on('data', (chunk) => {
        const address = /http:\/\/\S+/.exec(String(chunk))?.[0];
        if (address) resolve(new Program(child, dir, address, lines));
      });
    });
  }

  /** Starts it where it must start. */
  static async started(dir: string, more: readonly string[] = []): Promise<Program> {
    const program = await Program.start(dir, more);
    hold(program instanceof Program, `It did not start: ${(program as Refused).said}`);
    return program;
  }

  /** What it wrote to standard error so far. */
  get said(): string {
    return this.lines.join('');
  }

  get running(): boolean {
    return this.child.exitCode === null && this.child.signalCode === null;
  }

  /** Ends it by a signal and waits until it is gone. Returns its code, null after a kill. */
  async end(signal: NodeJS.Signals): Promise<number | null> {
    if (this.running) {
      this.child.kill(signal);
      await once(this.child, 'exit');
    }
    return this.child.exitCode;
  }

  async ask(
    method: string,
    path: string,
    body?: unknown,
    more: { headers?: Record<string, string>; signal?: AbortSignal } = {},
  ): Promise<Answer> {
    const start = performance.now();
    const isForm = body instanceof FormData;
    const response = await fetch(`${this.address}/api${path}`, {
      method,
      signal: more.signal ?? AbortSignal.timeout(60_000),
      headers: {
        ...(body === undefined || isForm ? {} : { 'content-type': 'application/json' }),
        ...more.headers,
      },
      ...(body === undefined
        ? {}
        : { body: isForm ? body : typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    const text = await response.text();
    let parsed: unknown = text;
    try {
      parsed = JSON.parse(text);
    } catch {
      // A file, or no body at all.
    }
    return {
      status: response.status,
      body: parsed,
      ms: performance.now() - start,
      headers: response.headers,
    };
  }

  async get<T>(path: string): Promise<T> {
    const { status, body } = await this.ask('GET', path);
    hold(status === 200, `GET ${path} answered ${status}: ${JSON.stringify(body)}`);
    return body as T;
  }

  upload(name: string, content: Uint8Array | string): Promise<Answer> {
    const form = new FormData();
    form.append('file', new Blob([content as BlobPart]), name);
    return this.ask('POST', '/uploads', form);
  }

  /** Begins to load a file of companies; returns the id of its job. */
  async beginLoad(name: string, content: string, more: object = {}): Promise<string> {
    const { status, body } = await this.upload(`${name}.csv`, content);
    hold(status === 201, `The upload was refused: ${JSON.stringify(body)}`);
    const { upload, encoding, delimiter, hasHeader, mapping } = body as UploadAnswer;
    const load = await this.ask('POST', '/sources', {
      ...{ upload, name, asOf: '2026-09-30', read: { encoding, delimiter, hasHeader }, mapping },
      ...more,
    });
    hold(load.status === 202, `The load was refused: ${JSON.stringify(load.body)}`);
    return (load.body as JobAnswer).job.id;
  }

  /** The job once it has ended. */
  async ended(id: string): Promise<JobAnswer['job']> {
    for (;;) {
      const { job } = await this.get<JobAnswer>(`/jobs/${id}`);
      if (job.state !== 'running') return job;
      await pause(20);
    }
  }
}

export function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms));
}

/** A folder of its own for one check, gone afterwards together with the programs on it. */
export async function inFolder(work: (dir: string) => Promise<void>): Promise<void> {
  const dir = mkdtempSync(join(tmpdir(), 'just-tally-faults-'));
  try {
    await work(dir);
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

/** Companies as CSV, of this many rows; keys are told apart by the stem. */
export function companiesCsv(stem: string, rows: number): string {
  const lines = Array.from(
    { length: rows },
    (_, i) => `${stem} ${i} Ltd,${stem}${i},GB,${(i * 7) % 400},Leeds`,
  );
  return `name,registration number,country,employees,town\n${lines.join('\n')}\n`;
}

export const tape = (lines: readonly object[] = [], more: object = {}) => ({
  ...{ format: 'just-tally.tape', version: 1, subject: 'companies', lines },
  ...more,
});
