import { Router } from 'express';
import multer from 'multer';
import { rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { AgainBody, BeforeExportBody, ExportBody, ExportStepBody } from '../../contract/exports.ts';
import type {
  BeforeExportAnswer,
  ExportStepAnswer,
  ExportView,
  HandedAnswer,
  ReceiverView,
} from '../../contract/export-views.ts';
import { isoOf } from '../../core/dates.ts';
import { fileName } from '../../core/exports/names.ts';
import { formatOf } from '../../core/exports/formats.ts';
import { exportRoll } from '../../core/exports/roll.ts';
import type { Roll } from '../../core/lists/roll.ts';
import { tapeNaming } from '../../core/tape/naming.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { calls } from '../engine/calls.ts';
import { exportAgain } from '../exports/again.ts';
import { goingWishOf, picksOf, startExport } from '../exports/make-export.ts';
import { tapeOfFile } from '../exports/tape-of-file.ts';
import { body, HttpProblem } from '../http/check.ts';
import { sendFile } from '../http/send-file.ts';
import { oneFile } from '../http/upload.ts';
import type { Services } from '../services.ts';
import { allExports, exportById, setExportRemoved, storedName, type ExportRow } from '../tables/exports.ts';
import {
  allReceivers,
  forgetHandover,
  handedOf,
  handedExports,
  receiverFigures,
} from '../tables/handover/ledger.ts';

/** What was handed over: made, listed, made again, removed and brought back. */
export function exportRoutes(services: Services): Router {
  const { dir, workspace, engine, jobs, handover } = services;
  const routes = Router();
  const fileOf = (row: ExportRow) => join(dir, 'exports', storedName(row));
  const view = (row: ExportRow, handed: ReadonlySet<string>): ExportView => ({
    ...{ id: row.id, name: row.name, subject: row.subject, format: row.format },
    ending: row.ending ?? formatOf(row.format).ending,
    ...{ receiver: row.receiver, template: row.template, person: row.person, repeats: row.repeats },
    tape: JSON.parse(row.tape) as unknown,
    wording: JSON.parse(row.wording) as string[],
    columns: JSON.parse(row.columns) as string[],
    picked: row.picked,
    count: row.count,
    roll: row.roll === null ? null : (JSON.parse(row.roll) as Roll),
    again: row.wish === null ? 'no' : handed.has(row.id) ? 'changes' : 'plain',
    madeAt: row.made_at,
    removedAt: row.removed_at,
    bytes: statSync(fileOf(row), { throwIfNoEntry: false })?.size ?? null,
    job: jobs.get(row.job_id) ?? null,
  });
  const found = (id: string): ExportRow => {
    const row = exportById(workspace, id);
    if (!row)
      throw new HttpProblem(404, 'unknown-export', `There is no export "${id}".`, { field: 'id', value: id });
    return row;
  };
  const viewOne = (row: ExportRow) => view(row, new Set(handedExports(handover)));

  routes.get('/exports', (_request, response) => {
    const handed = new Set(handedExports(handover));
    response.json({ exports: allExports(workspace).map((row) => view(row, handed)) });
  });

  routes.post('/exports/before', async (request, response) => {
    const wish = body(BeforeExportBody, request);
    const { ids, figures } = await engine.call(calls.goingOut, [
      wish.tape,
      wish.sort,
      picksOf(wish),
      goingWishOf(wish, wish.along ?? []),
    ]);
    const { of, off } = figures;
    response.json({
      ...{ of, goes: ids.length, off: [...off] },
      roll: exportRoll(figures),
    } satisfies BeforeExportAnswer);
  });

  routes.post('/exports/before/step', async (request, response) => {
    const wish = body(ExportStepBody, request);
    const tape = wish.tape as Tape;
    const answer = (found: ExportStepAnswer) => response.json(found);
    if (wish.step === 'chosen' && Object.keys(picksOf(wish)).length === 0) return answer({ tape, why: null });
    if (tape.subject !== 'companies') return answer(tapeNaming(tape.subject, null));
    const keys = await engine.call(calls.stayingOff, [
      tape,
      wish.sort,
      picksOf(wish),
      goingWishOf(wish, wish.along ?? []),
      wish.step,
    ]);
    answer(tapeNaming(tape.subject, keys));
  });

  routes.post('/exports', async (request, response) => {
    response.status(202).json(await startExport(services, body(ExportBody, request)));
  });

  routes.get('/exports/:id', (request, response) => {
    response.json({ export: viewOne(found(request.params.id)) });
  });

  routes.post('/exports/:id/again', async (request, response) => {
    const row = found(request.params.id);
    const { rows } = body(AgainBody, request);
    response.status(202).json(await exportAgain(services, row, rows));
  });

  routes.get('/exports/:id/file', async (request, response) => {
    const row = found(request.params.id);
    if (row.removed_at !== null)
      throw new HttpProblem(
        404,
        'removed-export',
        `“${row.name}” was removed. Bring it back under Exports to have its file.`,
        { field: 'id', value: row.id },
      );
    const day = row.made_at.slice(0, 10);
    const { ending, mediaType } = formatOf(row.format);
    response.attachment(`${fileName(row.name, day)}.${row.ending ?? ending}`);
    response.type(row.ending === 'zip' ? 'application/zip' : mediaType);
    await sendFile(
      response,
      fileOf(row),
      new HttpProblem(
        409,
        'not-written',
        'The file of this export is not written: its job is running, or it failed, was cancelled or is removed.',
        { field: 'id', value: row.id },
      ),
    );
  });

  routes.delete('/exports/:id', (request, response) => {
    const row = found(request.params.id);
    jobs.cancel(row.job_id);
    if (request.query.forget === 'true') forgetHandover(handover, row.id);
    setExportRemoved(workspace, row.id, new Date().toISOString());
    response.status(204).end();
  });

  routes.post('/exports/:id/restore', (request, response) => {
    const row = found(request.params.id);
    setExportRemoved(workspace, row.id, null);
    response.json({ export: viewOne(found(row.id)) });
  });

  routes.get('/handed/:subject/:key', (request, response) => {
    const { subject, key } = request.params;
    response.json({
      handed: handedOf(handover, subject, key).map(({ day, ...one }) => ({ ...one, day: isoOf(day) })),
    } satisfies HandedAnswer);
  });

  routes.get('/receivers', (_request, response) => {
    const figures = receiverFigures(handover);
    response.json({
      receivers: allReceivers(handover).map(({ key, name }): ReceiverView => {
        const { exports, last, records } = figures.get(key) ?? { exports: 0, last: 0, records: 0 };
        return { key, name, exports, last: isoOf(last), records };
      }),
    });
  });

  const upload = multer({
    dest: tmpdir(),
    limits: { fileSize: services.uploadLimit * 2 ** 20, files: 1 },
  });
  routes.post('/tape-files', oneFile(upload), async (request, response) => {
    const path = request.file?.path;
    if (path === undefined)
      throw new HttpProblem(400, 'wrong-upload', 'There is no file in the form.', {
        field: 'file',
        rule: 'a form (multipart/form-data) with one file',
      });
    try {
      const tape = await tapeOfFile(path);
      await engine.call(calls.wordsOf, [tape]);
      response.json({ tape });
    } finally {
      rmSync(path, { force: true });
    }
  });
  return routes;
}
