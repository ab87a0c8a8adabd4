import { Router } from 'express';
import {
  AlternativesBody,
  CompleteBody,
  CountsBody,
  PlaneBody,
  PositionBody,
  SqlBody,
  TypedBody,
} from '../../contract/requests.ts';
import { PicksBody, RowsBody } from '../../contract/row-requests.ts';
import { NearBody } from '../../contract/steering.ts';
import { TapeBody } from '../../contract/tape-body.ts';
import type { JumpAnswer } from '../../contract/responses.ts';
import { isScheme, SCHEMES } from '../../core/codes/tree.ts';
import { RELATED, SUBJECTS } from '../../core/fields/registry.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { fold } from '../../core/text/fold.ts';
import { body, goneSignal, HttpProblem, queryText } from '../http/check.ts';
import type { Services } from '../services.ts';
import { joinOf } from '../tables/company-joins.ts';
import { allLists } from '../tables/lists/list-rows.ts';
import { allSavedTapes } from '../tables/saved-tapes.ts';
import { calls } from '../engine/calls.ts';

/** Counts, rows and typed lines: all answered by the counting thread. */
export function countingRoutes({ engine, universe, workspace, listsDb }: Services): Router {
  const routes = Router();
  const MOST_NAMED = 6;

  routes.post('/tally', async (request, response) => {
    const answer = await engine.call(calls.tally, [body(TapeBody, request).tape], goneSignal(response));
    response.json({ ...answer, generation: engine.generation });
  });
  routes.post('/counts', async (request, response) => {
    response.json(await engine.call(calls.counts, [body(CountsBody, request)], goneSignal(response)));
  });
  routes.post('/alternatives', async (request, response) => {
    const { tape, at, tests } = body(AlternativesBody, request);
    response.json({ counts: await engine.call(calls.alternatives, [tape, at, tests], goneSignal(response)) });
  });
  routes.post('/near', async (request, response) => {
    const { tape, target } = body(NearBody, request);
    response.json(await engine.call(calls.near, [tape, target], goneSignal(response)));
  });
  routes.post('/plane', async (request, response) => {
    const { tape, currency } = body(PlaneBody, request);
    response.json(await engine.call(calls.plane, [tape, currency], goneSignal(response)));
  });
  routes.get('/codes/:scheme/:code', async (request, response) => {
    const { scheme, code } = request.params;
    const found = isScheme(scheme) ? await engine.call(calls.code, [scheme, code]) : null;
    if (!found)
      throw new HttpProblem(404, 'unknown-code', `There is no code "${code}" in "${scheme}".`, {
        field: 'code',
        value: code,
        rule: `a code of one of ${Object.keys(SCHEMES).join(', ')}`,
      });
    response.json(found);
  });
  routes.post('/rows', async (request, response) => {
    const { tape, columns, sort, offset, limit, ...picks } = body(RowsBody, request);
    response.json(
      await engine.call(calls.rows, [tape, columns, sort, offset, limit, picks], goneSignal(response)),
    );
  });
  routes.post('/position', async (request, response) => {
    const { tape, sort, key } = body(PositionBody, request);
    response.json({ position: await engine.call(calls.position, [tape, sort, key], goneSignal(response)) });
  });
  routes.post('/picked', async (request, response) => {
    const { tape, sort, ...picks } = body(PicksBody, request);
    response.json({ count: await engine.call(calls.pickedCount, [tape, sort, picks], goneSignal(response)) });
  });
  routes.post('/typed', async (request, response) => {
    const { text, stem, subject } = body(TypedBody, request);
    response.json({ lines: await engine.call(calls.typed, [text, stem, subject]) });
  });
  routes.post('/complete', async (request, response) => {
    const { text, tape } = body(CompleteBody, request);
    response.json({ completions: await engine.call(calls.complete, [text, tape], goneSignal(response)) });
  });
  routes.post('/sql', async (request, response) => {
    const { tape, dialect } = body(SqlBody, request);
    response.json(await engine.call(calls.sql, [tape, dialect]));
  });
  routes.get('/fields', (_request, response) => {
    response.json({ subjects: [...SUBJECTS.values()] });
  });
  routes.get('/jump', async (request, response) => {
    const text = queryText(request, 'text');
    const found = await engine.call(calls.jump, [text], goneSignal(response));
    const named = ({ name }: { name: string }) => fold(name).includes(fold(text.trim()));
    const answer: JumpAnswer = {
      ...found,
      tapes: allSavedTapes(workspace)
        .filter(named)
        .slice(0, MOST_NAMED)
        .map(({ id, kind, name, body }) => ({ id, kind, name, tape: JSON.parse(body) as Tape })),
      lists: allLists(listsDb)
        .filter(named)
        .slice(0, MOST_NAMED)
        .map(({ key, name, subject, members }) => ({ key, name, subject, members })),
    };
    response.json(answer);
  });
  routes.get('/companies/:key', async (request, response) => {
    const { key } = request.params;
    // A company that was joined to another is found there.
    const profile =
      (await engine.call(calls.profile, [key])) ??
      (await engine.call(calls.profile, [joinOf(universe, key) ?? key]));
    if (!profile)
      throw new HttpProblem(404, 'unknown-company', `There is no company "${key}" in this universe.`, {
        field: 'key',
        value: key,
      });
    response.json(profile);
  });
  routes.get('/records/:subject/:key', async (request, response) => {
    const { subject, key } = request.params;
    const record = await engine.call(calls.record, [subject, key]);
    if (!record)
      throw new HttpProblem(404, 'unknown-record', `There is no "${key}" among the ${subject}.`, {
        field: 'key',
        value: key,
        rule: `the key of one of ${RELATED.map(({ id }) => id).join(', ')}`,
      });
    response.json(record);
  });
  return routes;
}
