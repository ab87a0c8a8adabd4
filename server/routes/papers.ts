import { Router } from 'express';
import { PaperBody } from '../../contract/paper-requests.ts';
import type { RowsAnswer } from '../../contract/responses.ts';
import { fieldOf, RELATED } from '../../core/fields/registry.ts';
import { emptyTape, type Tape } from '../../core/tape/nodes.ts';
import { relatedTape } from '../../core/tape/turn.ts';
import { isoOf } from '../../core/dates.ts';
import { body, HttpProblem } from '../http/check.ts';
import { laidOut } from '../paper/lay-out.ts';
import type { PaperWorkerData } from '../paper/worker.ts';
import { asOfDay } from '../days.ts';
import type { Services } from '../services.ts';
import { noteOn } from '../tables/notes.ts';
import { toldSources } from '../tables/source.ts';
import { readSettings } from '../tables/workspace.ts';
import { calls } from '../engine/calls.ts';

/** Rows that a sheet prints at most: about 130 pages. Longer ones are for an export. */
const MOST_ROWS = 5000;
const ROWS_A_CALL = 1000;
/** Records of each subject that a profile prints. */
const MOST_RELATED = 15;
/** What a profile prints of each subject. */
const RELATED_COLUMNS: Readonly<Record<string, readonly string[]>> = {
  people: ['name', 'title', 'mail', 'certainty'],
  deals: ['name', 'kind', 'date', 'amount'],
  sites: ['name', 'kind', 'place', 'headcount'],
  brands: ['name', 'category', 'products'],
  events: ['name', 'kind', 'date'],
};

/** Pages laid out for paper, made at once. */
export function paperRoutes({ engine, universe, workspace }: Services): Router {
  const routes = Router();

  const rowsOf = async (
    tape: object,
    columns: string[],
    sort: object[] | undefined,
    most: number,
  ): Promise<RowsAnswer> => {
    const rows: RowsAnswer['rows'] = [];
    for (;;) {
      const limit = Math.min(ROWS_A_CALL, most - rows.length);
      const part = await engine.call(calls.rows, [tape, columns, sort, rows.length, limit]);
      rows.push(...part.rows);
      if (part.rows.length < limit || rows.length >= most) return { total: part.total, rows };
    }
  };

  routes.post('/papers', async (request, response) => {
    const wish = body(PaperBody, request);
    const settings = readSettings(workspace);
    const sources = toldSources(universe)
      .filter(({ subject }) => subject === 'companies')
      .map(({ name, asOf }) => `${name}, ${asOf}`);
    const made = {
      size: wish.size,
      currency: wish.currency,
      numbers: settings.numbers,
      foot: `${sources.join('; ')}. As of ${isoOf(asOfDay(settings))}`,
    };
    let paper: PaperWorkerData;
    if (wish.kind === 'profile') {
      const profile = await engine.call(calls.profile, [wish.key!]);
      if (!profile)
        throw new HttpProblem(404, 'unknown-company', `There is no company "${wish.key}" in this universe.`, {
          field: 'key',
          value: wish.key,
        });
      const related = await Promise.all(
        RELATED.map(async ({ id }) => {
          const columns = [...RELATED_COLUMNS[id]!];
          const tape = relatedTape({ id: 'h', has: id, lines: [] }, wish.key!);
          return {
            subject: id,
            columns,
            ...(await engine.call(calls.rows, [tape, columns, [], 0, MOST_RELATED])),
          };
        }),
      );
      paper = {
        ...made,
        kind: 'profile',
        words: [],
        profile,
        related,
        note: noteOn(workspace, 'companies', wish.key!).text,
      };
    } else {
      const tape = { ...emptyTape(), ...wish.tape } as Tape;
      const words = await engine.call(calls.wordsOf, [tape]);
      const title = tape.name ?? `${tape.subject.charAt(0).toUpperCase()}${tape.subject.slice(1)}`;
      const plain = { ...made, words, title, subject: tape.subject };
      const breakdown = () => engine.call(calls.breakdown, [tape, wish.currency, undefined]);
      if (wish.kind === 'sheet') {
        const columns = wish.columns?.length ? wish.columns : ['name'];
        const { headings } = await engine.call(calls.exportHeadings, [tape, columns]);
        const order = (wish.sort ?? [])
          .map(
            ({ by, descending }) =>
              `${(headings[by] ?? fieldOf(tape.subject, by)?.label ?? by).toLowerCase()}${descending ? ' downwards' : ' upwards'}`,
          )
          .join(', then ');
        paper = {
          ...plain,
          kind: 'sheet',
          columns,
          headings,
          order: order ? `by ${order}` : 'in the order of loading',
          rows: await rowsOf(tape, columns, wish.sort, MOST_ROWS),
        };
      } else if (wish.kind === 'breakdown') {
        const own = tape.charts?.length
          ? await engine.call(calls.charts, [tape, tape.charts, wish.currency, undefined])
          : [];
        paper = { ...plain, kind: 'breakdown', breakdown: await breakdown(), own };
      } else {
        const sort = tape.subject === 'companies' ? [{ by: 'revenue', descending: true }] : [];
        const columns = tape.subject === 'companies' ? ['name', 'place', 'headcount', 'revenue'] : ['name'];
        paper = {
          ...plain,
          kind: 'summary',
          breakdown: await breakdown(),
          rows: await rowsOf(tape, columns, sort, 20),
        };
      }
    }
    response.type('application/pdf').send(await laidOut(paper));
  });
  return routes;
}
