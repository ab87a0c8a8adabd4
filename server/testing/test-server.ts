import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import supertest from 'supertest';
import type { JobAnswer, UploadAnswer } from '../../contract/responses.ts';
import { holdAnswers } from './answers-held.ts';
import { createApp } from '../app.ts';
import type { GatherTuning } from '../gather/gather.ts';
import { NO_LOG } from '../log.ts';
import type { Runs } from '../runs/runs.ts';
import { closeServices, openServices, type Services } from '../services.ts';

/** The whole server on an empty workspace of its own, for tests of the API. */
export class TestServer {
  readonly dir = mkdtempSync(join(tmpdir(), 'just-tally-api-'));
  private services!: Services;
  private server!: Server;
  private held: { wrong: string[] } = { wrong: [] };
  private base = '';

  /** @param uploadLimit largest upload in MB */
  async start(
    uploadLimit: number,
    gathering: GatherTuning = {},
    now: () => number = Date.now,
  ): Promise<void> {
    this.services = await openServices(this.dir, uploadLimit, NO_LOG, gathering, now);
    const app = createApp(this.services);
    this.held = holdAnswers(app);
    this.server = createServer(app);
    await new Promise<void>((resolve) => this.server.listen(0, '127.0.0.1', resolve));
    this.base = `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }

  /** What runs when, to be woken by tests that have clocks of their own. */
  get runs(): Runs {
    return this.services.runs;
  }

  /** Ends the server and leaves its folder, so that it can be started on it again. */
  async pause(): Promise<void> {
    this.server.close();
    await closeServices(this.services);
  }

  async stop(): Promise<void> {
    await this.pause();
    rmSync(this.dir, { recursive: true });
    if (this.held.wrong.length)
      throw new Error(`Answers that are not as the API says:\n${[...new Set(this.held.wrong)].join('\n')}`);
  }

  /** The port of the stand-in for the world's mail hosts. */
  get mailHost(): number {
    return this.services.outreach.mailHost;
  }

  /** Where it listens. */
  get address(): string {
    return this.base;
  }

  get api() {
    return supertest(this.base);
  }

  /** The job once it has ended. */
  async ended(id: string): Promise<JobAnswer> {
    // Asking again and again would take the time of the threads that are waited for.
    await this.services.jobs.ended(id);
    return (await this.api.get(`/api/jobs/${id}`)).body as JobAnswer;
  }

  upload(name: string, content: Buffer): Promise<supertest.Response> {
    return this.api.post('/api/uploads').attach('file', content, name);
  }

  async load(preview: UploadAnswer, more: object = {}): Promise<JobAnswer> {
    const { upload, encoding, delimiter, hasHeader, mapping } = preview;
    const response = await this.api.post('/api/sources').send({
      upload,
      name: 'Branch list',
      asOf: '2026-09-30',
      read: { encoding, delimiter, hasHeader },
      mapping,
      ...more,
    });
    if (response.status >= 400) throw new Error(response.text);
    return this.ended((response.body as { job: { id: string } }).job.id);
  }
}

export const tape = (lines: object[]) => ({
  format: 'just-tally.tape',
  version: 1,
  subject: 'companies',
  lines,
});
