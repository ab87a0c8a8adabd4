import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type {
  BeforeExportAnswer,
  ExportStepAnswer,
  ExportTemplateView,
  HandedAnswer,
  ReceiverView,
  ExportView,
} from '../contract/export-views.ts';
import type { ErrorAnswer, WordedTally } from '../contract/responses.ts';
import { columnFields, SUBJECTS } from '../core/fields/registry.ts';
import { openHandover, openUniverse } from './db/open.ts';
import { canBeAsked } from '../core/fields/field.ts';
import { forgetHandover, readHandover } from './tables/handover/ledger.ts';
import { ExportDesk } from './testing/export-desk.ts';
import { tape } from './testing/test-server.ts';

/** Nobody is handed over twice, and what was handed over can be had again with what changed. */

const desk = new ExportDesk();
beforeAll(() => desk.open(), 60_000);
afterAll(() => desk.stop());

const SOME = [{ id: 'l1', field: 'place', test: { countries: ['CZ'] } }];
const before = async (wish: object) =>
  (await desk.api.post('/api/exports/before').send({ tape: tape([]), ...wish })).body as BeforeExportAnswer;
const tally = async (lines: object[], subject = 'companies') =>
  ((await desk.api.post('/api/tally').send({ tape: { ...tape(lines), subject } })).body as WordedTally).tally;
const rowsOf = (bytes: Buffer) =>
  bytes
    .toString('utf8')
    .trim()
    .split('\r\n')
    .map((line) => line.split(','));

test('what a receiver has had stays off when asked, and is a line, a column and a figure on the roll', async () => {
  await desk.exported({ tape: tape(SOME), receiver: 'Print Shop', columns: ['name'] });
  expect(await before({ handed: { receiver: 'print-shop' } })).toMatchObject({
    of: 4,
    goes: 2,
    roll: {
      foot: 2,
      steps: [
        { step: 'chosen', delta: 4 },
        { step: 'handed', label: 'Print Shop has them', note: 'at any time', delta: -2, total: 2 },
      ],
    },
  });
  expect(await before({ handed: {} })).toMatchObject({ goes: 2 });
  expect(await before({ handed: { days: 90 } })).toMatchObject({ goes: 2 });
  expect(await before({ handed: { receiver: 'nobody-yet' } })).toMatchObject({ goes: 4 });
  const line = { id: 'l1', field: 'handed-over', test: { any: ['print-shop'], seen: '90 days' } };
  expect(await tally([line])).toBe(2);
  expect(await tally([{ ...line, not: true }])).toBe(2);
  const { bytes } = await desk.exported({
    handed: { receiver: 'print-shop' },
    columns: ['name', 'handed-over'],
  });
  expect(bytes.toString('utf8')).not.toContain('Alderway');
  const column = await desk.exported({ tape: tape([line]), columns: ['handed-over'] });
  expect(rowsOf(column.bytes)).toEqual([['Handed over to'], ['Print Shop'], ['Print Shop']]);
  const { body } = (await desk.api
    .post('/api/rows')
    .send({ tape: tape([line]), columns: ['name'], limit: 1 })) as {
    body: { rows: { key: string }[] };
  };
  const { handed } = (await desk.api.get(`/api/handed/companies/${body.rows[0]!.key}`)).body as HandedAnswer;
  expect(handed.map(({ name }) => name)).toEqual(['Print Shop', 'not said']);
  expect(handed[0]!.day).toMatch(/^20\d\d-/);
  expect((await desk.api.get('/api/handed/companies/nobody')).body).toEqual({ handed: [] });
  const typed = await desk.api
    .post('/api/typed')
    .send({ text: 'handed to print shop past 90 days', stem: 'l', subject: 'companies' });
  expect(typed.body).toMatchObject({ lines: [{ field: 'handed-over', test: line.test }] });
});

test('each step opens its very records', async () => {
  const step = async (wish: object, name: string) =>
    (await desk.api.post('/api/exports/before/step').send({ tape: tape([]), ...wish, step: name }))
      .body as ExportStepAnswer;
  const wish = { handed: { receiver: 'print-shop' }, needs: ['phone'], format: 'geojson' };
  const { roll } = await before(wish);
  expect(roll.steps.map(({ step: name }) => name)).toEqual([
    'chosen',
    'handed',
    'lacking-phone',
    'unreachable',
  ]);
  expect(roll.steps.reduce((sum, { delta }) => sum + delta, 0)).toBe(roll.foot);
  for (const { step: name, delta } of roll.steps) {
    const opened = await step(wish, name);
    const lines = opened.tape!.lines;
    // A step that took nobody opens nobody.
    if (delta !== 0) expect(await tally([...lines])).toBe(Math.abs(delta));
  }
  expect(
    (await desk.api.post('/api/exports/before/step').send({ tape: tape([]), step: 'off-nothing' })).status,
  ).toBe(400);
});

