import { FileWishBody } from '../../contract/exports.ts';
import type { ExportTemplateView } from '../../contract/export-views.ts';

/** Templates that ship with the program. */

function ready(
  id: string,
  name: string,
  subject: string,
  file: Partial<FileWishBody> & Pick<FileWishBody, 'columns' | 'format'>,
): ExportTemplateView {
  return {
    ...{ id: `ready-${id}`, name, subject, fileName: '', ready: true, changedAt: null },
    file: Object.assign(new FileWishBody(), file),
  };
}

export const READY_TEMPLATES: readonly ExportTemplateView[] = [
  ready('mailing', 'Names and addresses', 'companies', {
    format: 'merge',
    columns: ['name', 'street', 'postcode', 'place'],
    bom: true,
  }),
  ready('outreach', 'Outreach', 'companies', {
    format: 'xlsx',
    columns: ['name', 'web', 'mail', 'phone', 'place', 'industry', 'management-head', 'management-head-mail'],
    needs: ['mail'],
  }),
  ready('finance', 'Finance', 'companies', {
    format: 'xlsx',
    columns: [
      'name',
      'registration',
      'place',
      'revenue',
      'profit',
      'assets',
      'headcount',
      'made:1',
      'growth',
      'founded',
    ],
    computed: [{ id: 'made:1', heading: 'Profit margin', way: 'percent', of: ['profit', 'revenue'] }],
  }),
  ready('rivals', 'Rivals', 'companies', {
    format: 'xlsx',
    columns: [
      'name',
      'industry',
      'place',
      'headcount',
      'revenue',
      'growth',
      'technology',
      'management-head',
      'web',
    ],
  }),
  ready('elsewhere', 'For another system', 'companies', {
    format: 'csv',
    columns: [
      'name',
      'registration',
      'web',
      'mail',
      'phone',
      'street',
      'postcode',
      'place',
      'industry',
      'headcount',
      'revenue',
    ],
    beside: false,
  }),
  ready('people-outreach', 'Outreach', 'people', {
    format: 'csv',
    columns: ['name', 'mail', 'company'],
    needs: ['mail'],
    beside: false,
  }),
  ready('people-mailing', 'Names and addresses', 'people', {
    format: 'merge',
    columns: ['name', 'title', 'company'],
    bom: true,
  }),
  ready('sites-mailing', 'Names and addresses', 'sites', {
    format: 'xlsx',
    columns: ['name', 'company', 'street', 'postcode', 'place', 'phone'],
  }),
  ready('deals', 'Deals', 'deals', {
    format: 'xlsx',
    columns: [
      'name',
      'kind',
      'date',
      'amount',
      'target',
      'buyer',
      'investors',
      'sell-advisers',
      'buy-advisers',
    ],
  }),
];
