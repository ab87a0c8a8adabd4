import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import type { JobAnswer } from '../contract/responses.ts';

/** The built server on a workspace, as `npm start` runs it, spoken to over HTTP. */
export class ServerProcess {
  readonly address: string;
  private readonly child: ChildProcess;

  private constructor(child: ChildProcess, address: string) {
    this.child = child;
    this.address = address;
  }

  static start(dir: string): Promise<ServerProcess> {
    const main = fileURLToPath(new URL('../server/main.js', import.meta.url));
    const child = spawn(process.execPath, [main, '--data', dir, '--port', '0', '--upload-limit', '8000'], {
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...process.env, NODE_ENV: 'production' },
    });
    return new Promise((resolve, reject) => {
      child.on('exit', (code) => reject(new Error(`The server ended with ${code}.`)));
      child.stdout.on('data', (chunk) => {
        const address = /http:\/\/\S+/.exec(String(chunk))?.[0];
        if (address) resolve(new ServerProcess(child, address));
      });
    });
  }

  async post<T>(path: string, body: unknown): Promise<T> {
    return this.read<T>(
      await fetch(`${this.address}/api${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      }),
    );
  }

  async get<T>(path: string): Promise<T> {
    return this.read<T>(await fetch(`${this.address}/api${path}`));
  }

  async delete<T>(path: string): Promise<T> {
    return this.read<T>(await fetch(`${this.address}/api${path}`, { method: 'DELETE' }));
  }

  async upload<T>(name: string, file: Blob): Promise<T> {
    const form = new FormData();
    form.append('file', file, name);
    return this.read<T>(await fetch(`${this.address}/api/uploads`, { method: 'POST', body: form }));
  }

  private async read<T>(response: Response): Promise<T> {
    const answer: unknown = await response.json();
    if (!response.ok) throw new Error(JSON.stringify(answer));
    return answer as T;
  }

  /** Waits for a job; throws unless it is done. */
  async done(id: string): Promise<JobAnswer['job']> {
    for (;;) {
      const { job } = await this.get<JobAnswer>(`/jobs/${id}`);
      if (job.state === 'done') return job;
      if (job.state !== 'running') throw new Error(`${job.title}: ${job.state}. ${job.message}`);
      await wait(50);
    }
  }

  /** The most memory it ever had, in bytes. */
  peak(): number {
    return memoryOf(this.child.pid!, 'VmHWM');
  }

  stop(): Promise<void> {
    this.child.removeAllListeners('exit');
    return new Promise((resolve) => {
      this.child.on('exit', () => resolve());
      this.child.kill();
    });
  }
}

/** What Linux says of a process's memory, in bytes. */
function memoryOf(pid: number, what: 'VmHWM'): number {
  const found = new RegExp(`${what}:\\s+(\\d+) kB`).exec(readFileSync(`/proc/${pid}/status`, 'utf8'));
  return Number(found?.[1]) * 1024;
}
