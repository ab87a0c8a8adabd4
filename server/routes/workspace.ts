import { Router } from 'express';
import { SettingsBody } from '../../contract/settings.ts';
import { dayOf } from '../../core/dates.ts';
import { Problem } from '../../core/tape/problem.ts';
import { body } from '../http/check.ts';
import { asOfDay } from '../days.ts';
import type { Services } from '../services.ts';
import { readSettings, writeSettings } from '../tables/workspace.ts';

/** The settings of the workspace. */
export function workspaceRoutes(services: Services): Router {
  const { workspace, engine } = services;
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
  return routes;
}
