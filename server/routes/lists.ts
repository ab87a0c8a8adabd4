import { Router } from 'express';
import { CountryGroupBody, ListBody } from '../../contract/requests.ts';
import { PicksBody } from '../../contract/row-requests.ts';
import type { AddedAnswer } from '../../contract/responses.ts';
import { READY_GROUPS } from '../../core/geo/country-groups.ts';
import { Problem } from '../../core/tape/problem.ts';
import { body, HttpProblem } from '../http/check.ts';
import type { Services } from '../services.ts';
import { ownGroups, removeGroup, writeGroup } from '../tables/facts.ts';
import {
  addList,
  addMembers,
  allLists,
  listByKey,
  removeAddition,
  removeList,
  removeMembers,
  renameList,
} from '../tables/lists.ts';
import { calls } from '../engine/calls.ts';

/** Lists of companies and groups of countries: what tapes may name of the user's own. */
export function listRoutes({ workspace, engine }: Services): Router {
  const routes = Router();
  const found = (key: string) => {
    const list = listByKey(workspace, key);
    if (!list)
      throw new HttpProblem(404, 'unknown-list', `There is no list "${key}" in this workspace.`, {
        field: 'key',
        value: key,
      });
    return list;
  };

  routes.get('/lists', (_request, response) => {
    response.json({ lists: allLists(workspace) });
  });
  routes.post('/lists', (request, response) => {
    response.status(201).json({ list: addList(workspace, body(ListBody, request).name.trim()) });
  });
  routes.put('/lists/:key', (request, response) => {
    const { key } = found(request.params.key);
    renameList(workspace, key, body(ListBody, request).name.trim());
    response.json({ list: found(key) });
  });
  routes.delete('/lists/:key', (request, response) => {
    removeList(workspace, found(request.params.key).key);
    response.status(204).end();
  });
  routes.post('/lists/:key/members', async (request, response) => {
    const { key } = found(request.params.key);
    const { tape, sort, ...picks } = body(PicksBody, request);
    const companies = await engine.call(calls.companyKeysOf, [tape, sort, picks]);
    const words = await engine.call(calls.wordsOf, [tape]);
    const origin = `${picks.keys || picks.ranges ? 'picked by hand from' : 'all of'} ${words.join('; ') || 'the universe'}`;
    // It may have been removed while its companies were found.
    found(key);
    const { added, at } = addMembers(workspace, key, companies, origin);
    response.json({ added, at, of: companies.length, list: found(key) } satisfies AddedAnswer);
  });
  routes.delete('/lists/:key/additions/:at', (request, response) => {
    const { key } = found(request.params.key);
    response.json({ removed: removeAddition(workspace, key, request.params.at), list: found(key) });
  });
  routes.delete('/lists/:key/members', async (request, response) => {
    const { key } = found(request.params.key);
    const { tape, sort, ...picks } = body(PicksBody, request);
    const companies = await engine.call(calls.companyKeysOf, [tape, sort, picks]);
    found(key);
    response.json({ removed: removeMembers(workspace, key, companies), list: found(key) });
  });

  routes.get('/country-groups', (_request, response) => {
    response.json({ ready: [...READY_GROUPS.values()], own: ownGroups(workspace) });
  });
  routes.put('/country-groups/:key', (request, response) => {
    const { key } = request.params;
    if (!/^[a-z0-9][a-z0-9-]{2,59}$/.test(key) || READY_GROUPS.has(key))
      throw new Problem('wrong-value', `"${key}" cannot be the key of a group of your own.`, {
        field: 'key',
        value: key,
        rule: 'three or more small letters, figures and hyphens, and not the key of a ready group',
      });
    const { label, countries } = body(CountryGroupBody, request);
    writeGroup(workspace, { key, label, countries: [...new Set(countries)] });
    response.json({ own: ownGroups(workspace) });
  });
  routes.delete('/country-groups/:key', (request, response) => {
    if (!removeGroup(workspace, request.params.key))
      throw new HttpProblem(404, 'unknown-group', `There is no group "${request.params.key}" of your own.`, {
        field: 'key',
        value: request.params.key,
      });
    response.status(204).end();
  });
  return routes;
}
