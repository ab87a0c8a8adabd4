import { Router } from 'express';
import {
  LEFT_OUT,
  MatchBody,
  MatchFileBody,
  MatchListBody,
  ROW_SORTS,
  ROW_STATES,
  SettleBody,
  type MatchAnswer,
  type MatchesAnswer,
  type MatchRowsAnswer,
  type MatchRowView,
  type RowSort,
  type RowState,
  type SettledAnswer,
  type TakeTogether,
} from '../../contract/matches.ts';
import type { ComparedField } from '../../core/match/compare.ts';
import { SURE_BY, type SureBy } from '../../core/match/outcome.ts';
import { KNOWN_BY } from '../../core/records/telling.ts';
import { Problem } from '../../core/tape/problem.ts';
import { asOfDay } from '../days.ts';
import { body, HttpProblem, queryText } from '../http/check.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import { feed } from '../feed.ts';
import type { EnrichedData, EnrichedPiece } from '../match/enriched-worker.ts';
import { addFoundToList } from '../match/found-to-list.ts';
import { startMatchAgain } from '../match/match-again.ts';
import { pairView, weightsOf } from '../match/pair-view.ts';
import { firmByKey, universeMark } from '../match/universe-firms.ts';
import type { Services } from '../services.ts';
import { listByKey } from '../tables/lists/list-rows.ts';
import {
  candidatesOf,
  countRows,
  rowOfMatch,
  rowsOfMatch,
  settleRows,
  singleCandidates,
  type RowsWish,
  type StoredRow,
} from '../tables/matches/rows.ts';
import { allMatches, matchById, modelOfMatch, removeMatch } from '../tables/matches/views.ts';
import { readSettings } from '../tables/workspace.ts';
import { checkColumns, partsOf, type Uploads } from '../load/uploads.ts';

/** Fewer doubtful rows than this are as quickly settled one by one. */
const WORTH_TOGETHER = 2;
const MOST_ROWS_SHOWN = 500;