test('a row lacks what is asked of it just where its cell is empty, over every field and subject', async () => {
  const db = openUniverse(desk.dir, { readonly: true });
  db.close();
  for (const [subject, { fields }] of SUBJECTS)
    for (const field of fields) {
      if (!canBeAsked(field)) continue;
      const all = { ...tape([]), subject };
      const { goes } = await before({ tape: all, needs: [field.id] });
      const { body } = (await desk.api
        .post('/api/rows')
        .send({ tape: all, columns: [field.id], limit: 1000 })) as {
        body: { rows: { cells: Record<string, unknown> }[] };
      };
      const filled = body.rows.filter(({ cells }) => {
        const cell = cells[field.id];
        return cell !== null && !(Array.isArray(cell) && cell.length === 0 && field.store.at === 'parties');
      });
      expect([subject, field.id, goes]).toEqual([subject, field.id, filled.length]);
    }
  const wrong = await desk.api.post('/api/exports/before').send({ tape: tape([]), needs: ['nothing'] });
  expect((wrong.body as ErrorAnswer).error).toMatchObject({ field: 'needs', value: 'nothing' });
});

test('an export made again says what is new, what changed and what is gone', async () => {
  const lines = [{ id: 'l1', field: 'headcount', test: { to: 130 }, unknown: 'keep' }];
  const first = await desk.exported({
    tape: tape(lines),
    receiver: 'Finance',
    columns: ['name', 'headcount', 'phone'],
  });
  expect(first.view).toMatchObject({ again: 'changes', count: 4, receiver: 'Finance' });
  await desk.loadAs('Newer', [
    'Company,Registration,Country,Headcount,Headcount basis,Phone,Last checked',
    '"Alderway ""Coat"" a.s.",1001,CZ,150,reported,+420 777 123 456,2026-11-01',
    '"Brackfold, s.r.o.",1002,CZ,20,reported,,2026-11-01',
    'Elder s.r.o.,1009,CZ,60,reported,,2026-11-01',
  ]);
  const again = async (rows: string) => {
    const answer = await desk.api.post(`/api/exports/${first.id}/again`).send({ rows });
    expect(answer.status).toBe(202);
    return desk.finished(answer.body as { export: string; job: { id: string } });
  };
  const all = await again('all');
  const since = first.view.madeAt.slice(0, 10);
  const changes = Object.fromEntries(
    desk.python(
      `import csv, json, sys\nprint(json.dumps([[r['Company'], r['Change since ${since}']] for r in csv.DictReader(open(sys.argv[1], encoding='utf-8'))]))`,
      all.path,
    ) as [string, string][],
  );
  expect(changes).toEqual({
    "'=Corbin GmbH": '',
    'Łódź Ångström 日本': '',
    'Alderway "Coat" a.s.': 'gone',
    'Elder s.r.o.': 'new',
    'Brackfold, s.r.o.': 'changed: Headcount, Headcount basis',
  });
  expect(all.view.repeats).toBe(first.id);
  expect(all.view.roll).toMatchObject({
    foot: 5,
    steps: [{ delta: 4 }, { label: 'Gone', delta: 1, total: 5 }],
  });
  const only = await again('changes');
  expect(only.view).toMatchObject({ count: 3, roll: { foot: 3 } });
  expect(only.view.roll!.steps.map(({ label, delta }) => [label, delta])).toEqual([
    ['All that pass', 4],
    ['The same', -2],
    ['Gone', 1],
  ]);
  const lines1 = { tape: tape(lines), columns: ['name', 'headcount'], format: 'jsonl', receiver: 'Finance' };
  const jsonl = await desk.exported(lines1);
  const repeated = await desk.api.post(`/api/exports/${jsonl.id}/again`).send({ rows: 'all' });
  const text = (
    await desk.finished(repeated.body as { export: string; job: { id: string } })
  ).bytes.toString();
  expect(text).not.toContain('"change":"');
  const cards = await desk.exported({
    tape: tape(lines),
    columns: ['name'],
    format: 'vcard',
    receiver: 'Cards',
  });
  const carded = await desk.api.post(`/api/exports/${cards.id}/again`).send({ rows: 'all' });
  expect((await desk.finished(carded.body as { export: string; job: { id: string } })).view.count).toBe(4);
  const plain = await again('plain');
  expect(rowsOf(plain.bytes)[0]).toEqual([
    ...['Company', 'Headcount', 'Headcount year', 'Headcount basis', 'Phone'],
  ]);
  // Two of what was handed over before are not new for it.
  expect((await before({ tape: tape(lines), handed: { receiver: 'finance' } })).goes).toBe(0);
});

