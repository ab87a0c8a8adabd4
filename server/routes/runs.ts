import { stringify } from 'csv-stringify/sync';
import { Router } from 'express';
import {
  CompareBody,
  MonthBody,
  PlanBody,
  RunListBody,
  ScheduleBody,
  type ChangesAnswer,
  type PlanAnswer,
  type PlanView,
  type RunsAnswer,
  type WhenAnswer,
} from '../../contract/runs.ts';
import type { MatchListAnswer } from '../../contract/matches.ts';
import { isoOf } from '../../core/dates.ts';
import { fileName } from '../../core/exports/names.ts';
import { safeText } from '../../core/exports/safe-text.ts';
import { tapeNaming } from '../../core/tape/naming.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import { nextTimes, scheduleWords } from '../../core/runs/when.ts';
import { body, HttpProblem, queryText } from '../http/check.ts';
import { sendFile } from '../http/send-file.ts';
import { mayWrite } from '../load/start-load.ts';
import { checkedSchedule, checkWays, targetWords } from '../runs/check-plan.ts';
import { CHANGE_ORDERS, type ChangeOrder } from '../../core/runs/change-order.ts';
import { CHANGE_KINDS, type ChangeKind } from '../../core/runs/kinds.ts';
import { batchFile } from '../runs/kinds/batch.ts';
import { comparedRun } from '../runs/kinds/tape.ts';
import { pastRuns } from '../runs/past-runs.ts';
import type { Services } from '../services.ts';
import { listByKey } from '../tables/lists/list-rows.ts';
import {
  addPlan,
  allPlans,
  changePlan,
  planByKey,
  planName,
  setPlanRemoved,
  type Plan,
  type PlanWish,
} from '../tables/runs/plans.ts';
import { changedKeys, changesOfRun, runById, runsOfPlan, viewRun, type RunRow } from '../tables/runs/runs.ts';
import { readSettings, writeSettings } from '../tables/workspace.ts';
import { nextMonthOf } from '../runs/months.ts';

const SHOWN_TIMES = 5;
const CHANGE_HEADINGS = ['What', 'Name', 'Place', 'Key', 'Why', 'Was', 'Is'];
const MOST_CHANGES = 500;
/** More than so many records are not named one by one on a tape. */

