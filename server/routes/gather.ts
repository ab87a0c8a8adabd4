import { Router } from 'express';
import { rmSync } from 'node:fs';
import {
  AroundBody,
  FetchPageBody,
  GathererBody,
  GatherHostBody,
  LookBody,
  PastedBody,
} from '../../contract/gather.ts';
import type {
  AroundAnswer,
  GatherAnswer,
  GathererAnswer,
  LookAnswer,
  PageAnswer,
  PagesAnswer,
} from '../../contract/gather-views.ts';
import { Problem } from '../../core/tape/problem.ts';
import { PageTrouble } from '../gather/fetcher.ts';
import { sendFrame } from '../gather/frame.ts';
import { pastedPage, savedPagesOf } from '../gather/saved-pages.ts';
import { checkSearches, specOf, type GatherSpec } from '../gather/spec.ts';
import { GUIDE_HOST, GUIDE_NAME } from '../gather/stand-in/workshop-guide.ts';
import { REGISTER_HOST, REGISTER_NAME } from '../gather/stand-in/trades-register.ts';
import { body, HttpProblem } from '../http/check.ts';
import { oneFile, uploadInto } from '../http/upload.ts';
import type { Services } from '../services.ts';
import {
  addGatherer,
  addPage,
  allGatherers,
  allGatherHosts,
  changeGatherer,
  gathererById,
  pageById,
  pagesOf,
  removeGatherer,
  removeGatherHost,
  writeGatherHost,
} from '../tables/gather/gatherers.ts';
import { runsOf } from '../tables/gather/runs.ts';

/** Gatherers: the pages that are pointed at, and what is learned from that. */
export function gatherRoutes({ dir, gather, uploadLimit }: Services): Router {
  const { db, thread, fetcher, runner, web } = gather;
  const routes = Router();
  const upload = uploadInto(dir, uploadLimit);
  const found = (id: string) => {
    const row = gathererById(db, id);
    if (!row)
      throw new HttpProblem(
        404,
        'unknown-gatherer',
        `There is no gatherer "${id}"; it may have been removed.`,
        {
          field: 'id',
          value: id,
        },
      );
    return { ...row, spec: JSON.parse(row.spec) as GatherSpec };
  };
  const answer = (id: string): GathererAnswer => {
    const { name, spec } = found(id);
    return {
      ...{ id, name, spec },
      pages: pagesOf(db, id),
      runs: runsOf(db, id).map(({ id: run, nth, state, records, started_at }) => ({
        ...{ id: run, nth, state, records, startedAt: new Date(started_at).toISOString() },
      })),
    };
  };
  const checked = ({ name, spec: wish }: GathererBody) => {
    const spec = specOf(wish);
    checkSearches(spec);
    return { name: name.trim(), spec };
  };
  /** What the host said of a page, as an answer. */
  const asAnswer = (error: unknown) => {
    if (!(error instanceof PageTrouble)) throw error;
    throw new HttpProblem(error.kind === 'not-allowed' ? 403 : 502, 'page-not-read', error.message, {
      field: 'address',
    });
  };

  routes.get('/gather', (_request, response) => {
    response.json({
      gatherers: allGatherers(db),
      hosts: allGatherHosts(db),
      standIns: [
        [GUIDE_NAME, GUIDE_HOST],
        [REGISTER_NAME, REGISTER_HOST],
      ].map(([name, host]) => ({
        name: name!,
        address: `http://${host}/`,
        seen: `${web.origin}/on/${host}/`,
      })),
    } satisfies GatherAnswer);
  });

  routes.post('/gather/gatherers', (request, response) => {
    const { name, spec } = checked(body(GathererBody, request));
    response.status(201).json(answer(addGatherer(db, name, spec)));
  });

  routes.get('/gather/gatherers/:id', (request, response) => {
    response.json(answer(request.params.id));
  });

  routes.put('/gather/gatherers/:id', (request, response) => {
    const { id } = found(request.params.id);
    const { name, spec } = checked(body(GathererBody, request));
    changeGatherer(db, id, name, spec);
    response.json(answer(id));
  });

  routes.delete('/gather/gatherers/:id', async (request, response) => {
    const { id } = found(request.params.id);
    for (const { id: run, state } of runsOf(db, id))
      if (state === 'running') {
        db.prepare("UPDATE run SET state = 'stopped' WHERE id = ?").run(run);
        await runner.idle(run);
      }
    removeGatherer(db, id);
    response.status(204).end();
  });

  routes.post('/gather/gatherers/:id/pages', async (request, response) => {
    const { id, spec } = found(request.params.id);
    const { address, word = '', place = '' } = body(FetchPageBody, request);
    const page = await (
      address === undefined
        ? runner.searched(spec, { word, place })
        : fetcher.page({ method: 'get', url: address, body: null }, spec.pause)
    ).catch(asAnswer);
    const added = addPage(db, { gatherer: id, run: null, ...page, saved: false });
    response.status(201).json({ page: pageById(db, added)! } satisfies PageAnswer);
  });

  routes.post('/gather/gatherers/:id/pasted', (request, response) => {
    const { id } = found(request.params.id);
    const page = pastedPage(body(PastedBody, request).text);
    const added = addPage(db, { gatherer: id, run: null, ...page, saved: true });
    response.status(201).json({ pages: [pageById(db, added)!] } satisfies PagesAnswer);
  });

  routes.post('/gather/gatherers/:id/saved', oneFile(upload), async (request, response) => {
    const { id } = found(request.params.id as string);
    if (!request.file)
      throw new Problem('no-file', 'The upload holds no file.', {
        field: 'file',
        rule: 'a page saved as HTML or MHTML, or a ZIP of such',
      });
    const { path } = request.file;
    const fileName = Buffer.from(request.file.originalname, 'latin1').toString('utf8');
    try {
      const pages = await savedPagesOf(path, fileName);
      const added = db.transaction(() =>
        pages.map((page) => addPage(db, { gatherer: id, run: null, ...page, saved: true })),
      )();
      response.status(201).json({ pages: added.map((page) => pageById(db, page)!) } satisfies PagesAnswer);
    } finally {
      rmSync(path, { force: true });
    }
  });

  routes.get('/gather/pages/:id/view', async (request, response) => {
    const { id } = request.params;
    const page = /^\d{1,12}$/.test(id) ? Number(id) : 0;
    sendFrame(response, await thread.call('shown', page));
  });

  routes.post('/gather/look', async (request, response) => {
    const { page, spec } = body(LookBody, request);
    response.json((await thread.call('look', page, specOf(spec))) satisfies LookAnswer);
  });

  routes.post('/gather/around', async (request, response) => {
    const { page, node, rows } = body(AroundBody, request);
    response.json((await thread.call('around', page, node, rows)) satisfies AroundAnswer);
  });

  routes.put('/gather/hosts', (request, response) => {
    const host = body(GatherHostBody, request);
    writeGatherHost(db, host.name, host.private);
    response.json({ hosts: allGatherHosts(db) });
  });

  routes.delete('/gather/hosts/:name', (request, response) => {
    const { name } = request.params;
    if (!removeGatherHost(db, name))
      throw new HttpProblem(404, 'unknown-host', `“${name}” is not among the hosts.`, {
        field: 'name',
        value: name,
      });
    response.status(204).end();
  });
  return routes;
}