/** Files lined up with the universe: matching one, settling what is doubtful, and what is made of it. */
export function matchRoutes(services: Services, uploads: Uploads): Router {
  const { dir, universe, workspace, matches, listsDb, jobs } = services;
  const routes = Router();
  const now = () => universeMark(universe);
  const person = () => readSettings(workspace).person;
  const found = (id: string) => {
    const match = matchById(matches, id, now());
    if (!match)
      throw new HttpProblem(404, 'unknown-match', `There is no match "${id}"; it may have been removed.`, {
        field: 'id',
        value: id,
      });
    return match;
  };
  const rowOf = (id: string, text: string): StoredRow => {
    const row = /^\d{1,9}$/.test(text) ? rowOfMatch(matches, id, Number(text)) : null;
    if (!row)
      throw new HttpProblem(404, 'unknown-row', `The file has no row ${text} to be matched.`, {
        field: 'row',
        value: text,
      });
    return row;
  };

  routes.get('/matches', (_request, response) => {
    response.json({ matches: allMatches(matches, now()) } satisfies MatchesAnswer);
  });

  routes.post('/matches', async (request, response) => {
    const wish = body(MatchBody, request);
    const upload = uploads.found(wish.upload);
    const file = await uploads.asRead(upload, wish.read);
    checkColumns(wish.mapping, file.header, 'companies');
    if (!KNOWN_BY.some((column) => wish.mapping.columns.includes(column)))
      throw new Problem('nothing-to-match', 'No column of the file tells which company a row is of.', {
        field: 'mapping.columns',
        rule: 'a column read as Company, Registration number, Web, Mail or Phone',
      });
    const job = jobs.start(
      'match',
      `Match ${upload.fileName}`,
      'server/match/match-worker',
      {
        dir,
        path: upload.path,
        reading: partsOf(file),
        header: file.header,
        mapping: { ...wish.mapping },
        name: wish.name.trim(),
        fileName: upload.fileName,
        person: person(),
        precision: wish.precision,
      },
      () => uploads.forget(wish.upload),
    );
    response.status(202).json({ job });
  });

  routes.get('/matches/:id', (request, response) => {
    const match = found(request.params.id);
    const { model, limits, learning } = modelOfMatch(matches, match.id);
    response.json({
      match,
      weights: weightsOf(model),
      limits,
      learning,
      together: together(match.id, limits.doubtful),
    } satisfies MatchAnswer);
  });

  /** The doubtful rows of one candidate whose most telling common fields are the commonest. */
  const together = (id: string, least: number): TakeTogether | null => {
    const groups = new Map<string, TakeTogether>();
    for (const { row, key, agrees } of singleCandidates(matches, id, least)) {
      const fields = agrees.split(' ').filter((field) => TOGETHER.has(field)) as ComparedField[];
      // That both are in one town says too little to take many at once.
      if (fields.length < 2 || !fields.some((field) => STRONG.has(field))) continue;
      const group = groups.get(fields.join(' ')) ?? { fields, rows: [] };
      group.rows.push({ row, key });
      groups.set(fields.join(' '), group);
    }
    const [largest] = [...groups.values()].sort((a, b) => b.rows.length - a.rows.length);
    return largest && largest.rows.length >= WORTH_TOGETHER ? largest : null;
  };

  routes.get('/matches/:id/rows', (request, response) => {
    const { id } = found(request.params.id);
    const wish = {
      ...wishOf(queryText(request, 'state'), queryText(request, 'by')),
      moved: queryText(request, 'moved') !== '',
      sort: { by: sortOf(queryText(request, 'sort')), descending: queryText(request, 'descending') !== '' },
    };
    const number = (name: string, most: number, otherwise: number) => {
      const text = queryText(request, name);
      const value = text === '' ? otherwise : Number(text);
      if (!Number.isInteger(value) || value < 0 || value > most)
        throw new Problem('wrong-value', `${name} is no whole number from 0 to ${most}: ${text}.`, {
          field: name,
          value: text,
          rule: `a whole number from 0 to ${most}`,
        });
      return value;
    };
    const offset = number('offset', 1e9, 0);
    const limit = number('limit', MOST_ROWS_SHOWN, 100);
    response.json({
      total: countRows(matches, id, wish),
      rows: rowsOfMatch(matches, id, wish, offset, limit).map(rowView),
    } satisfies MatchRowsAnswer);
  });

  const rowView = ({ row, state, by, firm, key, chance, twiceOf, cells, was }: StoredRow): MatchRowView => {
    const company = key === null ? null : firmByKey(universe, key);
    return {
      row,
      state,
      by: state === 'sure' ? by : null,
      name:
        firm?.name ??
        firm?.web ??
        firm?.mail ??
        firm?.registration ??
        cells.filter(Boolean).join(' · ').slice(0, 80),
      place: placeOf(firm),
      company: key === null ? null : { key, name: company?.name ?? key, place: placeOf(company) },
      chance,
      twiceOf,
      was: was && {
        state: was.state,
        name: was.key === null ? null : (firmByKey(universe, was.key)?.name ?? was.key),
      },
    };
  };

  routes.get('/matches/:id/rows/:row', (request, response) => {
    const { id } = found(request.params.id);
    response.json(pairView(matches, universe, id, rowOf(id, request.params.row)));
  });

  routes.put('/matches/:id/rows', (request, response) => {
    const { id } = found(request.params.id);
    const { rows } = body(SettleBody, request);
    for (const [i, { row, as, key }] of rows.entries()) {
      const { state } = rowOf(id, String(row));
      if (state === 'twice' || state === 'unreadable')
        throw new Problem(
          'not-to-settle',
          `Row ${row} is not matched: it is ${state === 'twice' ? 'there twice' : 'unreadable'}.`,
          {
            field: `rows[${i}].row`,
            value: row,
          },
        );
      if (
        as === 'taken' &&
        !candidatesOf(matches, id, row).some((one) => one.key === key) &&
        !(key && firmByKey(universe, key))
      )
        throw new Problem(
          'unknown-company',
          `Row ${row} cannot be "${key ?? ''}": the universe has no such company.`,
          {
            field: `rows[${i}].key`,
            value: key,
            rule: 'the key of a company',
          },
        );
    }
    const before = settleRows(matches, id, rows, person());
    response.json({ match: found(id), before } satisfies SettledAnswer);
  });

  routes.post('/matches/:id/again', (request, response) => {
    response.status(202).json({ job: startMatchAgain(services, request.params.id) });
  });

  routes.post('/matches/:id/list', async (request, response) => {
    const match = found(request.params.id);
    const wish = body(MatchListBody, request);
    if ((wish.name === undefined) === (wish.list === undefined))
      throw new Problem('wrong-body', 'Name a new list, or one that is there.', {
        field: 'name',
        rule: 'exactly one of name and list',
      });
    const given = wish.list === undefined ? null : listByKey(listsDb, wish.list);
    if (wish.list !== undefined && !given)
      throw new HttpProblem(404, 'unknown-list', `There is no list "${wish.list}" in this workspace.`, {
        field: 'list',
        value: wish.list,
      });
    const answer = await addFoundToList(
      services,
      match.id,
      given ? { list: given.key } : { name: wish.name! },
    );
    response.status(201).json(answer);
  });

  routes.post('/matches/:id/file', async (request, response) => {
    const match = found(request.params.id);
    const { part, columns } = body(MatchFileBody, request);
    const settings = readSettings(workspace);
    for (const [i, field] of columns.entries())
      if (!fieldOf('companies', field)?.column)
        throw new Problem('unknown-column', `"${field}" is no column of companies.`, {
          field: `columns[${i}]`,
          value: field,
        });
    const wish = { dir, match: match.id, part, fields: columns, currency: settings.currency };
    response.attachment(`${match.name}.csv`).type('text/csv; charset=utf-8');
    const pieces = feed<EnrichedPiece>('server/match/enriched-worker', {
      ...wish,
      asOf: asOfDay(settings),
    } satisfies EnrichedData);
    for await (const piece of pieces) {
      if (response.destroyed) break;
      if ('leftOut' in piece) response.setHeader(LEFT_OUT, piece.leftOut);
      else if (!response.write(piece.text))
        await new Promise((resolve) => response.once('drain', resolve).once('close', resolve));
    }
    response.end();
  });

  routes.delete('/matches/:id', (request, response) => {
    removeMatch(matches, found(request.params.id).id);
    response.status(204).end();
  });
  return routes;
}

