import { Router } from 'express';
import { ApartBody, type DoublesAnswer, type JoinsAnswer } from '../../contract/matches.ts';
import { HttpProblem, body } from '../http/check.ts';
import type { JoinJobData, JoinResult } from '../load/join-worker.ts';
import { joinsOfMatch } from '../match/joins-of-match.ts';
import { followJoins } from '../match/follow-joins.ts';
import { countWithoutNumber, firmByKey } from '../match/universe-firms.ts';
import type { Services } from '../services.ts';
import { joinedTo, joinsOf } from '../tables/company-joins.ts';
import { doublesMatch, forgetRows, keepApart, noteUniverse } from '../tables/matches/doubles.ts';
import { candidatesOf, rowsOfMatch } from '../tables/matches/rows.ts';
import { matchById } from '../tables/matches/views.ts';
import { readSettings } from '../tables/workspace.ts';
import { universeMark } from '../match/universe-firms.ts';

/** Companies that the universe has twice: looked for, joined, and taken apart again. */
export function doublesRoutes(services: Services): Router {
  const { dir, universe, workspace, matches, jobs } = services;
  const routes = Router();
  const person = () => readSettings(workspace).person;
  const join = (
    title: string,
    data: Pick<JoinJobData, 'joins' | 'apart'>,
    after: (result: JoinResult) => void,
  ) =>
    jobs.start('join', title, 'server/load/join-worker', { dir, ...data }, async (result) => {
      after(result as JoinResult);
      await followJoins(services, (result as JoinResult).joined);
    });

  routes.get('/doubles', (_request, response) => {
    const id = doublesMatch(matches);
    response.json({
      withoutNumber: countWithoutNumber(universe),
      joined: joinsOf(universe).size,
      match: id === null ? null : matchById(matches, id, universeMark(universe)),
    } satisfies DoublesAnswer);
  });

  routes.post('/doubles', (_request, response) => {
    response.status(202).json({ job: services.doubles.look() });
  });

  routes.post('/doubles/join', (_request, response) => {
    const id = doublesMatch(matches);
    const joins = id === null ? [] : joinsOfMatch(matches, universe, id, person());
    if (id === null || joins.length === 0)
      throw new HttpProblem(
        409,
        'nothing-to-join',
        'No doubles are sure or settled, so that there is nothing to join.',
        {
          rule: 'a search for doubles with some that are sure or settled',
        },
      );
    // Those that were looked at and are none of their candidates are not asked for again.
    const none = rowsOfMatch(matches, id, { states: ['none'], by: null }, 0, -1).filter(
      ({ settledBy }) => settledBy !== null,
    );
    keepApart(
      matches,
      none.flatMap(({ row, cells }) =>
        candidatesOf(matches, id, row).map(({ key }) => [cells[0]!, key] as const),
      ),
    );
    const job = join(
      `Join ${joins.length.toLocaleString('en-GB')} doubles`,
      { joins, apart: null },
      ({ joined }) => {
        forgetRows(matches, id, new Set(joined.map(({ gone }) => gone)));
        noteUniverse(matches, id, universeMark(universe));
      },
    );
    response.status(202).json({ job });
  });

  routes.get('/companies/:key/joins', (request, response) => {
    response.json({ joins: joinedTo(universe, request.params.key) } satisfies JoinsAnswer);
  });

  routes.post('/companies/:key/apart', (request, response) => {
    const { key } = request.params;
    const { gone } = body(ApartBody, request);
    if (!joinedTo(universe, key).some((one) => one.gone === gone))
      throw new HttpProblem(404, 'unknown-join', `Nothing was joined to "${key}" under "${gone}".`, {
        field: 'gone',
        value: gone,
      });
    const name = firmByKey(universe, key)?.name ?? key;
    const job = join(`Take a record apart from ${name}`, { joins: [], apart: gone }, () =>
      keepApart(matches, [[key, gone]]),
    );
    response.status(202).json({ job });
  });
  return routes;
}
