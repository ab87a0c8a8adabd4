import { domainKey, houseKey, phoneKey, switchboardKey } from '../../core/match/blocking.ts';
import { CandidateFinder, sharedKeys } from '../../core/match/candidates.ts';
import { readyFirm, type Firm, type ReadyFirm } from '../../core/match/firm.ts';
import { matchRows, type Matching } from '../../core/match/match-rows.ts';
import type { Frequencies } from '../../core/match/model.ts';
import type { Db } from '../db/open.ts';
import { allFirms, countCompanies, firmFinder, isFreeMail } from './universe-firms.ts';

/** Candidates of a row that are compared in full. */
const MOST_COMPARED = 20;
/** Companies from which is learned what comes up by chance. */
const STRANGERS = 2000;
/** Companies, or rows, after which progress is told. */
const A_LOOK = 5000;

/** How far a match is. `done` of `total` of what `doing` says; may throw to end it. */
export type Told = (done: number, total: number, doing: string) => void;

/** What came up so often by chance, kept with a match so that its pairs can be looked at again. */
export type Shared = Record<number, number>;

export interface MatchedUniverse extends Matching<string> {
  shared: Shared;
  companies: number;
  ofWord(word: string): number;
}

/** Lines up the rows of a file with all companies of a universe. Candidates are named by key. */
export function matchUniverse(
  universe: Db,
  firms: readonly Firm[],
  precision: number,
  told: Told,
): MatchedUniverse {
  const companies = countCompanies(universe);
  const rows = firms.map((firm) => readyFirm(firm, isFreeMail));
  const finder = new CandidateFinder(rows);
  const strangers: ReadyFirm[] = [];
  const every = Math.max(1, Math.floor(companies / STRANGERS));
  let passed = 0;
  for (const { id, firm } of allFirms(universe)) {
    if (passed % A_LOOK === 0) told(passed, companies, 'companies looked through');
    const ready = readyFirm(firm, isFreeMail);
    if (passed++ % every === 0 && strangers.length < STRANGERS) strangers.push(ready);
    finder.offer(id, ready);
  }
  const look = firmFinder(universe);
  const readied = new Map<number, { company: string; ready: ReadyFirm }>();
  const found = finder.candidates(MOST_COMPARED).map((own) =>
    own.map(({ company }) => {
      let one = readied.get(company);
      if (!one) {
        const { key, firm } = look(company);
        readied.set(company, (one = { company: key, ready: readyFirm(firm, isFreeMail) }));
      }
      return one;
    }),
  );
  const frequencies = {
    companies,
    ofWord: (word: string) => finder.withWord(word),
    ofDomain: (domain: string) => finder.sharing(domainKey(domain)),
    ofPhone: (phone: string) => finder.sharing(phoneKey(phone)),
    ofHouse: (row: ReadyFirm) => finder.sharing(houseKey(row)!),
    ofSwitchboard: (phone: string) => finder.sharing(switchboardKey(phone)),
  } satisfies Frequencies;
  const matching = matchRows(rows, found, strangers, frequencies, precision, (row) => {
    if (row % A_LOOK === 0) told(row, rows.length, 'rows compared');
  });
  const shared: Shared = {};
  for (const row of rows) for (const key of sharedKeys(row)) shared[key] = finder.sharing(key);
  return { ...matching, shared, companies, ofWord: frequencies.ofWord };
}
