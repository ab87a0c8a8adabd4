import type { ChangeRow, NoticeView, PlanView, RunView } from '../../contract/runs.ts';

/** Plans, runs and what there is to tell, for tests. */

export const runView = (id: string, more: Partial<RunView> = {}): RunView => ({
  ...{ id, plan: 'targets', nth: 2, cause: 'clock', state: 'done', message: null, carriedBy: null },
  ...{
    dueAt: '2026-11-02T06:00:00Z',
    startedAt: '2026-11-02T06:00:00Z',
    endedAt: '2026-11-02T06:00:02Z',
    took: 2100,
  },
  ...{
    count: 12,
    before: 10,
    joined: 3,
    left: 1,
    moved: 1,
    comparedTo: 'r1',
    subject: 'companies',
    asOf: 20_757,
  },
  roll: {
    steps: [
      { step: 'before', label: 'Before', note: '2026-10-26, as of 2026-09-30', delta: 10, total: 10 },
      { step: 'joined new', label: 'Joined', note: 'new: Register was refreshed', delta: 1, total: 11 },
      { step: 'joined line l2', label: 'Joined', note: 'Headcount 20 to 249', delta: 2, total: 13 },
      { step: 'left gone', label: 'Left', note: 'gone: Register was refreshed', delta: -1, total: 12 },
    ],
    foot: 12,
  },
  moves: [{ reason: 'field address', label: 'address', count: 1 }],
  log: [],
  ...more,
});

export const planView = (key: string, more: Partial<PlanView> = {}): PlanView => ({
  ...{
    key,
    kind: 'tape',
    name: `Plan ${key}`,
    target: { tape: 't1' },
    what: 'the tape Targets',
    person: 'Ilona',
  },
  schedule: {
    how: 'repeats',
    words: 'every Monday at 7',
    cron: '0 7 * * 1',
    zone: 'Europe/Prague',
    missed: 'run',
  },
  ...{
    when: 'every Monday at 7',
    next: ['2026-11-09T06:00:00Z'],
    last: runView('r2'),
    runs: 2,
    trouble: null,
  },
  tell: { success: false, failure: true, changes: null, rate: 'at-once', ways: ['bell'] },
  ...more,
});

export const changeRow = (key: string, more: Partial<ChangeRow> = {}): ChangeRow => ({
  ...{
    what: 'joined',
    reason: 'line l2',
    key,
    name: `Firm ${key}`,
    place: 'Hranice, CZ',
    why: 'Headcount 20 to 249',
  },
  ...{ was: '19', now: '22', there: true },
  ...more,
});

export const notice = (id: string, more: Partial<NoticeView> = {}): NoticeView => ({
  ...{ id, at: '2026-11-02T06:00:00Z', kind: 'watch', title: `Notice ${id}`, why: 'you watch it', items: [] },
  ...{ link: '/runs', read: false, toldAt: null, trouble: null },
  ...more,
});
