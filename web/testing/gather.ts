import type {
  AroundAnswer,
  GatherAnswer,
  GathererAnswer,
  GatherRunView,
  LookAnswer,
  LookRow,
} from '../../contract/gather-views.ts';
import { newSpec } from '../gather/teaching.ts';

/** Gatherers, pages and runs, for tests. */

export const lookRow = (
  node: number,
  values: Record<string, string>,
  more: Partial<LookRow> = {},
): LookRow => ({
  ...{ node, nodes: [node], look: 0, sure: 1, example: null },
  values: Object.entries(values).map(([field, value], i) => ({ field, value, node: node + 1 + i })),
  ...more,
});

export const look = (rows: LookRow[], more: Partial<LookAnswer> = {}): LookAnswer => ({
  ...{ rows, adverts: [], perhaps: [], lacking: 0, next: null, forms: [], guess: [], detail: [], cut: false },
  looks: rows.length ? [rows.length] : [],
  sure: rows.length ? 0.97 : null,
  ...more,
});

export const around = (more: Partial<AroundAnswer> = {}): AroundAnswer => ({
  choices: [
    { node: 12, alike: 30 },
    { node: 10, alike: 3 },
    { node: 4, alike: 1 },
  ],
  best: 1,
  fields: [{ field: 'name', node: 11 }],
  ...{ another: null, field: 'name', text: 'Drevanko', cell: 11, next: null },
  ...more,
});

export const gatherer = (more: Partial<GathererAnswer> = {}): GathererAnswer => ({
  id: 'g1',
  name: 'Guide',
  spec: newSpec({
    start: 'http://guide.example/',
    words: ['joinery', 'printer'],
    places: ['Brno', 'Zlín', 'Vsetín'],
  }),
  pages: [
    {
      id: 7,
      url: 'http://guide.example/find?what=joinery',
      saved: false,
      fetchedAt: '2026-11-29T10:42:00Z',
      size: 900,
    },
  ],
  runs: [],
  ...more,
});

export const gatherRun = (more: Partial<GatherRunView> = {}): GatherRunView => ({
  ...{ id: 'r1', gatherer: 'g1', name: 'Guide', nth: 1, state: 'running', why: null, person: 'Hana' },
  ...{ startedAt: '2026-11-29T10:42:00Z', endedAt: null, pause: 20, timeLeft: 140 },
  roll: {
    steps: [
      { step: 'found', label: 'Rows found', note: '', delta: 512, total: 512 },
      { step: 'adverts', label: 'Adverts', note: 'set aside', delta: -41, total: 471 },
      { step: 'twice', label: 'Twice', note: 'found by another word or place', delta: -63, total: 408 },
      { step: 'refused', label: 'Refused', note: '5 without name', delta: -5, total: 403 },
    ],
    foot: 403,
  },
  searches: [
    { word: 'joinery', place: 'Brno', records: 104, pages: 7, state: 'done' },
    { word: 'joinery', place: 'Zlín', records: 60, pages: 4, state: 'reads' },
    { word: 'printer', place: 'Brno', records: 0, pages: 0, state: 'waits' },
    { word: 'printer', place: 'Zlín', records: 0, pages: 0, state: 'waits' },
  ],
  ...{ searchesDone: 1, pagesRead: 37, pagesWaiting: 7, pagesFailed: 0, pagesNotAllowed: 0 },
  ...more,
});

export const gatherAnswer = (more: Partial<GatherAnswer> = {}): GatherAnswer => ({
  gatherers: [],
  hosts: [],
  standIns: [
    {
      name: 'Workshop Guide',
      address: 'http://workshop-guide.example/',
      seen: 'http://127.0.0.1:1/on/workshop-guide.example/',
    },
  ],
  ...more,
});
