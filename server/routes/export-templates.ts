import { Router } from 'express';
import { ExportTemplateBody } from '../../contract/exports.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import { Problem } from '../../core/tape/problem.ts';
import { checkFile } from '../exports/make-export.ts';
import { READY_TEMPLATES } from '../exports/ready-templates.ts';
import { body, HttpProblem } from '../http/check.ts';
import type { Services } from '../services.ts';
import { removeExportTemplate, savedTemplates, writeExportTemplate } from '../tables/handover/templates.ts';

/** Templates of exports: those that ship with the program, and one's own. */
export function exportTemplateRoutes({ handover }: Services): Router {
  const routes = Router();
  const found = (id: string) => {
    if (!savedTemplates(handover).some((one) => one.id === id))
      throw new HttpProblem(404, 'unknown-template', `There is no template "${id}" of your own.`, {
        field: 'id',
        value: id,
      });
    return id;
  };
  const write = (wish: ExportTemplateBody, id?: string) => {
    if (!SUBJECTS.has(wish.subject))
      throw new Problem('unknown-subject', `There is no subject "${wish.subject}".`, {
        field: 'subject',
        value: wish.subject,
        rule: `one of ${[...SUBJECTS.keys()].join(', ')}`,
      });
    checkFile(wish.file, wish.subject);
    const ready = READY_TEMPLATES.filter(({ subject }) => subject === wish.subject);
    return writeExportTemplate(handover, wish, new Set(ready.map(({ name }) => name.toLowerCase())), id);
  };

  routes.get('/export-templates', (_request, response) => {
    response.json({ templates: [...READY_TEMPLATES, ...savedTemplates(handover)] });
  });
  routes.post('/export-templates', (request, response) => {
    response.status(201).json({ template: write(body(ExportTemplateBody, request)) });
  });
  routes.put('/export-templates/:id', (request, response) => {
    const id = found(request.params.id);
    response.json({ template: write(body(ExportTemplateBody, request), id) });
  });
  routes.delete('/export-templates/:id', (request, response) => {
    removeExportTemplate(handover, found(request.params.id));
    response.status(204).end();
  });
  return routes;
}
