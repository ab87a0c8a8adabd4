import { Router } from 'express';
import {
  AddBody,
  AddressesBody,
  CombineBody,
  CopyBody,
  DetailsBody,
  ListBody,
  ListChangeBody,
  OverlapBody,
  VerdictBody,
  type AddedAnswer,
  type BeforeAddingAnswer,
  type DescribedAnswer,
  type JudgedAnswer,
  type ListsAnswer,
  type TakenAnswer,
} from '../../contract/lists.ts';
import { ChosenPeopleBody } from '../../contract/right-people.ts';
import { PicksBody } from '../../contract/row-requests.ts';
import { TapeBody } from '../../contract/tape-body.ts';
import { isoOf } from '../../core/dates.ts';
import { spellFunctions } from '../../core/people/functions.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import { asOfDay } from '../days.ts';
import { calls } from '../engine/calls.ts';
import { body, HttpProblem, queryText } from '../http/check.ts';
import type { Services } from '../services.ts';
import { companyKeys } from '../tables/keys.ts';
import { addressesOf } from '../tables/lists/addresses.ts';
import { allLists, listByKey, removedLists } from '../tables/lists/list-rows.ts';
import { paceOf } from '../tables/lists/roll.ts';
import { membershipsOf, reasonsByUse } from '../tables/lists/verdicts.ts';
import type { Wanted } from '../tables/lists/wanted.ts';
import { readSettings } from '../tables/workspace.ts';

/** Companies that are opened by their keys. */
const MOST_OPENED = 1000;

/** Members of a listed act: by key, or picked of a tape. */
type Chosen = { members?: string[]; picks?: PicksBody };