test('a removed export comes back; one that never went out no longer counts', async () => {
  const { id } = await desk.exported({ tape: tape(SOME), receiver: 'Nobody Else', columns: ['name'] });
  const receivers = async () =>
    ((await desk.api.get('/api/receivers')).body as { receivers: ReceiverView[] }).receivers;
  expect((await receivers()).find(({ key }) => key === 'nobody-else')).toMatchObject({
    name: 'Nobody Else',
    exports: 1,
    records: 3,
  });
  expect((await desk.api.delete(`/api/exports/${id}`)).status).toBe(204);
  const view = async () => ((await desk.api.get(`/api/exports/${id}`)).body as { export: ExportView }).export;
  expect((await view()).removedAt).not.toBeNull();
  expect((await before({ tape: tape(SOME), handed: { receiver: 'nobody-else' } })).goes).toBe(0);
  expect((await desk.api.post(`/api/exports/${id}/restore`)).body).toMatchObject({
    export: { removedAt: null, again: 'changes' },
  });
  expect((await desk.api.get(`/api/exports/${id}/file`)).status).toBe(200);
  expect((await desk.api.delete(`/api/exports/${id}?forget=true`)).status).toBe(204);
  expect((await before({ tape: tape(SOME), handed: { receiver: 'nobody-else' } })).goes).toBe(3);
  expect((await receivers()).map(({ key }) => key)).not.toContain('nobody-else');
  expect((await view()).again).toBe('plain');
  expect((await desk.api.post(`/api/exports/${id}/again`).send({ rows: 'all' })).status).toBe(409);
});

test('forgetting one export of several keeps what the others handed over', async () => {
  const one = await desk.exported({ tape: tape(SOME), receiver: 'Twice', columns: ['name'] });
  await desk.exported({ receiver: 'twice ', columns: ['name'] });
  const db = openHandover(desk.dir);
  const handed = () => db.prepare(`SELECT count(*) FROM handed_over WHERE receiver = 'twice'`).pluck().get();
  expect(handed()).toBe(5);
  expect(readHandover(db, one.id)!.keys).toHaveLength(3);
  expect(forgetHandover(db, one.id)).toBe(true);
  expect(handed()).toBe(5);
  expect(forgetHandover(db, one.id)).toBe(false);
  db.close();
});

test('templates are saved, used, changed and removed; those that ship stay as they are', async () => {
  const templates = async () =>
    ((await desk.api.get('/api/export-templates')).body as { templates: ExportTemplateView[] }).templates;
  const ready = (await templates()).filter((one) => one.ready);
  for (const { subject, file, name } of ready) {
    const made = await desk.asked({ ...file, name, tape: { ...tape([]), subject }, sort: [] });
    expect([name, subject, made.status]).toEqual([name, subject, 202]);
    await desk.ended((made.body as { job: { id: string } }).job.id);
  }
  const file = {
    format: 'csv',
    columns: ['name', 'made:1'],
    computed: [{ id: 'made:1', heading: 'Where', way: 'join', of: ['street', 'place'] }],
    headings: { name: 'Account' },
  };
  const saved = await desk.api
    .post('/api/export-templates')
    .send({ name: 'Ours', subject: 'companies', fileName: 'Ours {date}', file });
  expect(saved.status).toBe(201);
  const { template } = saved.body as { template: ExportTemplateView };
  expect(template.file).toMatchObject({ ...file, language: 'en', delimiter: ',' });
  for (const name of ['ours', 'Finance'])
    expect(
      (await desk.api.post('/api/export-templates').send({ name, subject: 'companies', file })).body,
    ).toMatchObject({ error: { code: 'name-taken', field: 'name' } });
  const wrong = { ...file, columns: ['name', 'nothing'] };
  expect(
    (
      await desk.api
        .put(`/api/export-templates/${template.id}`)
        .send({ name: 'Ours', subject: 'companies', file: wrong })
    ).body,
  ).toMatchObject({ error: { field: 'columns', value: 'nothing' } });
  expect((await desk.api.delete(`/api/export-templates/${template.id}`)).status).toBe(204);
  expect((await desk.api.delete('/api/export-templates/ready-finance')).status).toBe(404);
  expect((await templates()).length).toBe(ready.length);
  const dated = await desk.exported({ ...file, name: 'Ours {date}', beside: false });
  expect(dated.path).toMatch(/Ours \d{4}-\d\d-\d\d\.csv$/);
  expect(rowsOf(dated.bytes)[0]).toEqual(['Account', 'Where']);
});

test('wrong wishes are refused by field', async () => {
  const wrong = async (wish: object) => ((await desk.asked(wish)).body as ErrorAnswer).error;
  expect(await wrong({ format: 'doc' })).toMatchObject({ field: 'format' });
  expect(
    await wrong({ format: 'geojson', tape: { ...tape([]), subject: 'deals' }, columns: ['name'], sort: [] }),
  ).toMatchObject({ code: 'wrong-format' });
  expect(await wrong({ columns: ['made:7'] })).toMatchObject({ code: 'unknown-column', value: 'made:7' });
  expect(await wrong({ sample: { size: 0 } })).toMatchObject({ field: 'sample.size' });
  expect(await wrong({ split: { by: 'Country', field: 'place', rows: 5 } })).toMatchObject({
    field: 'split',
  });
  expect(columnFields('companies').some(({ id }) => id === 'handed-over')).toBe(true);
});

test('a sample is the same for the same seed, and the roll says what was not drawn', async () => {
  const draw = async (seed: number) =>
    (await desk.exported({ sample: { size: 2, seed }, columns: ['name'] })).bytes.toString('utf8');
  expect(await draw(7)).toBe(await draw(7));
  expect((await before({ sample: { size: 2, seed: 7 } })).roll).toMatchObject({
    foot: 2,
    steps: [{ delta: 5 }, { step: 'not-drawn', delta: -3 }],
  });
});
