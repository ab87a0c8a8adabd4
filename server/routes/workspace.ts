import { Router } from 'express';
import { nanoid } from 'nanoid';
import { rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { BeforeExportAnswer } from '../../contract/lists.ts';
import { BeforeExportBody, ExportBody } from '../../contract/row-requests.ts';
import { SettingsBody } from '../../contract/settings.ts';
import { dayOf, isoOf } from '../../core/dates.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import { body, HttpProblem } from '../http/check.ts';
import { sendFile } from '../http/send-file.ts';
import { asOfDay } from '../days.ts';
import type { Picks } from '../engine/subject-engine.ts';
import type { Services } from '../services.ts';
import { accuracyOfCheck, checksOf } from '../tables/lists/checks.ts';
import { viewSources } from '../tables/source.ts';
import {
  addExport,
  allExports,
  exportById,
  readSettings,
  setExportCount,
  writeSettings,
  type ExportRow,
} from '../tables/workspace.ts';
import { calls } from '../engine/calls.ts';

/** What belongs to the user: settings and exports. */
export function workspaceRoutes(services: Services): Router {
  const { dir, workspace, universe, engine, jobs, listsDb } = services;
  const routes = Router();

  routes.get('/settings', (_request, response) => {
    response.json(readSettings(workspace));
  });
  const putSettings = (settings: SettingsBody) => {
    if (settings.asOf !== null && dayOf(settings.asOf) === null)
      throw new Problem('wrong-value', `asOf is no calendar date: ${settings.asOf}.`, {
        field: 'asOf',
        value: settings.asOf,
        rule: 'a date such as 2026-09-30, or none for today',
      });
    const before = asOfDay(readSettings(workspace));
    writeSettings(workspace, settings);
    if (asOfDay(settings) !== before) engine.settingsChanged();
    return settings;
  };
  routes.put('/settings', (request, response) => {
    response.json(putSettings(body(SettingsBody, request)));
  });
  // By field, so that two windows that change different ones keep both.
  routes.patch('/settings', (request, response) => {
    const wished = request.body as unknown;
    const checked = body(SettingsBody, request);
    const changed = Object.keys(wished as object) as (keyof SettingsBody)[];
    const part = Object.fromEntries(changed.map((key) => [key, checked[key]]));
    response.json(putSettings(Object.assign(readSettings(workspace), part)));
  });

  /** What the last spot check of a tape said, in words; null where none was judged. */
  const lastCheck = (tape: Tape): string | null => {
    const check = checksOf(listsDb, tape).find(({ fit, misses }) => fit + misses > 0);
    if (!check) return null;
    const { share, low, high } = accuracyOfCheck(listsDb, check.id)!;
    const percent = (part: number) => Math.round(100 * part);
    return `${check.fit} of ${check.fit + check.misses} judged fit, of ${check.size} drawn on ${check.drawnAt.slice(0, 10)} with seed ${check.seed}: ${percent(share)} %, ${percent(low)} to ${percent(high)} % 19 times in 20`;
  };
  const fileOf = (row: ExportRow) => join(dir, 'exports', `${row.id}.${row.format}`);
  const view = (row: ExportRow) => ({
    id: row.id,
    name: row.name,
    format: row.format,
    tape: JSON.parse(row.tape) as unknown,
    wording: JSON.parse(row.wording) as string[],
    columns: JSON.parse(row.columns) as string[],
    picked: row.picked,
    count: row.count,
    madeAt: row.made_at,
    bytes: statSync(fileOf(row), { throwIfNoEntry: false })?.size ?? null,
    job: jobs.get(row.job_id) ?? null,
  });

  routes.get('/exports', (_request, response) => {
    response.json({ exports: allExports(workspace).map(view) });
  });

  routes.post('/exports/before', async (request, response) => {
    const wish = body(BeforeExportBody, request);
    const { ids, of, off } = await engine.call(calls.goingOut, [
      wish.tape,
      wish.sort,
      picksOf(wish),
      wish.along ?? [],
    ]);
    response.json({ of, goes: ids.length, off } satisfies BeforeExportAnswer);
  });

  routes.post('/exports', async (request, response) => {
    const wish = body(ExportBody, request);
    const { subject, headings } = await engine.call(calls.exportHeadings, [wish.tape, wish.columns]);
    const along = wish.along ?? [];
    const [{ ids, of, off }, wording, tally] = await Promise.all([
      engine.call(calls.goingOut, [wish.tape, wish.sort, picksOf(wish), along.map(({ list }) => list)]),
      engine.call(calls.wordsOf, [wish.tape]),
      engine.call(calls.tally, [wish.tape]),
    ]);
    const id = nanoid(12);
    const madeAt = new Date().toISOString();
    const picked = Object.keys(picksOf(wish)).length ? of : null;
    const row: ExportRow = {
      id,
      job_id: '',
      name: wish.name,
      format: wish.format,
      tape: JSON.stringify(wish.tape),
      wording: JSON.stringify(wording),
      columns: JSON.stringify(wish.columns),
      picked,
      count: null,
      made_at: madeAt,
    };
    const job = jobs.start(
      'export',
      `Export ${wish.name}`,
      'server/exports/worker',
      {
        dir,
        path: fileOf(row),
        format: wish.format,
        subject,
        fields: wish.columns,
        own: await engine.call(calls.ownColumns, [wish.tape, ids, wish.columns]),
        headings,
        ids,
        delimiter: wish.delimiter,
        bom: wish.bom,
        currency: wish.currency,
        how: {
          name: wish.name,
          many: capital(subjectOf(subject).many),
          madeAt,
          asOf: isoOf(asOfDay(readSettings(workspace))),
          count: ids.length,
          universe: tally.universe,
          picked,
          off: off.map(({ list, name, count, along: gone }) => ({
            name,
            count,
            reason: gone ? along.find((one) => one.list === list)!.reason : null,
          })),
          check: lastCheck(wish.tape as Tape),
          wording,
          tape: row.tape,
          sources: viewSources(universe),
        },
      },
      (result) => setExportCount(workspace, id, result.count as number),
    );
    addExport(workspace, { ...row, job_id: job.id });
    response.status(202).json({ export: id, job });
  });

  const found = (id: string): ExportRow => {
    const row = exportById(workspace, id);
    if (!row)
      throw new HttpProblem(404, 'unknown-export', `There is no export "${id}".`, { field: 'id', value: id });
    return row;
  };
  routes.get('/exports/:id', (request, response) => {
    response.json({ export: view(found(request.params.id)) });
  });
  routes.get('/exports/:id/file', async (request, response) => {
    const row = found(request.params.id);
    response.attachment(`${row.name.replace(/[^\p{L}\p{N} ._-]+/gu, ' ').trim() || 'export'}.${row.format}`);
    response.type(
      row.format === 'csv'
        ? 'text/csv; charset=utf-8'
        : 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    );
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
    rmSync(fileOf(row), { force: true });
    workspace.prepare('DELETE FROM export WHERE id = ?').run(row.id);
    response.status(204).end();
  });
  return routes;
}

/** What of an export's wish says which records are picked. */
function picksOf({ keys, ranges, except }: BeforeExportBody | ExportBody): Picks {
  return { ...(keys ? { keys } : {}), ...(ranges ? { ranges } : {}), ...(except?.length ? { except } : {}) };
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
