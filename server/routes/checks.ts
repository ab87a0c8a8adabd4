import { Router } from 'express';
import {
  AtLeastBody,
  CheckBody,
  FitBody,
  MoreBody,
  ToListBody,
  type CheckAnswer,
  type CheckView,
} from '../../contract/checks.ts';
import { TapeBody } from '../../contract/tape-body.ts';
import { isoOf } from '../../core/dates.ts';
import { holdsAtLeast, moreToDecide } from '../../core/stats/accuracy.ts';
import { survivorGroups } from '../../core/stats/survivors.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import { emptyTape, isBlock, isHas, type Tape } from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import { asOfDay } from '../days.ts';
import { calls } from '../engine/calls.ts';
import { body, HttpProblem } from '../http/check.ts';
import type { Services } from '../services.ts';
import { accuracyOfCheck, checkById, checkMembers, checksOf, checkStrata } from '../tables/lists/checks.ts';
import { readSettings } from '../tables/workspace.ts';

/** Seeds are chosen among so few that they can be said aloud. */
const SEEDS = 1000;

/** Spot checks: samples of a tape that are judged by hand, and what they say of all of it. */
export function checkRoutes({ workspace, engine, listsDb, lists }: Services): Router {
  const routes = Router();
  const found = (id: string): CheckView => {
    try {
      return checkById(listsDb, id);
    } catch (error) {
      if (error instanceof Problem) throw new HttpProblem(404, error.code, error.message, error);
      throw error;
    }
  };
  const answer = async (id: string): Promise<CheckAnswer> => {
    const check = found(id);
    const members = checkMembers(listsDb, id);
    const strata = checkStrata(listsDb, id);
    const judged = members.filter(({ verdict }) => verdict === 'in' || verdict === 'out');
    const limit = check.atLeast / 100;
    return {
      check,
      members,
      strata,
      accuracy: accuracyOfCheck(listsDb, id),
      holding: holdsAtLeast(limit, check.fit, judged.length),
      more: moreToDecide(limit, check.fit, judged.length, check.population),
      groups: survivorGroups(check.tape.lines, check.subject, await cellsOf(check.tape, judged)),
    };
  };
  /** The judged with the cells that the lines of a tape test; none where one of them is gone from the universe. */
  const cellsOf = async (tape: Tape, judged: readonly { key: string; verdict: string | null }[]) => {
    const fields = tape.lines.flatMap((line) => (isBlock(line) || isHas(line) ? [] : [line.field]));
    const columns = [...new Set(fields)].filter((id) => fieldOf(tape.subject, id)?.column);
    if (columns.length === 0 || judged.length === 0) return [];
    const fits = new Map(judged.map(({ key, verdict }) => [key, verdict === 'in']));
    try {
      const { rows } = await engine.call(calls.rows, [
        emptyTape(tape.subject),
        columns,
        [],
        0,
        judged.length,
        { keys: [...fits.keys()] },
      ]);
      return rows.map(({ key, cells }) => ({ fits: fits.get(key)!, cells }));
    } catch (error) {
      if (error instanceof Problem) return [];
      throw error;
    }
  };

  routes.post('/checks/of', (request, response) => {
    response.json({ checks: checksOf(listsDb, body(TapeBody, request).tape as Tape) });
  });
  routes.post('/checks', async (request, response) => {
    const { tape, size, seed: asked, by, atLeast } = body(CheckBody, request);
    const seed = asked ?? 1 + Math.floor(Math.random() * SEEDS);
    const drawn = await engine.call(calls.drawSample, [tape, size, seed, by ?? null]);
    const settings = readSettings(workspace);
    const wish = {
      tape: tape as Tape,
      seed,
      by: by ?? null,
      atLeast,
      asOf: isoOf(asOfDay(settings)),
      person: settings.person,
    };
    response.status(201).json(await answer(await lists.change('addCheck', wish, drawn)));
  });
  routes.get('/checks/:id', async (request, response) => {
    response.json(await answer(request.params.id));
  });
  routes.post('/checks/:id/more', async (request, response) => {
    const { id, tape, seed, by } = found(request.params.id);
    const drawn = await engine.call(calls.drawSample, [tape, body(MoreBody, request).size, seed, by]);
    await lists.change('addToCheck', id, drawn);
    response.json(await answer(id));
  });
  routes.put('/checks/:id', async (request, response) => {
    const { id } = found(request.params.id);
    await lists.change('setAtLeast', id, body(AtLeastBody, request).atLeast);
    response.json(await answer(id));
  });
  routes.post('/checks/:id/verdicts', async (request, response) => {
    const { id } = found(request.params.id);
    const { key, verdict, note } = body(FitBody, request);
    await lists.change('judgeChecked', id, key, verdict ?? null, note, readSettings(workspace).person);
    response.json(await answer(id));
  });
  routes.post('/checks/:id/to-list', async (request, response) => {
    const { id } = found(request.params.id);
    const { list } = body(ToListBody, request);
    const { person } = readSettings(workspace);
    let judged = 0;
    const batches: number[] = [];
    for (const verdict of ['in', 'out', 'unsure'] as const) {
      const keys = checkMembers(listsDb, id).flatMap((one) => (one.verdict === verdict ? [one.key] : []));
      if (keys.length === 0) continue;
      const done = await lists.change(
        'judge',
        list,
        { keys },
        verdict,
        verdict === 'out' ? 'spot check' : null,
        person,
      );
      judged += done.judged;
      batches.push(done.batch);
    }
    response.json({ judged, batches });
  });
  routes.delete('/checks/:id', async (request, response) => {
    await lists.change('removeCheck', found(request.params.id).id);
    response.status(204).end();
  });
  return routes;
}
