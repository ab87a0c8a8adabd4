import { Toaster } from 'sonner';
import type { Job, SourceView } from '../../contract/responses.ts';
import { Sources } from '../sources/Sources.tsx';
import { show, type Answers } from './render.tsx';

/** The sources as a page, with what a server would answer; for tests only. */

export const source = (key: string, more: Partial<SourceView> = {}): SourceView => ({
  key,
  name: `Register ${key}`,
  fileName: `${key}.csv`,
  licence: null,
  asOf: '2026-09-30',
  loadedAt: '2026-10-01T00:00:00Z',
  rowsRead: 100,
  rowsRefused: 0,
  subject: 'companies',
  companies: 90,
  countries: [],
  refreshed: null,
  ...more,
});
export const job = (id: string, more: Partial<Job> = {}): Job => ({
  id,
  kind: 'load',
  title: `Loading ${id}`,
  state: 'done',
  done: 5,
  total: 10,
  message: null,
  result: null,
  startedAt: '2026-11-01T10:00:00Z',
  endedAt: null,
  ...more,
});
export const answers = (sources: SourceView[], jobs: Job[] = [], more: Answers = {}): Answers => ({
  'GET /sources': { sources },
  'GET /jobs': { jobs },
  'GET /contacts': { books: [] },
  ...Object.fromEntries(jobs.map((one) => [`GET /jobs/${one.id}`, { job: one, refusals: false }])),
  ...more,
});
export const page = (given: Answers) =>
  show(
    <>
      <Sources />
      <Toaster />
    </>,
    given,
  );
