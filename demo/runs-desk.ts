import type { PlanAnswer, PlanView, RunView } from '../contract/runs.ts';
import { startDemo } from './demo-server.ts';
import { UNTOLD, type Answered } from '../server/testing/answered.ts';
import { TestServer } from '../server/testing/test-server.ts';
import { until } from '../server/testing/until.ts';

/** A server over a small demo, with what tests of runs ask again and again. */

export const BY_HAND = { how: 'hand' } as const;

export class RunsDesk {
  readonly server = new TestServer();

  get api() {
    return this.server.api;
  }

  start(companies: number): Promise<void> {
    return startDemo(this.server, companies);
  }

  stop(): Promise<void> {
    return this.server.stop();
  }

  /** Id of a saved tape by how its name begins. */
  async savedTape(name: string): Promise<string> {
    const { tapes } = (await this.api.get('/api/tapes')).body as { tapes: { id: string; name: string }[] };
    return tapes.find((tape) => tape.name.startsWith(name))!.id;
  }

  /** Saves a tape of companies; returns its id. */
  async saved(name: string, lines: readonly object[]): Promise<string> {
    const tape = { format: 'just-tally.tape', version: 1, subject: 'companies', lines };
    const { body } = (await this.api
      .post('/api/tapes')
      .send({ kind: 'tape', name, tape })) as Answered<unknown>;
    return (body as { tape: { id: string } }).tape.id;
  }

  async plan(wish: object): Promise<PlanView> {
    const response = await this.api.post('/api/plans').send({ schedule: BY_HAND, tell: UNTOLD, ...wish });
    if (response.status !== 201) throw new Error(JSON.stringify(response.body));
    return (response.body as PlanAnswer).plan;
  }

  /** Runs a plan by hand, and waits for its end. */
  async ran(key: string): Promise<RunView> {
    const { body } = (await this.api.post(`/api/plans/${key}/run`)) as Answered<unknown>;
    return this.ended((body as { run: RunView }).run.id);
  }

  async ended(id: string): Promise<RunView> {
    return until(
      async () => ((await this.api.get(`/api/runs/${id}`)).body as { run: RunView }).run,
      ({ state }) => state !== 'waits' && state !== 'running',
    );
  }

  /** Brings the demo to its next month. */
  async nextMonth(): Promise<Record<string, unknown>> {
    const { body } = (await this.api.post('/api/demo/month').send({})) as Answered<unknown>;
    const { job } = await this.server.ended((body as { job: { id: string } }).job.id);
    if (job.state !== 'done') throw new Error(job.message ?? 'no word');
    return job.result!;
  }
}