/** Of these one at least. */
const STRONG: ReadonlySet<ComparedField> = new Set(['number', 'domain', 'phone', 'street', 'name']);
/** Fields that speak for a pair strongly enough that rows that agree in them are offered together. */
const TOGETHER = new Set(['number', 'domain', 'phone', 'street', 'postcode', 'town', 'name']);

function placeOf(firm: { town: string | null; country: string | null } | null): string {
  return [firm?.town, firm?.country].filter(Boolean).join(', ');
}

function wishOf(states: string, by: string): RowsWish {
  const wished = states === '' ? [...ROW_STATES] : (states.split(',') as RowState[]);
  const wrong = wished.find((state) => !ROW_STATES.includes(state));
  if (wrong !== undefined)
    throw new Problem('wrong-value', `"${wrong}" is nothing that becomes of a row.`, {
      field: 'state',
      value: wrong,
      rule: ROW_STATES.join(', '),
    });
  if (by !== '' && !(SURE_BY as readonly string[]).includes(by))
    throw new Problem('wrong-value', `"${by}" is nothing that a row is sure by.`, {
      field: 'by',
      value: by,
      rule: SURE_BY.join(', '),
    });
  return { states: wished, by: by === '' ? null : (by as SureBy) };
}

function sortOf(text: string): RowSort {
  const found = text === '' ? 'row' : ROW_SORTS.find((one) => one === text);
  if (found) return found;
  throw new Problem('wrong-value', `The rows of a match are not put in order by "${text}".`, {
    field: 'sort',
    value: text,
    rule: ROW_SORTS.join(', '),
  });
}
