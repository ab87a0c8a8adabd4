import { Router } from 'express';
import { TitleReadingBody, type PersonAboutAnswer, type TitlesAnswer } from '../../contract/people.ts';
import { Problem } from '../../core/tape/problem.ts';
import { calls } from '../engine/calls.ts';
import { body, HttpProblem, queryText } from '../http/check.ts';
import type { TitlesData } from '../load/titles-worker.ts';
import { aboutPerson } from '../people/about.ts';
import type { Services } from '../services.ts';
import { TITLE_ORDERS, titleWords, type TitleOrder } from '../tables/title-readings.ts';
import { readSettings } from '../tables/workspace.ts';

/** How titles are read, and what is known about one person. */
export function peopleRoutes({ dir, universe, workspace, engine, jobs }: Services): Router {
  const routes = Router();

  routes.get('/people/titles', async (request, response) => {
    const by = queryText(request, 'by') || 'people';
    if (!TITLE_ORDERS.includes(by as TitleOrder))
      throw new Problem('wrong-value', `Titles have no order by "${by}".`, {
        field: 'by',
        value: by,
        rule: `one of ${TITLE_ORDERS.join(', ')}`,
      });
    const wish = {
      text: queryText(request, 'text').slice(0, 200),
      by: by as TitleOrder,
      descending: queryText(request, 'descending') !== 'no',
    };
    response.json((await engine.call(calls.titlesLike, [wish])) satisfies TitlesAnswer);
  });
  routes.post('/people/titles', (request, response) => {
    const { title, department, level } = body(TitleReadingBody, request);
    if (titleWords(title) === null)
      throw new Problem('wrong-value', `"${title}" has neither letters nor figures.`, {
        field: 'title',
        value: title,
        rule: 'a title that people have',
      });
    const { person } = readSettings(workspace);
    const taken = department === undefined && level === undefined;
    const data: TitlesData = {
      ...{ dir, title: title.trim() },
      reading: taken
        ? null
        : { department: department ?? null, level: level ?? null, person, at: new Date().toISOString() },
    };
    const job = jobs.start('titles', `Read “${data.title}”`, 'server/load/titles-worker', data, () =>
      engine.reload(),
    );
    response.status(202).json({ job });
  });
  routes.get('/people/:key/about', (request, response) => {
    const { key } = request.params;
    const about = aboutPerson(universe, workspace, key);
    if (!about)
      throw new HttpProblem(404, 'unknown-person', `There is nobody under the key "${key}".`, {
        field: 'key',
        value: key,
      });
    response.json(about satisfies PersonAboutAnswer);
  });
  return routes;
}
