import { domainKey, houseKey, phoneKey, sharedKeys, switchboardKey } from '../../core/match/blocking.ts';
import { readyFirm, type Firm, type ReadyFirm } from '../../core/match/firm.ts';
import { matchRows, type Matching, type Rows } from '../../core/match/match-rows.ts';
import type { FirmIndex } from '../../core/match/firm-index.ts';
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

/** What a match reads of a universe: its folder, and the database in a transaction, so that it stays as it is meanwhile. */
interface Whole {
  dir: string;
  universe: Db;
  told: Told;
}

/** Lines up the rows of a file with all companies of a universe. Candidates are named by key. */
export function matchUniverse(whole: Whole, firms: readonly Firm[], precision: number): MatchedUniverse {
  const { dir, universe, told } = whole;
  const index = openFirmIndex(dir, universe, told);
  const rows = firms.map((firm) => readyFirm(firm, isFreeMail));
  const matched = matchWith(index, rows, precision, told, null);
  // What a file says by our own key needs no comparing.
  const keyOf = keyUnder(universe);
  firms.forEach(({ key: given }, row) => {
    const company = given === undefined ? null : keyOf(given);
    if (company !== null)
      matched.rows[row] = { outcome: 'sure', candidates: [{ company, chance: 1, by: 'key' }] };
  });
  return matched;
}

/**
 * Lines up some companies of a universe with all others of it.
 * @param ids of these companies; those that are not there are left out
 * @param apart whether two companies stay apart by their keys, whatever speaks for them
 */
export function matchOwn(
  { dir, universe, told }: Whole,
  ids: Iterable<number>,
  precision: number,
  apart: (key: string, other: string) => boolean,
): MatchedUniverse & { keys: (row: number) => string } {
  const index = openFirmIndex(dir, universe, told);
  const places = Uint32Array.from(index.placesOf(ids));
  const rows: Rows = { length: places.length, at: (row) => index.firmAt(places[row]!).ready };
  let last = { row: -1, key: '' };
  const keys = (row: number) => {
    if (last.row !== row) last = { row, key: index.firmAt(places[row]!).key };
    return last.key;
  };
  const own: OwnRows = { places, apart: (row, key) => apart(keys(row), key) };
  return { ...matchWith(index, rows, precision, told, own), keys };
}

/** Rows that are companies of the universe themselves. */
interface OwnRows {
  /** Their places in its index. */
  places: Uint32Array;
  apart(row: number, key: string): boolean;
}

function matchWith(
  index: FirmIndex,
  rows: Rows,
  precision: number,
  told: Told,
  own: OwnRows | null,
): MatchedUniverse {
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
  const found = (row: number, ready: ReadyFirm) =>
    index.candidatesOf(ready, MOST_COMPARED, own && own.places[row]!).flatMap(({ company }) => {
      const one = readyOf(company);
      return own?.apart(row, one.company) ? [] : [one];
    });
  // A row that is of the universe has what it has there itself, too.
  const itself = own ? 1 : 0;
  const sharing = (key: number) => Math.max(0, index.sharing(key) - itself);
  const frequencies = {
    companies: index.size,
    ofWord: (word: string) => index.withWord(word),
    ofDomain: (domain: string) => sharing(domainKey(domain)),
    ofPhone: (phone: string) => sharing(phoneKey(phone)),
    ofHouse: (row: ReadyFirm) => sharing(houseKey(row)!),
    ofSwitchboard: (phone: string) => sharing(switchboardKey(phone)),
  } satisfies Frequencies;
  const matching = matchRows(rows, found, index.spread(STRANGERS), frequencies, precision, (row) => {
    if (row % A_LOOK === 0) told(row, rows.length, 'rows compared');
  });
  // Only pairs that were found are looked at again.
  const shared: Shared = {};
  matching.rows.forEach(({ candidates }, row) => {
    if (candidates.length > 0) for (const key of sharedKeys(rows.at(row)!)) shared[key] = sharing(key);
  });
  return { ...matching, shared, companies: index.size, ofWord: frequencies.ofWord };
}