/** What runs, when, and what came of it. */
export function runRoutes(services: Services): Router {
  const { runs, workspace, universe, jobs, engine, dir, lists, listsDb } = services;
  const routes = Router();
  const foundPlan = (key: string): Plan => {
    const plan = planByKey(runs.db, key);
    if (!plan)
      throw new HttpProblem(404, 'unknown-plan', `There is no plan "${key}"; it may have been removed.`, {
        field: 'key',
        value: key,
      });
    return plan;
  };
  const foundRun = (id: string): RunRow => {
    const run = runById(runs.db, id);
    if (!run)
      throw new HttpProblem(404, 'unknown-run', `There is no run "${id}".`, { field: 'id', value: id });
    return run;
  };
  const view = (plan: Plan): PlanView => {
    const own = runsOfPlan(runs.db, plan.key, 1);
    const words = (() => {
      try {
        return { what: targetWords(services, plan.kind, plan.target), trouble: null };
      } catch (error) {
        return { what: 'something that is gone', trouble: (error as Error).message };
      }
    })();
    return {
      ...{
        key: plan.key,
        kind: plan.kind,
        name: plan.name,
        target: plan.target,
        tell: plan.tell,
        person: plan.person,
      },
      ...words,
      schedule: plan.schedule,
      when: scheduleWords(plan.schedule, (key) => planName(runs.db, key)),
      next: nextTimes(plan.schedule, runs.now(), SHOWN_TIMES).map((at) => new Date(at).toISOString()),
      last: own[0] ? viewRun(own[0]) : null,
      runs: own[0]?.nth ?? 0,
    };
  };
  const wished = (wish: PlanBody, key: string | null): PlanWish => {
    targetWords(services, wish.kind, wish.target);
    checkWays(services, wish.tell.ways, 'tell.ways');
    return {
      ...{ kind: wish.kind, name: wish.name.trim(), target: { ...wish.target }, tell: { ...wish.tell } },
      schedule: checkedSchedule(services, wish.schedule, key),
    };
  };
  const part = (text: string) => {
    if (text !== '' && !CHANGE_KINDS.includes(text as ChangeKind))
      throw new Problem('wrong-value', `"${text}" is nothing that changes.`, {
        field: 'what',
        value: text,
        rule: CHANGE_KINDS.join(', '),
      });
    return (text as ChangeKind) || null;
  };
  const orderOf = (by: string, descending: string) => {
    if (by === '') return null;
    if (!CHANGE_ORDERS.includes(by as ChangeOrder))
      throw new Problem('wrong-value', `Changes are not sorted by "${by}".`, {
        field: 'sort',
        value: by,
        rule: CHANGE_ORDERS.join(', '),
      });
    return { by: by as ChangeOrder, descending: descending === 'true' };
  };
  const whole = (text: string, otherwise: number, most: number, field: string) => {
    const value = text === '' ? otherwise : Number(text);
    if (!Number.isInteger(value) || value < 0 || value > most)
      throw new Problem('wrong-value', `${field} is no whole number from 0 to ${most}.`, {
        field,
        value: text,
        rule: `a whole number from 0 to ${most}`,
      });
    return value;
  };

  routes.get('/runs', (_request, response) => {
    const month = nextMonthOf(universe);
    response.json({
      plans: allPlans(runs.db).map(view),
      past: pastRuns(services),
      month: month === null ? null : { next: month },
    } satisfies RunsAnswer);
  });

  routes.post('/runs/when', (request, response) => {
    const schedule = checkedSchedule(services, body(ScheduleBody, request), null);
    response.json({
      words: scheduleWords(schedule, (key) => planName(runs.db, key)),
      cron: schedule.how === 'repeats' ? schedule.cron : null,
      next: nextTimes(schedule, runs.now(), SHOWN_TIMES).map((at) => new Date(at).toISOString()),
    } satisfies WhenAnswer);
  });

  routes.post('/plans', (request, response) => {
    const plan = addPlan(
      runs.db,
      wished(body(PlanBody, request), null),
      readSettings(workspace).person,
      runs.now(),
    );
    runs.wake();
    response.status(201).json({ plan: view(plan), runs: [] } satisfies PlanAnswer);
  });
  const answer = (plan: Plan): PlanAnswer => ({
    plan: view(plan),
    runs: runsOfPlan(runs.db, plan.key).map(viewRun),
  });
  routes.get('/plans/:key', (request, response) => {
    response.json(answer(foundPlan(request.params.key)));
  });
  routes.put('/plans/:key', (request, response) => {
    const { key } = foundPlan(request.params.key);
    const plan = changePlan(runs.db, key, wished(body(PlanBody, request), key), runs.now());
    runs.wake();
    response.json(answer(plan));
  });
  routes.delete('/plans/:key', (request, response) => {
    const { key, name } = foundPlan(request.params.key);
    const after = allPlans(runs.db).find(({ schedule }) => schedule.how === 'after' && schedule.plan === key);
    if (after)
      throw new HttpProblem(
        409,
        'has-followers',
        `“${after.name}” runs after “${name}”. Say another time for it first.`,
        {
          field: 'key',
          value: key,
          rule: 'a plan that no other runs after',
        },
      );
    setPlanRemoved(runs.db, key, runs.now());
    response.status(204).end();
  });
  routes.post('/plans/:key/restore', (request, response) => {
    setPlanRemoved(runs.db, request.params.key, null);
    runs.wake();
    response.json(answer(foundPlan(request.params.key)));
  });
  routes.post('/plans/:key/run', (request, response) => {
    response.status(202).json({ run: viewRun(runs.startPlan(foundPlan(request.params.key))) });
  });

  routes.get('/runs/:id', (request, response) => {
    response.json({ run: viewRun(foundRun(request.params.id)) });
  });
  routes.post('/runs/:id/cancel', (request, response) => {
    const { id } = foundRun(request.params.id);
    if (!runs.cancel(id))
      throw new HttpProblem(409, 'not-running', 'This run is over, so there is nothing to leave.', {
        field: 'id',
        value: id,
      });
    response.json({ run: viewRun(foundRun(id)) });
  });
  routes.get('/runs/:id/changes', (request, response) => {
    const run = foundRun(request.params.id);
    const found = changesOfRun(runs.db, run.id, {
      what: part(queryText(request, 'what')),
      reason: queryText(request, 'reason') || null,
      offset: whole(queryText(request, 'offset'), 0, 1e9, 'offset'),
      limit: whole(queryText(request, 'limit'), 100, MOST_CHANGES, 'limit'),
      order: orderOf(queryText(request, 'sort'), queryText(request, 'descending')),
    });
    response.json({ run: viewRun(run), ...found } satisfies ChangesAnswer);
  });
  routes.get('/runs/:id/changes/file', (request, response) => {
    const run = foundRun(request.params.id);
    const name = planName(runs.db, run.plan);
    const { changes } = changesOfRun(runs.db, run.id, { what: null, reason: null, offset: 0, limit: 1e9 });
    const rows = changes.map(({ what, name: record, place, key, why, was, now }) =>
      [what, record, place, key, why, was, now].map((cell) => safeText(cell ?? '')),
    );
    response
      .attachment(`${fileName(`${name}, changes`, isoOf(run.as_of ?? 0))}.csv`)
      .type('text/csv; charset=utf-8');
    response.send(stringify([CHANGE_HEADINGS, ...rows], { bom: true }));
  });
  routes.get('/runs/:id/tape', (request, response) => {
    const run = foundRun(request.params.id);
    const what = part(queryText(request, 'what')) ?? 'joined';
    const keys = changedKeys(runs.db, run.id, what, queryText(request, 'reason') || null);
    response.json(tapeNaming(run.subject ?? 'records', keys, `${planName(runs.db, run.plan)}: ${what}`));
  });
  routes.get('/runs/:id/file', async (request, response) => {
    const run = foundRun(request.params.id);
    response.attachment(`${planName(runs.db, run.plan)}.csv`).type('text/csv; charset=utf-8');
    await sendFile(
      response,
      batchFile(dir, run.id),
      new HttpProblem(409, 'not-written', 'This run wrote no file, or it is being written.', {
        field: 'id',
        value: run.id,
      }),
    );
  });
  routes.post('/runs/:id/list', async (request, response) => {
    const run = foundRun(request.params.id);
    const { what, name } = body(RunListBody, request);
    const { person } = readSettings(workspace);
    const rows = changesOfRun(runs.db, run.id, { what, reason: null, offset: 0, limit: 1e9 }).changes.filter(
      ({ there }) => there,
    );
    const cells = new Map<string, Record<string, string>>();
    for (const { key, why, was, now } of rows) {
      const own = cells.get(key) ?? {};
      own[why] = was === null && now === null ? what : `${was ?? 'unknown'} → ${now ?? 'unknown'}`;
      cells.set(key, own);
    }
    const list = await lists.change('add', {
      name: name.trim(),
      subject: run.subject ?? 'companies',
      owner: person,
      suppression: null,
    });
    const origin = {
      ...{ kind: 'tape' as const, what: `${planName(runs.db, run.plan)}, ${what}`, tape: run.tape },
      ...{ asOf: run.as_of === null ? null : isoOf(run.as_of), person },
    };
    const added = await lists.change(
      'addCarried',
      list.key,
      origin,
      [...cells].map(([key, own]) => ({ key, cells: own })),
    );
    response.status(201).json({ list: listByKey(listsDb, list.key)!, ...added } satisfies MatchListAnswer);
  });

  routes.post('/runs/compare', async (request, response) => {
    const { first, second } = body(CompareBody, request);
    const rows = [foundRun(first), foundRun(second)].sort((a, b) => a.nth - b.nth);
    const [one, other] = rows.map((row) => comparedRun(services, row));
    if (!one || !other || rows[0]!.plan !== rows[1]!.plan || first === second)
      throw new Problem(
        'not-comparable',
        'Two runs of the same tape are compared, both of which came to their end.',
        {
          field: 'second',
          value: second,
          rule: 'another run of the same plan, done',
        },
      );
    const tape = JSON.parse(rows[1]!.tape!) as Tape;
    const {
      joinedKeys: _,
      leftKeys: __,
      changes,
      roll,
      ...found
    } = await runs.counting.call('compare', tape, one, other);
    response.json({
      run: {
        ...viewRun(rows[1]!),
        ...{ joined: found.joined, left: found.left, moved: found.moved, moves: found.moves, roll },
        ...{ before: one.ids.length, comparedTo: rows[0]!.id },
      },
      changes: changes.slice(0, MOST_CHANGES),
      total: changes.length,
    } satisfies ChangesAnswer);
  });

  routes.post('/demo/month', (request, response) => {
    const { month } = body(MonthBody, request);
    const next = nextMonthOf(universe);
    if (next === null)
      throw new HttpProblem(409, 'no-demo', 'The universe is not the demo’s, which alone has months.', {
        rule: 'the demo',
      });
    if (month !== undefined && month < next)
      throw new Problem('wrong-value', `The scenario is in ${next} next; it does not go back.`, {
        field: 'month',
        value: month,
        rule: `${next} or later`,
      });
    mayWrite(services);
    const job = jobs.start(
      'demo',
      `The demo comes to ${month ?? next}`,
      'demo/month-worker',
      { dir, month: month ?? next },
      async (result) => {
        const settings = readSettings(workspace);
        settings.asOf = result.asOf as string;
        writeSettings(workspace, settings);
        await engine.reload();
      },
    );
    response.status(202).json({ job });
  });
  return routes;
}
