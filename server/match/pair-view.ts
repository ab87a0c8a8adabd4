import type { CandidateView, MatchPairAnswer, Weight } from '../../contract/matches.ts';
import { COMPARED, FEATURE_NAMES, FEATURES, marksOf, type ComparedField } from '../../core/match/compare.ts';
import { domainKey, houseKey, phoneKey, switchboardKey } from '../../core/match/blocking.ts';
import { readyFirm, type Firm, type ReadyFirm } from '../../core/match/firm.ts';
import { lookClosely } from '../../core/match/match-rows.ts';
import { evidence, type Frequencies, type Model } from '../../core/match/model.ts';
import { rareWordOf, wordsOf } from '../../core/match/words-of-score.ts';
import { TELLING } from '../../core/records/telling.ts';
import { fold } from '../../core/text/fold.ts';
import type { Db } from '../db/open.ts';
import { candidatesOf, placeAmongDoubtful, type StoredRow } from '../tables/matches/rows.ts';
import { modelOfMatch, type MatchModel } from '../tables/matches/views.ts';
import { isFreeMail } from '../free-mail.ts';
import { firmByKey, groupOf, wordCounter } from './universe-firms.ts';

/** A row of a match with its candidates, field by field, as a person settles it. */
export function pairView(matches: Db, universe: Db, id: string, row: StoredRow): MatchPairAnswer {
  const match = modelOfMatch(matches, id);
  const frequencies = frequenciesOf(match, wordCounter(universe));
  const ready = row.firm && readyFirm(row.firm, isFreeMail);
  const { nth, of, next, back } = placeAmongDoubtful(matches, id, row.row);
  return {
    row: row.row,
    state: row.state,
    key: row.key,
    settledBy: row.settledBy,
    fields: COMPARED.map((field) => ({ field, value: row.firm && valueOf(row.firm, field) })),
    carried: carriedOf(match, row.cells),
    candidates: candidatesOf(matches, id, row.row).map(({ key, chance }) =>
      candidateView(universe, key, chance, { name: row.firm!.name, ready: ready! }, match.model, frequencies),
    ),
    nth,
    of,
    next,
    back,
  };
}

function candidateView(
  universe: Db,
  key: string,
  chance: number,
  row: { name: string | null; ready: ReadyFirm },
  model: Model,
  frequencies: Frequencies,
): CandidateView {
  const firm = firmByKey(universe, key);
  if (!firm)
    return {
      key,
      chance,
      name: key,
      group: null,
      fields: COMPARED.map((field) => ({ field, value: null, mark: 'missing' as const })),
      km: null,
      why: 'The universe has it no more.',
      gone: true,
    };
  const ready = readyFirm(firm, isFreeMail);
  const { comparison, pair } = lookClosely(row.ready, ready, model, frequencies);
  const marks = marksOf(row.ready, ready, comparison);
  const rare = rareWordOf(comparison, row.name, frequencies.ofWord, frequencies.companies, fold);
  return {
    key,
    chance,
    name: firm.name ?? key,
    group: groupOf(universe, key),
    fields: COMPARED.map((field) => ({
      field,
      value: valueOf(firm, field),
      mark: marks[field],
    })),
    km: comparison.km,
    why: wordsOf(comparison, evidence(pair, model.m), rare),
    gone: false,
  };
}

function frequenciesOf({ shared, companies }: MatchModel, ofWord: (word: string) => number): Frequencies {
  const sharing = (key: number) => shared[key] ?? 1;
  return {
    companies,
    ofWord,
    ofDomain: (domain) => sharing(domainKey(domain)),
    ofPhone: (phone) => sharing(phoneKey(phone)),
    ofHouse: (row) => sharing(houseKey(row)!),
    ofSwitchboard: (phone) => sharing(switchboardKey(phone)),
  };
}

/** What a record says of a field, as it is shown. */
export function valueOf(firm: Firm, field: ComparedField): string | null {
  switch (field) {
    case 'name':
      return firm.name;
    case 'number':
      return firm.registration;
    case 'domain':
      return firm.web ?? firm.mail;
    case 'headcount':
      return firm.headcount === null ? null : String(firm.headcount);
    default:
      return firm[field];
  }
}

/** The cells of a row that do not tell which company it is, by heading; those that are empty left out. */
export function carriedOf(
  { header, mapping }: Pick<MatchModel, 'header' | 'mapping'>,
  cells: readonly string[],
): { heading: string; value: string }[] {
  return header.flatMap((heading, i) => {
    const read = mapping.columns[i] ?? null;
    const value = cells[i]?.trim() ?? '';
    return value === '' || (read !== null && TELLING.has(read)) ? [] : [{ heading, value }];
  });
}

/** What each level of each feature weighs. */
export function weightsOf({ m, u }: Model): Weight[] {
  return FEATURE_NAMES.flatMap((feature) =>
    FEATURES[feature].slice(1).map((level, i) => {
      const [own, chance] = [m[feature][i + 1]!, u[feature][i + 1]!];
      return { feature, level, m: own, u: chance, bits: Math.log2(own / chance) };
    }),
  );
}