/** Lists: their names, members, verdicts, and what is made of several. */
export function listRoutes({ workspace, engine, universe, listsDb, lists }: Services): Router {
  const routes = Router();
  const found = (key: string) => {
    const list = listByKey(listsDb, key);
    if (!list)
      throw new HttpProblem(404, 'unknown-list', `There is no list "${key}" in this workspace.`, {
        field: 'key',
        value: key,
      });
    return list;
  };
  const person = () => readSettings(workspace).person;
  /** The records of a tape that go on a list of a subject. */
  const recordsFor = async (
    wish: ChosenPeopleBody,
    subject: string,
  ): Promise<Wanted & { ids: Uint32Array; without: Uint32Array }> => {
    const { tape, sort, keys, ranges, except, functions } = wish;
    const picks = { ...(keys && { keys }), ...(ranges && { ranges }), ...(except && { except }) };
    return { ...(await engine.call(calls.recordsFor, [tape, sort, picks, subject, functions])), subject };
  };
  const chosen = async ({ members, picks }: Chosen, subject: string): Promise<Wanted> => {
    if ((members === undefined) === (picks === undefined))
      throw new Problem('wrong-body', 'Name members by key, or pick them of a tape.', {
        field: 'members',
        rule: 'exactly one of members and picks',
      });
    return members ? { keys: members } : recordsFor(picks!, subject);
  };
  const number = (text: string) => {
    const id = Number(text);
    if (!Number.isSafeInteger(id) || id < 0)
      throw new Problem('wrong-value', `"${text}" is no number of an act.`, { field: 'id', value: text });
    return id;
  };

  routes.get('/lists', (_request, response) => {
    response.json({
      lists: allLists(listsDb),
      removed: removedLists(listsDb),
      reasons: reasonsByUse(listsDb),
    } satisfies ListsAnswer);
  });
  routes.post('/lists', async (request, response) => {
    const wish = body(ListBody, request);
    const list = await lists.change('add', {
      ...wish,
      owner: wish.owner ?? person(),
      name: wish.name.trim(),
      suppression: wish.suppression ?? null,
    });
    response.status(201).json({ list });
  });
  routes.get('/lists/:key', async (request, response) => {
    response.json(await lists.count('roll', found(request.params.key).key));
  });
  routes.get('/lists/:key/pace', (request, response) => {
    const verdicts = paceOf(listsDb, found(request.params.key).key).map(({ verdict, at }) => ({
      verdict,
      at: new Date(at).toISOString(),
    }));
    response.json({ verdicts });
  });
  routes.get('/lists/:key/shares', async (request, response) => {
    response.json({ shares: await lists.count('shares', found(request.params.key).key) });
  });
  routes.put('/lists/:key', async (request, response) => {
    const { key } = found(request.params.key);
    const { stays, name, ...wish } = body(ListChangeBody, request);
    const change = { ...wish, ...(name === undefined ? {} : { name: name.trim() }) };
    response.json({ list: await lists.change('change', key, defined(change), stays === false) });
  });
  routes.get('/lists/:key/addresses', (request, response) => {
    response.json({ addresses: addressesOf(listsDb, found(request.params.key).key) });
  });
  routes.put('/lists/:key/addresses', async (request, response) => {
    const { key, suppression, name } = found(request.params.key);
    const { addresses } = body(AddressesBody, request);
    if (suppression === null && addresses.length > 0)
      throw new Problem('wrong-value', `"${name}" is no suppression list, so that it keeps nothing off.`, {
        field: 'addresses',
        value: addresses.length,
        rule: 'a suppression list',
      });
    response.json({ list: await lists.change('setAddresses', key, addresses) });
  });
  routes.delete('/lists/:key', async (request, response) => {
    await lists.change('remove', found(request.params.key).key);
    response.status(204).end();
  });
  routes.post('/lists/:key/restore', async (request, response) => {
    response.json({ list: await lists.change('restore', request.params.key) });
  });

  routes.post('/lists/before', async (request, response) => {
    const subject = queryText(request, 'subject') || 'companies';
    const wanted = await recordsFor(body(ChosenPeopleBody, request), subject);
    const keys = allLists(listsDb).flatMap((list) => (list.subject === subject ? [list.key] : []));
    const [there, suppressed] = await Promise.all([
      lists.count('there', keys, wanted),
      engine.call(calls.keptOffOf, [subject, wanted.ids]),
    ]);
    const { without } = wanted;
    const withoutKeys = without.length > MOST_OPENED ? [] : companyKeys(universe, without);
    response.json({
      ...there,
      suppressed,
      without: without.length,
      withoutKeys,
    } satisfies BeforeAddingAnswer);
  });
  routes.post('/lists/:key/members', async (request, response) => {
    const { key, subject } = found(request.params.key);
    const { kind, what, ...wish } = body(AddBody, request);
    const wanted = await recordsFor(wish, subject);
    const words = await engine.call(calls.wordsOf, [wish.tape]);
    const tape = wish.tape as Tape;
    const picked = wish.keys !== undefined || wish.ranges !== undefined;
    const origin = {
      kind: kind ?? (picked ? 'hand' : 'tape'),
      what:
        (what ?? ((tape.name ?? words.join('; ')) || 'the universe')) +
        (wish.functions ? `; one a company: ${spellFunctions(wish.functions)}` : ''),
      tape: JSON.stringify(tape),
      asOf: isoOf(asOfDay(readSettings(workspace))),
      person: person(),
    } as const;
    const added = await lists.change('addMembers', key, origin, wanted);
    response.json({ ...added, taken: null, list: found(key) } satisfies AddedAnswer);
  });
  routes.delete('/lists/:key/origins/:ids', async (request, response) => {
    const { key } = found(request.params.key);
    const origins = request.params.ids.split(',').map(number);
    response.json({ removed: await lists.change('removeOrigins', key, origins), list: found(key) });
  });
  routes.delete('/lists/:key/members', async (request, response) => {
    const { key, subject } = found(request.params.key);
    const wanted = await recordsFor(body(PicksBody, request), subject);
    const taken = await lists.change('takeOff', key, wanted, 'by hand', person());
    response.json({ ...taken, list: found(key) } satisfies TakenAnswer);
  });
  routes.delete('/lists/:key/taken/:id', async (request, response) => {
    const { key } = found(request.params.key);
    response.json({ back: await lists.change('putBack', key, number(request.params.id)), list: found(key) });
  });
  routes.post('/lists/:key/copies', async (request, response) => {
    const { key, subject } = found(request.params.key);
    const { to, move, ...wish } = body(CopyBody, request);
    found(to);
    const wanted = await recordsFor(wish, subject);
    const moved = move ? { person: person() } : null;
    const copied = await lists.change('copyMembers', key, to, wanted, moved);
    response.json({ ...copied, list: found(to) } satisfies AddedAnswer);
  });

  routes.post('/lists/:key/verdicts', async (request, response) => {
    const { key, subject } = found(request.params.key);
    const { verdict, reason, seen, ...wish } = body(VerdictBody, request);
    const wanted = await chosen(wish, subject);
    const one = wish.members?.length === 1 && seen !== undefined ? wish.members[0]! : null;
    const before =
      one === null ? undefined : membershipsOf(listsDb, subject, one).find(({ list }) => list === key);
    const earlier =
      before?.judgedAt && before.judgedAt !== seen
        ? { verdict: before.verdict, person: before.judgedBy ?? '', at: before.judgedAt }
        : null;
    const judged = await lists.change(
      'judge',
      key,
      wanted,
      verdict,
      verdict === 'out' ? reason || null : null,
      person(),
    );
    response.json({ ...judged, list: found(key), earlier } satisfies JudgedAnswer);
  });
  routes.delete('/lists/:key/verdicts/:batch', async (request, response) => {
    const { key } = found(request.params.key);
    const back = await lists.change('takeBackVerdicts', key, number(request.params.batch));
    response.json({ back, list: found(key) });
  });
  routes.post('/lists/:key/details', async (request, response) => {
    const { key, subject } = found(request.params.key);
    const { members, picks, ...details } = body(DetailsBody, request);
    const wanted = await chosen({ members, picks }, subject);
    response.json((await lists.change('describe', key, wanted, details)) satisfies DescribedAnswer);
  });
  routes.delete('/lists/:key/details/:undo', async (request, response) => {
    const { key } = found(request.params.key);
    response.json({ back: await lists.change('takeBackDetails', key, number(request.params.undo)) });
  });
  routes.get('/memberships/:subject/:key', (request, response) => {
    const { subject, key } = request.params;
    response.json({ memberships: membershipsOf(listsDb, subject, key) });
  });

  routes.post('/lists/overlap', async (request, response) => {
    response.json({ regions: await lists.count('overlap', body(OverlapBody, request).parts) });
  });
  routes.post('/lists/combine', async (request, response) => {
    const { name, stays, ...made } = body(CombineBody, request);
    const list = await lists.change('combine', { name: name.trim(), owner: person() }, made, stays);
    response.status(201).json({ list });
  });
  routes.get('/lists/:key/parting', async (request, response) => {
    const { key, subject } = found(request.params.key);
    const { currency } = readSettings(workspace);
    response.json(await engine.call(calls.parting, [subject, key, currency]));
  });
  routes.post('/lists/:key/against', async (request, response) => {
    const { key } = found(request.params.key);
    response.json(await engine.call(calls.heldAgainst, [body(TapeBody, request).tape, key]));
  });
  return routes;
}

/** An object without the keys that stand for nothing. */
function defined<T extends object>(wish: T): Partial<T> {
  return Object.fromEntries(Object.entries(wish).filter(([, value]) => value !== undefined)) as Partial<T>;
}
