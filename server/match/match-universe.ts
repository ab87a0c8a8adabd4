import { domainKey, houseKey, phoneKey, sharedKeys, switchboardKey } from '../../core/match/blocking.ts';
import { readyFirm, type Firm, type ReadyFirm } from '../../core/match/firm.ts';
import { matchRows, type Matching } from '../../core/match/match-rows.ts';
import type { Frequencies } from '../../core/match/model.ts';
import type { Db } from '../db/open.ts';
import { isFreeMail } from '../free-mail.ts';
import { keyUnder } from '../tables/company-joins.ts';
import { openFirmIndex, type Told } from './open-firm-index.ts';

/** Candidates of a row that are compared in full. */
const MOST_COMPARED = 20;
/** Candidates that are kept ready; those of neighbouring rows are often the same. */
const MOST_READIED = 100_000;
/** Companies from which is learned what comes up by chance. */
const STRANGERS = 2000;
/** Rows after which progress is told. */
const A_LOOK = 5000;

/** What came up so often by chance, kept with a match so that its pairs can be looked at again. */
export type Shared = Record<number, number>;

export interface MatchedUniverse extends Matching<string> {
  shared: Shared;
  companies: number;
  ofWord(word: string): number;
}

/** Rows that are companies of the universe themselves. */
export interface OwnRows {
  /** Their ids, in the order of the rows. */
  ids: readonly number[];
  /** Whether a row and a company stay apart, whatever speaks for them. */
  apart(row: number, key: string): boolean;
}

/**
 * Lines up the rows of a file, or some of its own companies, with all companies of the universe in a folder. Candidates are named by
 * key.
 * @param universe in a transaction, so that it stays as it is meanwhile
 */
export function matchUniverse(
  dir: string,
  universe: Db,
  firms: readonly Firm[],
  precision: number,
  told: Told,
  own: OwnRows | null = null,
): MatchedUniverse {
  const index = openFirmIndex(dir, universe, told);
  const companies = index.size;
  const rows = firms.map((firm) => readyFirm(firm, isFreeMail));
  const readied = new Map<number, { company: string; ready: ReadyFirm }>();
  const readyOf = (company: number) => {
    let one = readied.get(company);
    if (!one) {
      const { key, ready } = index.firmAt(company);
      if (readied.size >= MOST_READIED) readied.clear();
      readied.set(company, (one = { company: key, ready }));
    }
    return one;
  };
  const found = (row: number) =>
    index.candidatesOf(rows[row]!, MOST_COMPARED).flatMap(({ company }) => {
      if (own?.ids[row] === index.idAt(company)) return [];
      const one = readyOf(company);
      return own?.apart(row, one.company) ? [] : [one];
    });
  // A row that is of the universe has what it has there itself, too.
  const itself = own ? 1 : 0;
  const sharing = (key: number) => Math.max(0, index.sharing(key) - itself);
  const frequencies = {
    companies,
    ofWord: (word: string) => index.withWord(word),
    ofDomain: (domain: string) => sharing(domainKey(domain)),
    ofPhone: (phone: string) => sharing(phoneKey(phone)),
    ofHouse: (row: ReadyFirm) => sharing(houseKey(row)!),
    ofSwitchboard: (phone: string) => sharing(switchboardKey(phone)),
  } satisfies Frequencies;
  const matching = matchRows(rows, found, index.spread(STRANGERS), frequencies, precision, (row) => {
    if (row % A_LOOK === 0) told(row, rows.length, 'rows compared');
  });
  // What a file says by our own key needs no comparing.
  const keyOf = keyUnder(universe);
  firms.forEach(({ key: given }, row) => {
    const company = given === undefined ? null : keyOf(given);
    if (company !== null)
      matching.rows[row] = { outcome: 'sure', candidates: [{ company, chance: 1, by: 'key' }] };
  });
  const shared: Shared = {};
  for (const row of rows) for (const key of sharedKeys(row)) shared[key] = sharing(key);
  return { ...matching, shared, companies, ofWord: frequencies.ofWord };
}
