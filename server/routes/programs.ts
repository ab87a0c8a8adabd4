import { Router } from 'express';
import { isAbsolute, relative, resolve } from 'node:path';
import { AgainDeliveryBody, FeedBody, FolderBody, HookBody, HostBody } from '../../contract/programs.ts';
import type { FeedView, NewFeed, ProgramsAnswer } from '../../contract/program-views.ts';
import { formatOf } from '../../core/exports/formats.ts';
import { Problem } from '../../core/tape/problem.ts';
import { calls } from '../engine/calls.ts';
import { prepareExport } from '../exports/make-export.ts';
import { body, HttpProblem } from '../http/check.ts';
import { sendFile } from '../http/send-file.ts';
import { folderTrouble } from '../programs/deliver.ts';
import { feedFile, feedTag, forgetFeedFiles, wishOfFeed } from '../programs/feed-file.ts';
import { checkedUrl } from '../programs/hosts.ts';
import type { Services } from '../services.ts';
import { exportById } from '../tables/exports.ts';
import {
  addFeed,
  addFolder,
  addHook,
  allFeeds,
  allFolders,
  allHooks,
  allHosts,
  feedOfToken,
  lateDeliveries,
  noteFeedRead,
  removeFeed,
  removeFolder,
  removeHook,
  removeHost,
  sendAgain,
  writeHost,
  type FeedRow,
} from '../tables/handover/programs.ts';

const STAND_IN = 'stand-in';
const MOST_TRIED = 3;

/** Other programs that are given what is exported: addresses they read, folders, webhooks. */
export function programRoutes(services: Services): Router {
  const { dir, handover, workspace, engine, programs } = services;
  const routes = Router();
  const time = (at: number | null) => (at === null ? null : new Date(at).toISOString());
  const viewFeed = async (row: FeedRow): Promise<FeedView> => {
    const { tape, format } = wishOfFeed(row);
    return {
      ...{ id: row.id, name: row.name, format: format as FeedView['format'], timesRead: row.times_read },
      // A tape that names what is gone is still listed.
      wording: await engine.call(calls.wordsOf, [tape]).catch((error: Error) => [error.message]),
      madeAt: time(row.made_at)!,
      readAt: time(row.read_at),
    };
  };
  const answer = async (): Promise<ProgramsAnswer> => ({
    feeds: await Promise.all(allFeeds(handover).map(viewFeed)),
    folders: await Promise.all(
      allFolders(handover).map(async (folder) => ({ ...folder, trouble: await folderTrouble(folder.path) })),
    ),
    hosts: allHosts(handover),
    hooks: allHooks(handover),
    deliveries: lateDeliveries(handover, (id) => exportById(workspace, id)?.name ?? 'an export that is gone'),
    standIn: { ...programs.standIn.received },
  });
  const gone = (there: boolean, what: string, id: string) => {
    if (!there)
      throw new HttpProblem(404, `unknown-${what}`, `There is no ${what} "${id}".`, {
        field: 'id',
        value: id,
      });
  };

  routes.get('/programs', async (_request, response) => {
    response.json(await answer());
  });

  routes.post('/feeds', async (request, response) => {
    const { name, wish } = body(FeedBody, request);
    if (wish.format !== 'csv' && wish.format !== 'jsonl')
      throw new Problem('wrong-format', `A feed cannot be ${formatOf(wish.format).label}.`, {
        field: 'wish.format',
        value: wish.format,
        rule: 'csv or jsonl',
      });
    if (wish.split || wish.beside || wish.keys || wish.ranges || wish.deliver)
      throw new Problem('wrong-feed', 'A feed is one file of all that a tape keeps.', {
        field: 'wish',
        rule: 'without split, beside, picked records and further targets',
      });
    // What cannot be made is refused now, and not when somebody reads it.
    await prepareExport(services, wish, null);
    const { id, token } = addFeed(handover, name.trim(), JSON.stringify(wish));
    const row = allFeeds(handover).find((one) => one.id === id)!;
    response.status(201).json({
      feed: await viewFeed(row),
      address: `/api/feeds/${token}.${formatOf(wish.format).ending}`,
    } satisfies NewFeed);
  });

  routes.get('/feeds/:file', async (request, response) => {
    const [token = ''] = request.params.file.split('.');
    const feed = feedOfToken(handover, token);
    if (!feed)
      throw new HttpProblem(404, 'unknown-feed', 'Nothing is given under this address, or no longer.', {
        field: 'file',
      });
    noteFeedRead(handover, feed.id);
    // What changes while the file is made gives another tag, and is made anew.
    for (let tried = 1; ; tried++) {
      const tag = feedTag(services, feed);
      const quoted = `"${tag}"`;
      response.set({ etag: quoted, 'cache-control': 'private, no-cache' });
      if (request.headers['if-none-match'] === quoted) return void response.status(304).end();
      const path = await feedFile(services, feed, tag);
      if (tried < MOST_TRIED && feedTag(services, feed) !== tag) continue;
      response.type(formatOf(wishOfFeed(feed).format).mediaType);
      return sendFile(
        response,
        path,
        new HttpProblem(409, 'changing', 'What it gives changes just now. Ask again.', { field: 'file' }),
      );
    }
  });

  routes.delete('/feeds/:id', (request, response) => {
    const { id } = request.params;
    gone(removeFeed(handover, id), 'feed', id);
    forgetFeedFiles(dir, id);
    response.status(204).end();
  });

  routes.post('/folders', async (request, response) => {
    const { name, path } = body(FolderBody, request);
    const wrong = (message: string) =>
      new Problem('wrong-folder', message, {
        field: 'path',
        value: path,
        rule: 'a folder of this machine from its root, outside the folder of data, that can be written to',
      });
    if (!isAbsolute(path)) throw wrong(`${path} does not begin at the root.`);
    const inside = relative(resolve(dir), resolve(path));
    if (inside === '' || (!inside.startsWith('..') && !isAbsolute(inside)))
      throw wrong('The program’s own data is no place to deliver to.');
    const trouble = await folderTrouble(path);
    if (trouble) throw wrong(trouble);
    response
      .status(201)
      .json({ folder: { ...addFolder(handover, name.trim(), resolve(path)), trouble: null } });
  });
  routes.delete('/folders/:id', (request, response) => {
    gone(removeFolder(handover, request.params.id), 'folder', request.params.id);
    response.status(204).end();
  });

  routes.put('/hosts', (request, response) => {
    writeHost(handover, body(HostBody, request));
    response.json({ hosts: allHosts(handover) });
  });
  routes.delete('/hosts/:name', (request, response) => {
    gone(removeHost(handover, request.params.name), 'host', request.params.name);
    response.status(204).end();
  });

  routes.post('/hooks', (request, response) => {
    const wish = body(HookBody, request);
    const url = wish.url === STAND_IN ? STAND_IN : checkedUrl(handover, wish.url).href;
    const id = addHook(handover, { name: wish.name.trim(), url, batch: wish.batch });
    response.status(201).json({ hook: allHooks(handover).find((one) => one.id === id)! });
  });
  routes.delete('/hooks/:id', (request, response) => {
    gone(removeHook(handover, request.params.id), 'hook', request.params.id);
    response.status(204).end();
  });

  routes.post('/deliveries/:id/again', (request, response) => {
    const { which } = body(AgainDeliveryBody, request);
    gone(sendAgain(handover, request.params.id, which === 'all', Date.now()), 'delivery', request.params.id);
    programs.post.wake();
    response.status(202).json({ waiting: true });
  });
  return routes;
}
