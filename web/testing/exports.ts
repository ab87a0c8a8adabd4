import type { ExportTemplateView, ExportView } from '../../contract/export-views.ts';
import type { DeliveryView, ProgramsAnswer } from '../../contract/program-views.ts';

/** Exports and what goes with them, for tests. */

export const exportView = (id: string, more: Partial<ExportView> = {}): ExportView => ({
  ...{ id, name: `Export ${id}`, subject: 'companies', format: 'csv', ending: 'csv', receiver: '' },
  ...{ template: null, person: '', repeats: null, again: 'changes', removedAt: null, picked: null },
  tape: { subject: 'companies', lines: [] },
  wording: [],
  columns: ['name', 'headcount', 'count:l1'],
  count: 10,
  roll: { steps: [{ step: 'chosen', label: 'All that pass', note: '', delta: 10, total: 10 }], foot: 10 },
  madeAt: '2026-11-01T08:30:00Z',
  bytes: 2048,
  job: null,
  ...more,
});

export const template = (
  name: string,
  file: Partial<ExportTemplateView['file']> = {},
  more: Partial<ExportTemplateView> = {},
): ExportTemplateView => ({
  ...{
    id: `t-${name}`,
    name,
    subject: 'companies',
    fileName: '',
    ready: false,
    changedAt: '2026-11-02T10:00:00Z',
  },
  file: {
    ...{ format: 'csv', columns: ['name', 'mail'], language: 'en', currency: 'EUR', delimiter: ',' },
    ...{ bom: false, quoteAll: false, decimalComma: false, lineEnd: 'crlf', paper: 'A4', beside: false },
    receiver: '',
    breakdown: false,
    areas: false,
    ...file,
  },
  ...more,
});

export const delivery = (id: string, more: Partial<DeliveryView> = {}): DeliveryView => ({
  ...{ id, to: 'Ours', kind: 'hook', export: 'e1', exportName: 'Posted', nth: 1, of: 1, rows: 5 },
  ...{ state: 'delivered', attempts: 1, dueAt: null, triedAt: '2026-11-29T10:00:00Z', answer: '202 taken' },
  ...more,
});

export const NO_PROGRAMS: ProgramsAnswer = {
  ...{ feeds: [], folders: [], hosts: [], hooks: [], deliveries: [] },
  standIn: { requests: 0, refused: 0, rows: 0, wrongSignatures: 0 },
};
