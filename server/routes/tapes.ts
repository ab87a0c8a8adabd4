import { Router } from 'express';
import type { SavedTapeView } from '../../contract/responses.ts';
import { SavedTapeBody } from '../../contract/requests.ts';
import { TapeBody } from '../../contract/tape-body.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import { body, HttpProblem } from '../http/check.ts';
import { expectVersion } from '../http/versions.ts';
import type { Services } from '../services.ts';
import {
  allSavedTapes,
  openingTape,
  removeSavedTape,
  savedTapeById,
  writeSavedTape,
  type SavedTapeRow,
} from '../tables/saved-tapes.ts';
import { storedTape, storeTape } from '../tables/workspace.ts';
import { calls } from '../engine/calls.ts';

/** Tapes and parts of tapes kept by name, and the tapes of long addresses. */
export function tapeRoutes({ workspace, engine }: Services): Router {
  const routes = Router();

  /** With its count now; a tape that names what is gone says so instead. */
  const view = async (row: SavedTapeRow): Promise<SavedTapeView> => {
    const tape = JSON.parse(row.body) as Tape;
    const { id, kind, name, count, saved_at } = row;
    const known = {
      id,
      kind,
      name,
      description: tape.description ?? null,
      tape,
      savedAt: saved_at,
      then: count,
    };
    try {
      const { tally, reads } = await engine.call(calls.tally, [tape]);
      return { ...known, now: tally, reads, trouble: null };
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      return { ...known, now: null, reads: '', trouble: error.message };
    }
  };
  const found = (id: string): SavedTapeRow => {
    const row = savedTapeById(workspace, id);
    if (!row)
      throw new HttpProblem(404, 'unknown-tape', `There is no saved tape "${id}".`, {
        field: 'id',
        value: id,
      });
    return row;
  };
  /** Counts a tape and writes it; `check` is asked just before, since much may have happened while it was counted. */
  const write = async ({ tape, kind, name }: SavedTapeBody, id?: string, check?: () => void) => {
    const whole = { ...tape, name };
    const { tally, universe } = await engine.call(calls.tally, [whole]);
    check?.();
    return writeSavedTape(workspace, { id, kind, name, body: JSON.stringify(whole), count: tally, universe });
  };

  routes.get('/tapes', async (_request, response) => {
    const tapes: SavedTapeView[] = [];
    for (const row of allSavedTapes(workspace)) tapes.push(await view(row));
    response.json({ tapes });
  });
  routes.get('/opening', (_request, response) => {
    const row = openingTape(workspace);
    response.json({ tape: row ? (JSON.parse(row.body) as Tape) : null });
  });
  routes.post('/tapes', async (request, response) => {
    response.status(201).json({ tape: await view(await write(body(SavedTapeBody, request))) });
  });
  routes.get('/tapes/:id', async (request, response) => {
    response.json({ tape: await view(found(request.params.id)) });
  });
  routes.put('/tapes/:id', async (request, response) => {
    const { id } = found(request.params.id);
    const wish = body(SavedTapeBody, request);
    const row = await write(wish, id, () => {
      const now = found(id);
      expectVersion(request, now.saved_at, `The tape “${now.name}”`, () => JSON.parse(now.body) as Tape);
    });
    response.json({ tape: await view(row) });
  });
  routes.delete('/tapes/:id', (request, response) => {
    removeSavedTape(workspace, found(request.params.id).id);
    response.status(204).end();
  });
  routes.post('/addresses', (request, response) => {
    response.status(201).json({ id: storeTape(workspace, body(TapeBody, request).tape) });
  });
  routes.get('/addresses/:id', (request, response) => {
    const tape = storedTape(workspace, request.params.id);
    if (tape === undefined)
      throw new HttpProblem(
        404,
        'unknown-tape',
        'The tape of this address is not stored in this workspace.',
        {
          field: 'id',
          value: request.params.id,
        },
      );
    response.json({ tape });
  });
  return routes;
}
