import type { MatchListAnswer } from '../../contract/matches.ts';
import { isoOf } from '../../core/dates.ts';
import type { OriginKind } from '../../core/lists/roll.ts';
import { asOfDay } from '../days.ts';
import type { Services } from '../services.ts';
import { allLists } from '../tables/lists/list-rows.ts';
import { rowsOfMatch, type RowsWish } from '../tables/matches/rows.ts';
import { matchById, modelOfMatch, noteList } from '../tables/matches/views.ts';
import { readSettings } from '../tables/workspace.ts';
import { carriedOf } from './pair-view.ts';
import { universeMark } from './universe-firms.ts';

const FOUND: RowsWish = { states: ['sure', 'settled'], by: null };

/** Puts the companies that a match found on a list, with what the file says of each: a new list by its name, or one that is there. */
export async function addFoundToList(
  { matches, universe, lists, listsDb, workspace }: Services,
  id: string,
  to: { name: string } | { list: string },
  kind: OriginKind = 'file',
): Promise<MatchListAnswer> {
  const match = matchById(matches, id, universeMark(universe))!;
  const settings = readSettings(workspace);
  const model = modelOfMatch(matches, id);
  const members = rowsOfMatch(matches, id, FOUND, 0, -1).map(({ key, cells }) => ({
    key: key!,
    cells: Object.fromEntries(carriedOf(model, cells).map(({ heading, value }) => [heading, value])),
  }));
  const key =
    'list' in to
      ? to.list
      : (
          await lists.change('add', {
            name: to.name.trim(),
            subject: 'companies',
            owner: settings.person,
            suppression: null,
          })
        ).key;
  const origin = {
    kind,
    what: match.fileName,
    tape: null,
    asOf: isoOf(asOfDay(settings)),
    person: settings.person,
  };
  const added = await lists.change('addCarried', key, origin, members);
  noteList(matches, id, key);
  return { list: allLists(listsDb).find((one) => one.key === key)!, ...added };
}
