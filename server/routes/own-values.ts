import { Router } from 'express';
import {
  CorrectionsBody,
  PrecedenceBody,
  TrySitesBody,
  type PrecedenceAnswer,
} from '../../contract/own-values.ts';
import { MOST_SITES } from '../../core/records/own-values.ts';
import {
  EXACT_GROUPS,
  PRECEDENCE_GROUP_KEYS,
  PRECEDENCE_GROUPS,
  USUAL_PRECEDENCE,
  type Precedence,
  type PrecedenceRule,
} from '../../core/records/precedence.ts';
import { Problem } from '../../core/tape/problem.ts';
import { asOfDay, todayOf } from '../days.ts';
import { calls } from '../engine/calls.ts';
import type { TrySitesData } from '../gather/try-sites-worker.ts';
import { body, HttpProblem } from '../http/check.ts';
import type { CoverageJobData } from '../load/coverage-worker.ts';
import type { CorrectingData } from '../load/own-values-worker.ts';
import type { PrecedenceJobData } from '../load/precedence-worker.ts';
import type { Services } from '../services.ts';
import { listByKey, memberKeys } from '../tables/lists/list-rows.ts';
import { readPrecedence } from '../tables/own-values.ts';
import { allSources } from '../tables/source.ts';
import { readSettings } from '../tables/workspace.ts';

/** What we ourselves say of companies, over what their sources say. */
export function ownValuesRoutes({
  dir,
  universe,
  workspace,
  listsDb,
  gather,
  engine,
  jobs,
}: Services): Router {
  const routes = Router();
  const reload = () => engine.reload();

  routes.post('/companies/:key/corrections', async (request, response) => {
    const { key } = request.params;
    const { corrections } = body(CorrectionsBody, request);
    const trouble = await engine.call(calls.readCorrections, [
      key,
      corrections.map(({ field, value }) => ({ field, value: value?.trim() ?? null })),
    ]);
    if (trouble === null)
      throw new HttpProblem(404, 'unknown-company', `There is no company "${key}".`, {
        field: 'key',
        value: key,
      });
    if (trouble.problem)
      throw new Problem('wrong-value', trouble.problem.message, {
        field: trouble.problem.field,
        value: trouble.problem.value,
        rule: trouble.problem.rule,
      });
    const at = new Date().toISOString();
    const { person } = readSettings(workspace);
    const data: CorrectingData = {
      dir,
      what: `${trouble.name} was corrected by hand`,
      corrections: corrections.map(({ field, value, reason }) => ({
        company: key,
        field,
        said: value === null ? null : { value: value.trim(), reason: reason.trim(), person, at },
      })),
    };
    const job = jobs.start(
      'correct',
      `Correct ${trouble.name}`,
      'server/load/own-values-worker',
      data,
      reload,
    );
    response.status(202).json({ job });
  });

  routes.post('/websites/try', (request, response) => {
    const { list: listKey, companies = [] } = body(TrySitesBody, request);
    const list = listKey === undefined ? null : listByKey(listsDb, listKey);
    if (listKey !== undefined && (!list || list.subject !== 'companies'))
      throw new Problem('unknown-list', `There is no list of companies "${listKey}".`, {
        field: 'list',
        value: listKey,
        rule: 'the key of a list of companies',
      });
    const keys = list ? memberKeys(listsDb, list.key) : companies;
    if (keys.length > MOST_SITES)
      throw new Problem(
        'too-many',
        `The list has ${keys.length.toLocaleString('en-GB')} companies; of at most ${MOST_SITES.toLocaleString('en-GB')} the websites can be tried at once. Make a shorter list of them.`,
        { field: 'list', value: keys.length, rule: `at most ${MOST_SITES} companies` },
      );
    const webOf = universe.prepare<[string], string | null>('SELECT web FROM company WHERE key = ?').pluck();
    const tried = keys.flatMap((key) => {
      const web = webOf.get(key);
      return web ? [{ key, web }] : [];
    });
    const data: TrySitesData = {
      dir,
      standIn: gather.web.port,
      companies: tried,
      without: keys.length - tried.length,
      today: todayOf(),
    };
    const of = list
      ? `on ${list.name}`
      : `of ${keys.length === 1 ? 'a company' : `${keys.length} companies`}`;
    const job = jobs.start(
      'websites',
      `Try the websites ${of}`,
      'server/gather/try-sites-worker',
      data,
      reload,
    );
    response.status(202).json({ job });
  });

  routes.get('/precedence', (_request, response) => {
    const now = readPrecedence(universe);
    response.json({
      groups: PRECEDENCE_GROUP_KEYS.map((group) => {
        const rule = now[group];
        return {
          group,
          label: PRECEDENCE_GROUPS[group].label,
          by: rule.by,
          sources: rule.by === 'order' ? [...rule.sources] : [],
          ways: EXACT_GROUPS.includes(group) ? ['exact', 'newest', 'order'] : ['newest', 'order'],
        };
      }),
      sources: allSources(universe)
        .filter(({ subject }) => subject === 'companies')
        .map(({ key, name }) => ({ key, name })),
    } satisfies PrecedenceAnswer);
  });

  routes.put('/precedence', (request, response) => {
    const { groups, apply } = body(PrecedenceBody, request);
    const known = new Set(allSources(universe).map(({ key }) => key));
    const precedence: Precedence = { ...USUAL_PRECEDENCE };
    for (const { group, by, sources } of groups) {
      const unknown = sources.find((source) => !known.has(source));
      if (unknown !== undefined)
        throw new Problem('unknown-source', `There is no source "${unknown}".`, {
          field: 'groups.sources',
          value: unknown,
          rule: 'keys of sources of companies',
        });
      if (by === 'exact' && !EXACT_GROUPS.includes(group))
        throw new Problem(
          'wrong-value',
          `Of ${PRECEDENCE_GROUPS[group].label} no value is more exact than another.`,
          {
            field: 'groups.by',
            value: by,
            rule: 'newest or order',
          },
        );
      const rule: PrecedenceRule = by === 'order' ? { by, sources } : { by };
      Object.assign(precedence, { [group]: rule });
    }
    const data: PrecedenceJobData = { dir, precedence, apply };
    const title = apply ? 'Take values from other sources' : 'Count what other sources would change';
    const job = jobs.start(apply ? 'correct' : 'match', title, 'server/load/precedence-worker', data, () =>
      apply ? reload() : undefined,
    );
    response.status(202).json({ job });
  });
  routes.post('/coverage', (_request, response) => {
    const data: CoverageJobData = { dir, today: asOfDay(readSettings(workspace)) };
    const job = jobs.start(
      'match',
      'Count what each source knows',
      'server/load/coverage-worker',
      data,
      () => {},
    );
    response.status(202).json({ job });
  });
  return routes;
}
