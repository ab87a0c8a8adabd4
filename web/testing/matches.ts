import type {
  CandidateView,
  MatchAnswer,
  MatchPairAnswer,
  MatchView,
  SettledAnswer,
} from '../../contract/matches.ts';
import { COMPARED, type Mark } from '../../core/match/compare.ts';

/** A matched file as a server would answer for it; for tests only. */

export const matchView = (more: Partial<MatchView> = {}): MatchView => ({
  id: 'm1',
  of: 'file',
  name: 'Fair visitors',
  fileName: 'fair-visitors.csv',
  person: 'Ilona',
  madeAt: '2026-11-20T10:00:00Z',
  precision: 0.99,
  companies: 48_000,
  changed: false,
  rows: 412,
  notData: 1,
  unreadable: 3,
  twice: 5,
  toMatch: 403,
  sure: { key: 0, number: 201, domain: 96, name: 41 },
  settled: 0,
  doubtful: 3,
  none: 62,
  found: 338,
  foundCompanies: 335,
  moved: 0,
  list: null,
  ...more,
});

export const matchAnswer = (match: MatchView, more: Partial<MatchAnswer> = {}): MatchAnswer => ({
  match,
  weights: [
    { feature: 'domain', level: 'equal', m: 0.98, u: 0.00001, bits: 16.6 },
    { feature: 'domain', level: 'different', m: 0.01, u: 1, bits: -6.6 },
  ],
  limits: { sure: 0.95, doubtful: 0.1 },
  learning: { rows: 403, pairs: 5200, rounds: 4 },
  together: null,
  ...more,
});

const candidate = (key: string, name: string, chance: number, mark: Mark): CandidateView => ({
  key,
  chance,
  name,
  group: key === 'CZ-2' ? 'Zarmysko Holding' : null,
  fields: COMPARED.map((field) => ({
    field,
    value: field === 'name' ? name : null,
    mark: field === 'name' ? mark : 'missing',
  })),
  km: null,
  why: `Because of ${name}.`,
  gone: false,
});

export const pairAnswer = (row: number, more: Partial<MatchPairAnswer> = {}): MatchPairAnswer => ({
  row,
  state: 'doubtful',
  key: 'CZ-1',
  settledBy: null,
  fields: COMPARED.map((field) => ({ field, value: field === 'name' ? 'Zarmysko Stolarstvi' : null })),
  carried: [{ heading: 'Stand', value: '14' }],
  candidates: [
    candidate('CZ-1', 'Zarmysko Stolařství s.r.o.', 0.91, 'equal'),
    candidate('CZ-2', 'Zarmysko Schody a.s.', 0.48, 'different'),
  ],
  nth: row - 6,
  of: 3,
  next: row < 9 ? row + 1 : null,
  back: row > 7 ? row - 1 : null,
  ...more,
});

/** The answers of a server with one match, of which rows 7, 8 and 9 are doubtful; `settled` has what was settled. */
export function matchServer() {
  let match = matchView();
  const settled: SettledAnswer['before'][] = [];
  const rowsOf = (rows: number[]) => ({
    total: rows.length,
    rows: rows.map((row) => ({
      row,
      state: 'doubtful' as const,
      by: null,
      name: `Row ${row} of the file`,
      place: 'Brno, CZ',
      company: { key: 'CZ-1', name: 'Zarmysko', place: 'Boskovice, CZ' },
      chance: 0.91,
      twiceOf: null,
      was: null,
    })),
  });
  const answers = {
    'GET /matches': () => ({ matches: [match] }),
    'GET /matches/m1': () => matchAnswer(match),
    'GET /matches/m1/rows': rowsOf([7, 8, 9]),
    ...Object.fromEntries([7, 8, 9].map((row) => [`GET /matches/m1/rows/${row}`, pairAnswer(row)])),
    'PUT /matches/m1/rows': ({ rows }: { rows: SettledAnswer['before'] }) => {
      settled.push(rows);
      const more =
        rows.filter(({ as }) => as !== 'open').length - rows.filter(({ as }) => as === 'open').length;
      match = { ...match, settled: match.settled + more, doubtful: match.doubtful - more };
      return { match, before: rows.map(({ row }) => ({ row, as: 'open' })) } satisfies SettledAnswer;
    },
  };
  return { answers, settled };
}
