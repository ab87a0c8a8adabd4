import { openMatchesToFill, openUniverse, type Db } from '../db/open.ts';
import { Cancelled, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { joinCompanies } from '../load/join-companies.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import { forgetRows, noteUniverse } from '../tables/matches/doubles.ts';
import { joinsOfMatch } from './joins-of-match.ts';
import { universeMark } from './universe-firms.ts';

/** Joins that are made in one transaction: others that write the universe wait for no more than these. */
const AT_A_TIME = 1000;

/**
 * Joins what a search for doubles found to be surely one company of several sources, where one of the two is of the sources named.
 * What was joined when it is cancelled stays.
 * @param searched as `universeMark` gave it for the search
 */
export function joinAcross(
  dir: string,
  match: string,
  sources: readonly string[],
  searched: string,
  person: string,
): { joined: { gone: string; key: string }[]; joinedAll: boolean } {
  const joined: { gone: string; key: string }[] = [];
  if (sources.length === 0) return { joined, joinedAll: true };
  const matches = openMatchesToFill(dir);
  const universe = openUniverse(dir);
  const tables = { trees: loadCodeTrees(), places: loadGazetteer() };
  let mark = searched;
  try {
    const joins = joinsOfMatch(matches, universe, match, person, acrossSources(universe, new Set(sources)));
    for (let at = 0; at < joins.length; at += AT_A_TIME) {
      stopIfCancelled();
      tellProgress(at, joins.length, 'companies joined');
      const { made, before } = universe
        .transaction(() => ({
          before: universeMark(universe),
          made: joinCompanies(universe, joins.slice(at, at + AT_A_TIME), tables),
        }))
        .immediate();
      joined.push(...made.map(({ gone, key }) => ({ gone, key })));
      forgetRows(matches, match, new Set(made.map(({ gone }) => gone)));
      // Where something else changed meanwhile, it is still said that the universe is not as it was searched.
      if (before === mark) noteUniverse(matches, match, (mark = universeMark(universe)));
    }
    return { joined, joinedAll: true };
  } catch (error) {
    if (error instanceof Cancelled) return { joined, joinedAll: false };
    throw error;
  } finally {
    matches.close();
    universe.close();
  }
}

/** Whether of two companies, by their keys, one is of the sources named and no source has both. */
function acrossSources(universe: Db, sources: ReadonlySet<string>): (a: string, b: string) => boolean {
  const sourcesOf = universe
    .prepare<[string], string>(
      'SELECT s.source FROM company_source s JOIN company c ON c.id = s.company_id WHERE c.key = ?',
    )
    .pluck();
  return (a, b) => {
    const [left, right] = [sourcesOf.all(a), sourcesOf.all(b)];
    return (
      left.length > 0 &&
      right.length > 0 &&
      [...left, ...right].some((source) => sources.has(source)) &&
      !left.some((source) => right.includes(source))
    );
  };
}
