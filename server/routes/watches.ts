import { Router } from 'express';
import {
  ReadNoticesBody,
  TellSettingsBody,
  WatchBody,
  type NoticesAnswer,
  type WatchView,
} from '../../contract/runs.ts';
import { HAPPENING_WORDS } from '../../core/runs/happenings.ts';
import { Problem } from '../../core/tape/problem.ts';
import { body, HttpProblem } from '../http/check.ts';
import { atomFeed } from '../runs/atom.ts';
import { checkWays } from '../runs/check-plan.ts';
import type { Services } from '../services.ts';
import { RecordKeys } from '../tables/keys.ts';
import { listByKey } from '../tables/lists/list-rows.ts';
import { revisionOf } from '../tables/revision.ts';
import {
  notices,
  readNotices,
  tellSettings,
  unreadCount,
  writeTellSettings,
} from '../tables/runs/notices.ts';
import { planByKey } from '../tables/runs/plans.ts';
import { allWatches, removeWatch, writeWatch, type Watch } from '../tables/runs/watches.ts';
import { readSettings } from '../tables/workspace.ts';

const SHOWN = 100;

/** What one watches, and what one is told. */
export function watchRoutes(services: Services): Router {
  const { runs, universe, listsDb, workspace } = services;
  const routes = Router();
  const view = ({ seen: _, seenAt: __, ...watch }: Watch): WatchView => watch;
  /** What something is called. @throws HttpProblem where it is not there */
  const nameOf = ({ subject, key }: WatchBody): string => {
    const name =
      subject === 'lists'
        ? listByKey(listsDb, key)?.name
        : subject === 'tapes'
          ? planByKey(runs.db, key)?.name
          : new RecordKeys(universe, subject).find(key)?.name;
    if (name == null)
      throw new HttpProblem(404, 'unknown-record', `There is nothing "${key}" among ${subject} to watch.`, {
        field: 'key',
        value: key,
      });
    return name;
  };

  routes.get('/watches', (_request, response) => {
    response.json({ watches: allWatches(runs.db).map(view) });
  });
  routes.put('/watches', (request, response) => {
    const wish = body(WatchBody, request);
    checkWays(services, wish.ways, 'ways');
    const wrong = wish.kinds.find((kind) => !HAPPENING_WORDS[kind].of.includes(wish.subject));
    if (wrong)
      throw new Problem(
        'wrong-value',
        `${HAPPENING_WORDS[wrong].label} are nothing that happens to ${wish.subject}.`,
        {
          field: 'kinds',
          value: wrong,
          rule: Object.entries(HAPPENING_WORDS)
            .filter(([, { of }]) => of.includes(wish.subject))
            .map(([kind]) => kind)
            .join(', '),
        },
      );
    const about = {
      name: nameOf(wish),
      person: readSettings(workspace).person,
      revision: revisionOf(universe).revision,
      now: runs.now(),
    };
    response.json({ watch: view(writeWatch(runs.db, wish, about)) });
  });
  routes.delete('/watches/:id', (request, response) => {
    if (!removeWatch(runs.db, request.params.id))
      throw new HttpProblem(404, 'unknown-watch', `There is no watch "${request.params.id}".`, {
        field: 'id',
        value: request.params.id,
      });
    response.status(204).end();
  });

  const feedOf = () => `/api/notices/${tellSettings(runs.db).token}.atom`;
  routes.get('/notices', (_request, response) => {
    const { mail, hour } = tellSettings(runs.db);
    response.json({
      notices: notices(runs.db, 'bell', SHOWN).map(({ ways: _, ...one }) => one),
      unread: unreadCount(runs.db),
      settings: { mail, hour },
      feed: feedOf(),
    } satisfies NoticesAnswer);
  });
  routes.post('/notices/read', (request, response) => {
    const { ids } = body(ReadNoticesBody, request);
    readNotices(runs.db, ids ?? null, runs.now());
    response.json({ unread: unreadCount(runs.db) });
  });
  routes.put('/notices/settings', (request, response) => {
    const { mail, hour } = body(TellSettingsBody, request);
    writeTellSettings(runs.db, { ...tellSettings(runs.db), mail, hour });
    response.json({ settings: { mail, hour } });
  });
  routes.get('/notices/:file', (request, response) => {
    if (`/api/notices/${request.params.file}` !== feedOf())
      throw new HttpProblem(404, 'unknown-feed', 'Nothing is given under this address, or no longer.', {
        field: 'file',
      });
    const home = `${request.protocol}://${request.get('host')}`;
    response
      .type('application/atom+xml')
      .send(atomFeed(notices(runs.db, 'feed', SHOWN), home, home + feedOf()));
  });
  return routes;
}
