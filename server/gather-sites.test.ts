import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { DeliveredAnswer, GathererAnswer, PagesAnswer } from '../contract/gather-views.ts';
import type { ListView } from '../contract/lists.ts';
import type { UploadAnswer } from '../contract/responses.ts';
import { StandInFirms } from './gather/stand-in/firms.ts';
import { openUniverse } from './db/open.ts';
import { GatherDesk } from './testing/gather-desk.ts';

/** Sites of companies, and pages whose build changes, through the API. */

const desk = new GatherDesk();
const FIRMS = 40;

beforeAll(async () => {
  await desk.open();
  const offers = ['quote-form', 'shop; price-list', 'visit-booking', 'sample-request', ''];
  const rows = Array.from(
    { length: FIRMS },
    (_, i) =>
      `Firm ${i} s.r.o.,${i + 1000},CZ,Brno,Cejl ${i + 1},602 00,${i % 8 === 7 ? '' : `firm-${i}.example`},office@firm-${i}.example,+420 000 000 ${100 + i},${offers[i % 5]}`,
  );
  const header = 'name,registration number,country,town,street,postcode,web,mail,phone,website offers';
  const preview = (await desk.upload('firms.csv', Buffer.from(`${header}\n${rows.join('\n')}\n`)))
    .body as UploadAnswer;
  await desk.load(preview);
});
afterAll(() => desk.stop());

test('each company’s own site is read, with what it offers and where that was seen; those without one are listed', async () => {
  const tape = { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] };
  const list = (
    (await desk.api.post('/api/lists').send({ name: 'All', subject: 'companies' })).body as { list: ListView }
  ).list;
  await desk.api.post(`/api/lists/${list.key}/members`).send({ tape });
  const made = await desk.made('Sites', { sites: { list: list.key } });
  const run = await desk.until((await desk.run(made.id)).id, 'done');
  const { rows } = await desk.rows(run.id);
  const without = FIRMS / 8;
  expect(run.roll).toMatchObject({ foot: FIRMS - without });
  expect(run.roll.steps.map(({ step, delta }) => [step, delta])).toEqual([
    ['found', FIRMS],
    ['refused', -without],
  ]);
  expect(
    (await desk.rows(run.id, 'refused')).rows.every(({ reason }) => reason === 'without a website'),
  ).toBe(true);
  const silent = rows.filter(({ values }) => values['site-answers'] === 'no');
  expect(silent.length).toBeGreaterThan(0);
  const universe = openUniverse(desk.dir, { readonly: true });
  const firms = new StandInFirms(universe, 1);
  for (const { values } of rows) {
    const firm = firms.at(values.web!)!;
    expect(values.name).toBe(firm.name);
    expect(values['site-checked']).toBe(new Date().toISOString().slice(0, 10));
    if (values['site-answers'] === 'no') continue;
    // What the pages say is what is true of the firm.
    expect((values.offers ?? '').split('; ').filter(Boolean).sort()).toEqual([...firm.offers].sort());
    expect(values).toMatchObject({ mail: firm.mail, phone: firm.phone, registration: firm.registration });
    for (const offer of firm.offers) expect(values['own:Seen on']).toContain(`${offer}: /`);
  }
  universe.close();

  const delivered = (
    await desk.api.post(`/api/gather/runs/${run.id}/deliver`).send({ to: 'source', name: 'Their sites' })
  ).body as DeliveredAnswer;
  expect((await desk.ended(delivered.job!)).job.state).toBe('done');
  // They join the companies that are there: by their number or their domain.
  expect((await desk.api.get('/api/health')).body).toMatchObject({ universe: FIRMS });
  const shops = { id: 'l1', field: 'offers', test: { any: ['quote-form'] } };
  const { tally } = (await desk.api.post('/api/tally').send({ tape: { ...tape, lines: [shops] } })).body as {
    tally: number;
  };
  expect(tally).toBeGreaterThanOrEqual(
    rows.filter(({ values }) => values.offers?.includes('quote-form')).length,
  );
});

test('a list that is not there is refused by name', async () => {
  const made = await desk.made('None', { sites: { list: 'none' } });
  expect((await desk.api.post(`/api/gather/gatherers/${made.id}/runs`)).body).toMatchObject({
    error: { code: 'unknown-list', field: 'spec.sites.list' },
  });
});

const pageOf = (build: 'old' | 'new', from: number) =>
  `<ul>${Array.from({ length: 6 }, (_, i) =>
    build === 'old'
      ? `<li class="firm"><b>Firm ${from + i}</b><i class="tel">+420 000 000 ${100 + from + i}</i></li>`
      : `<li class="firm"><b>Firm ${from + i}</b><i class="call">Call: +420 000 000 ${100 + from + i}</i></li>`,
  ).join('')}</ul>`;

test('a change of the pages’ build is noticed and asks; after one more example the pages that are kept are read again', async () => {
  const made = await desk.made('Changing', {});
  let pages: PagesAnswer['pages'] = [];
  for (let n = 0; n < 9; n++) {
    const html = pageOf(n < 5 ? 'old' : 'new', 6 * n);
    pages = [...pages, ...(await desk.saved(made.id, `page-${n}.html`, html))];
  }
  const exampleOn = async (page: number) => {
    const around = await desk.around(page, await desk.node(page, 'b'));
    return { page, node: around.choices[around.best]!.node, as: 'row' as const, fields: around.fields };
  };
  const first = await exampleOn(pages[0]!.id);
  const save = (examples: unknown[]) =>
    desk.api
      .put(`/api/gather/gatherers/${made.id}`)
      .send({ name: 'Changing', spec: { ...made.spec, examples } });
  await save([first]);
  const { id } = await desk.run(made.id);
  const asks = await desk.until(id, 'asks', 'done');
  expect(asks.state).toBe('asks');
  expect(asks.why).toMatch(/^phone empty since page 6\./);
  // As it is: the rest comes without phones.
  await save([first, await exampleOn(pages[8]!.id)]);
  await desk.act(id, 'read-again');
  const done = await desk.until(id, 'done', 'asks');
  expect(done).toMatchObject({ state: 'done', pagesRead: 9 });
  const { rows } = await desk.rows(id);
  expect(rows).toHaveLength(54);
  expect(rows.map(({ values }) => values.phone)).toEqual(
    Array.from({ length: 54 }, (_, i) => `+420 000 000 ${100 + i}`),
  );
  const { runs } = (await desk.api.get(`/api/gather/gatherers/${made.id}`)).body as GathererAnswer;
  expect(runs).toMatchObject([{ nth: 1, state: 'done', records: 54 }]);
});

test('a change may be taken as it is', async () => {
  const made = await desk.made('As it is', {});
  let first: number | null = null;
  for (let n = 0; n < 9; n++) {
    const html = pageOf(n < 5 ? 'old' : 'new', 6 * n);
    const pages = await desk.saved(made.id, `page-${n}.html`, html);
    first ??= pages[0]!.id;
  }
  const around = await desk.around(first!, await desk.node(first!, 'b'));
  const example = { page: first, node: around.choices[around.best]!.node, as: 'row', fields: around.fields };
  await desk.api
    .put(`/api/gather/gatherers/${made.id}`)
    .send({ name: 'As it is', spec: { ...made.spec, examples: [example] } });
  const { id } = await desk.run(made.id);
  await desk.until(id, 'asks');
  await desk.act(id, 'go-on');
  expect(await desk.until(id, 'done', 'asks')).toMatchObject({ state: 'done', roll: { foot: 54 } });
});
