import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type {
  DeliveredAnswer,
  GatherAnswer,
  GatherRunAnswer,
  PagesAnswer,
} from '../contract/gather-views.ts';
import type { ListView } from '../contract/lists.ts';
import { GatherDesk } from './testing/gather-desk.ts';
import { until } from './testing/until.ts';

/** Gatherers through the API, over the stand-in web of an empty universe: sixty made-up firms in one town. */

const desk = new GatherDesk();
beforeAll(() => desk.open({ failing: 5 }));
afterAll(() => desk.stop());

const WORDS = { words: ['joinery', 'stairs, windows'], places: ['Brno'] };

test('a directory is searched for each word at each place, and every record knows which found it', async () => {
  const { id } = await desk.taught('Guide', WORDS);
  const run = await desk.until((await desk.run(id)).id, 'done');
  const { rows, total } = await desk.rows(run.id);
  // All sixty are joineries with stairs: one set, found by both words.
  expect(total).toBe(60);
  expect(run.roll.foot).toBe(60);
  expect(run.roll.steps.map(({ step, delta }) => [step, delta])).toEqual([
    ['found', 120 + (await desk.rows(run.id, 'adverts')).total],
    ['adverts', -(await desk.rows(run.id, 'adverts')).total],
    ['twice', -60],
    ['refused', 0],
  ]);
  expect((await desk.rows(run.id, 'twice')).total).toBe(60);
  expect(run.searches.map(({ records }) => records)).toEqual([60, 60]);
  expect(new Set(rows.flatMap(({ tags }) => tags))).toEqual(
    new Set(['joinery / Brno', 'stairs, windows / Brno']),
  );
  for (const { values, page } of rows) {
    expect(values.name).toBeTruthy();
    expect(values.postcode).toBe('602 00');
    expect(values.page).toMatch(/^http:\/\/workshop-guide\.example\/(?:members\/)?firm\/\d+$/);
    expect(page).toContain('workshop-guide.example');
  }
  // Some pages failed at first; none is missing, and none is read twice.
  expect(run.pagesFailed).toBe(0);
  expect(run.pagesRead).toBe(8);
});

test('pages of single companies are opened, and robots.txt is kept', async () => {
  const made = await desk.taught('With pages', { words: ['joinery'], places: ['Brno'] });
  const page = await desk.page(made.id, { address: 'http://workshop-guide.example/firm/0' });
  const { guess } = await desk.look(page.id, made.spec);
  expect(guess.map(({ field }) => field)).toEqual(
    expect.arrayContaining(['street', 'phone', 'mail', 'web', 'headcount', 'founded']),
  );
  await desk.api
    .put(`/api/gather/gatherers/${made.id}`)
    .send({ name: 'With pages', spec: { ...made.spec, detail: { page: page.id, fields: guess } } });
  const run = await desk.until((await desk.run(made.id)).id, 'done');
  const { rows } = await desk.rows(run.id);
  const open = rows.filter(({ values }) => !values.page!.includes('/members/'));
  expect(open.length).toBeGreaterThan(40);
  for (const { values } of open) expect(values).toMatchObject({ mail: expect.stringContaining('@') });
  const closed = await desk.rows(run.id, 'not-allowed');
  expect(closed.total).toBe(rows.length - open.length);
  expect(closed.total).toBeGreaterThan(0);
  for (const { page: url, reason } of closed.rows) {
    expect(url).toContain('/members/');
    expect(reason).toContain('robots.txt');
  }
  expect(
    rows.filter(({ values }) => values.page!.includes('/members/')).every(({ values }) => !values.mail),
  ).toBe(true);
});

test.each([
  ['with a button', 'button'],
  ['as one scrolls', 'scroll'],
])('results that come %s are followed to their end', async (option) => {
  const made = await desk.taught(`Guide ${option}`, { words: ['joinery'], places: ['Brno'] });
  const steps = [...made.spec.steps];
  steps.splice(2, 0, { do: 'choose', in: 'Results', option });
  const spec = { ...made.spec, steps };
  await desk.api.put(`/api/gather/gatherers/${made.id}`).send({ name: made.name, spec });
  if (option === 'as one scrolls') {
    const page = await desk.page(made.id, { word: 'joinery', place: 'Brno' });
    const node = await desk.node(page.id, 'div.on-scroll');
    const next = { how: 'pointed', page: page.id, node };
    await desk.api.put(`/api/gather/gatherers/${made.id}`).send({ name: made.name, spec: { ...spec, next } });
  }
  const run = await desk.until((await desk.run(made.id)).id, 'done');
  expect(run.roll.foot).toBe(60);
  expect(run.pagesRead).toBe(4);
});

test('another directory posts its form, and has name and address in one cell', async () => {
  const made = await desk.made('Register', {
    start: 'http://trades-register.example/',
    steps: [
      { do: 'type', into: 'Trade or name', text: '{word}' },
      { do: 'press', button: 'Look up' },
    ],
    words: ['joinery'],
  });
  const page = await desk.page(made.id, { word: 'joinery', place: '' });
  const cell = await desk.node(page.id, 'td', 1);
  const around = await desk.around(page.id, cell);
  const fields = [
    { field: 'name', node: cell },
    ...['street', 'postcode', 'town'].map((field) => ({ field, node: cell + 3 })),
  ];
  const example = { page: page.id, node: around.choices[around.best]!.node, as: 'row' as const, fields };
  const look = await desk.look(page.id, { ...made.spec, examples: [example] });
  expect(look.rows).toHaveLength(25);
  expect(look.lacking).toBe(0);
  expect(look.rows[3]!.values.map(({ field }) => field)).toEqual(['name', 'street', 'postcode', 'town']);
  expect(look.rows[3]!.values[2]!.value).toBe('602 00');
  // A page's number is followed; what it leads to is asked for by its address.
  const next = { how: 'pointed' as const, page: page.id, node: await desk.node(page.id, 'a') };
  const onward = await desk.look(page.id, { ...made.spec, examples: [example], next });
  expect(onward.next).toBe('http://trades-register.example/entries?t=joinery&o=&p=2');
});

test('another program begins a run with words of its own', async () => {
  const { id } = await desk.taught('By another', { words: ['joinery'], places: ['Brno'] });
  const runs = `/api/gather/gatherers/${id}/runs`;
  const begun = (await desk.api.post(runs).send({ words: ['windows'], places: [] })).body as GatherRunAnswer;
  const run = await desk.until(begun.run.id, 'done');
  expect(run.searches).toMatchObject([{ word: 'windows', place: '', records: 60 }]);
  expect((await desk.api.post(runs).send({ words: 'windows' })).status).toBe(400);
});

test('a run is paused, gone on with, stopped; what it was is told', async () => {
  const { id } = await desk.taught('Paused', { ...WORDS, pause: 0.5 });
  const run = await desk.run(id);
  expect(run.state).toBe('running');
  const paused = await desk.act(run.id, 'pause');
  expect(paused.state).toBe('paused');
  const { pagesRead } = paused;
  expect((await desk.api.post(`/api/gather/runs/${run.id}/act`).send({ act: 'pause' })).status).toBe(409);
  expect((await desk.act(run.id, 'go-on')).state).toBe('running');
  const stopped = await desk.act(run.id, 'stop');
  expect(stopped).toMatchObject({ state: 'stopped', timeLeft: null });
  expect(stopped.pagesRead).toBeGreaterThanOrEqual(pagesRead);
  expect((await desk.api.delete(`/api/gather/runs/${run.id}`)).status).toBe(204);
  expect((await desk.api.get(`/api/gather/runs/${run.id}`)).status).toBe(404);
});

test('records are posted to a webhook', async () => {
  const { id } = await desk.taught('Posted', { words: ['joinery'], places: ['Brno'] });
  const run = await desk.until((await desk.run(id)).id, 'done');
  const { hook } = (await desk.api.post('/api/hooks').send({ name: 'Ours', url: 'stand-in', batch: 100 }))
    .body as { hook: { id: string } };
  const answer = await desk.api
    .post(`/api/gather/runs/${run.id}/deliver`)
    .send({ to: 'webhook', name: hook.id });
  expect((answer.body as DeliveredAnswer).message).toBe('60 records wait for Ours');
  await until(
    async () => (await desk.api.get('/api/programs')).body as { standIn: { rows: number } },
    ({ standIn }) => standIn.rows === 60,
  );
  expect(
    (await desk.api.post(`/api/gather/runs/${run.id}/deliver`).send({ to: 'webhook', name: 'none' })).status,
  ).toBe(400);
});

test.each([
  ['ends where a page brings nothing new', 'same', 1000, 2],
  ['ends at the pages that a search may have', 'new', 5, 5],
])('a list without end %s', async (_what, rows, pages, read) => {
  const endless = createServer((request, response) => {
    const at = Number(new URL(request.url!, 'http://x').searchParams.get('at') ?? 1);
    const firms = [0, 1, 2, 3].map(
      (i) => `<li><b>Firm ${rows === 'same' ? i : at * 10 + i} Ltd</b><i>Leeds</i></li>`,
    );
    response.writeHead(request.url === '/robots.txt' ? 404 : 200, { 'content-type': 'text/html' });
    response.end(`<ul>${firms.join('')}</ul><a rel="next" href="?at=${at + 1}">Next</a>`);
  });
  await new Promise<void>((resolve) => endless.listen(0, '127.0.0.1', resolve));
  try {
    await desk.api.put('/api/gather/hosts').send({ name: '127.0.0.1', private: true });
    const start = `http://127.0.0.1:${(endless.address() as AddressInfo).port}/`;
    const made = await desk.made(`Endless ${rows}`, { start, pages });
    const page = await desk.page(made.id, { address: start });
    const around = await desk.around(page.id, await desk.node(page.id, 'b'));
    const example = {
      page: page.id,
      node: around.choices[around.best]!.node,
      as: 'row' as const,
      fields: around.fields,
    };
    const spec = { ...made.spec, examples: [example] };
    await desk.api.put(`/api/gather/gatherers/${made.id}`).send({ name: made.name, spec });
    const run = await desk.until((await desk.run(made.id)).id, 'done');
    expect(run).toMatchObject({ pagesRead: read, pagesFailed: 0, roll: { foot: rows === 'same' ? 4 : 20 } });
  } finally {
    await desk.api.delete('/api/gather/hosts/127.0.0.1');
    endless.closeAllConnections();
    endless.close();
  }
});

test('a pasted table and a saved page are read without a fetch', async () => {
  const made = await desk.made('Pasted', {});
  const { pages } = (
    await desk.api
      .post(`/api/gather/gatherers/${made.id}/pasted`)
      .send({ text: 'Drevanko\tBrno\t+420 000 000 101\nMirovec\tKuřim\t\nHalvek\tZlín\t+420 000 000 103' })
  ).body as PagesAnswer;
  const [page] = pages;
  const around = await desk.around(page!.id, await desk.node(page!.id, 'td'));
  const example = {
    page: page!.id,
    node: around.choices[around.best]!.node,
    as: 'row' as const,
    fields: around.fields,
  };
  expect(example.fields.map(({ field }) => field)).toEqual(['name', 'phone']);
  await desk.api
    .put(`/api/gather/gatherers/${made.id}`)
    .send({ name: 'Pasted', spec: { ...made.spec, examples: [example] } });
  const run = await desk.until((await desk.run(made.id)).id, 'done');
  expect((await desk.rows(run.id)).rows.map(({ values }) => values)).toEqual([
    { name: 'Drevanko', phone: '+420 000 000 101' },
    { name: 'Mirovec' },
    { name: 'Halvek', phone: '+420 000 000 103' },
  ]);
  const saved = (name: string, content: string) =>
    desk.api.post(`/api/gather/gatherers/${made.id}/saved`).attach('file', Buffer.from(content), name);
  const mhtml = [
    'From: <Saved>',
    'Snapshot-Content-Location: http://guild.example/list',
    'MIME-Version: 1.0',
    'Content-Type: multipart/related; boundary="x"; type="text/html"',
    '',
    '--x',
    'Content-Type: text/html; charset=utf-8',
    'Content-Transfer-Encoding: quoted-printable',
    '',
    '<p class=3D"firm">Ku=C5=99im</p>',
    '--x--',
    '',
  ].join('\r\n');
  const kept = (await saved('list.mhtml', mhtml)).body as PagesAnswer;
  expect(kept.pages[0]).toMatchObject({ url: 'http://guild.example/list', saved: true });
  expect(await desk.view(kept.pages[0]!.id)).toContain('Kuřim');
  expect((await saved('photo.html', '\u0000\u0001 no page')).body).toMatchObject({
    error: { field: 'file' },
  });
});

test('a page that means harm is shown without anything that runs, loads or leads anywhere', async () => {
  const made = await desk.made('Hostile', {});
  const { pages } = (
    await desk.api.post(`/api/gather/gatherers/${made.id}/saved`).attach('file', desk.hostile, 'hostile.html')
  ).body as PagesAnswer;
  const page = pages[0]!.id;
  const answer = await desk.api.get(`/api/gather/pages/${page}/view`);
  const policy = answer.headers['content-security-policy'] as string;
  expect(policy).toContain("default-src 'none'");
  expect(policy).toContain('sandbox allow-scripts');
  const [, nonce] = /script-src 'nonce-([^']+)'/.exec(policy)!;
  expect(answer.text.match(/<script/g)).toHaveLength(1);
  expect(answer.text).toContain(`<script nonce="${nonce}">`);
  // A plain script of the browser's: with an import it would not run at all.
  expect(answer.text.split('<script')[1]).not.toMatch(/^import |require\(/m);
  expect(answer.text.split('<script')[0]).not.toMatch(
    /evil\.example\/(?!",)|javascript:|onload|onclick|<iframe|<form [^>]*action/,
  );
  const around = await desk.around(page, await desk.node(page, 'a'));
  const example = {
    page,
    node: around.choices[around.best]!.node,
    as: 'row' as const,
    fields: around.fields,
  };
  const spec = { ...made.spec, examples: [example] };
  const look = await desk.look(page, spec);
  expect(look.rows).toHaveLength(3);
  expect(look.next).toBeNull();
  await desk.api.put(`/api/gather/gatherers/${made.id}`).send({ name: 'Hostile', spec });
  const run = await desk.until((await desk.run(made.id)).id, 'done');
  const csv = (await desk.api.get(`/api/gather/runs/${run.id}/file?format=csv`)).text;
  expect(csv).not.toMatch(/javascript:|data:text/);
  expect(csv).toContain(`"'=HYPERLINK(""https://evil.example"",""Halvek"")"`);
});

test('other hosts are read where they were allowed, and never in a private network unless they were named so', async () => {
  const made = await desk.made('Elsewhere', { start: 'http://directory.test/' });
  const asked = (address: string) =>
    desk.api.post(`/api/gather/gatherers/${made.id}/pages`).send({ address });
  const refused = await asked('http://directory.test/');
  expect(refused.status).toBe(403);
  expect((refused.body as { error: { message: string } }).error.message).toContain('not among the hosts');
  await desk.api.put('/api/gather/hosts').send({ name: '127.0.0.1', private: false });
  const own = await asked(`${desk.address}/api/health`);
  expect(own.status).toBe(403);
  expect((own.body as { error: { message: string } }).error.message).toContain('private network');
  expect((await asked('file:///etc/passwd')).status).toBe(502);
  expect((await desk.api.put('/api/gather/hosts').send({ name: 'a/b', private: false })).status).toBe(400);
  expect((await desk.api.delete('/api/gather/hosts/127.0.0.1')).status).toBe(204);
  expect(((await desk.api.get('/api/gather')).body as GatherAnswer).hosts).toEqual([]);
});

test('what is not right is refused by name', async () => {
  const spec = { start: 'ftp://x' };
  expect((await desk.api.post('/api/gather/gatherers').send({ name: 'A', spec })).body).toMatchObject({
    error: { field: 'spec.start' },
  });
  const step = { steps: [{ do: 'type', text: 'x' }] };
  expect((await desk.api.post('/api/gather/gatherers').send({ name: 'A', spec: step })).body).toMatchObject({
    error: { field: 'spec.steps[0].into' },
  });
  const many = {
    words: Array.from({ length: 200 }, (_, i) => `w${i}`),
    places: Array.from({ length: 60 }, (_, i) => `p${i}`),
  };
  expect((await desk.api.post('/api/gather/gatherers').send({ name: 'A', spec: many })).body).toMatchObject({
    error: { code: 'too-many-searches', value: 12_000 },
  });
  await desk.made('Once', {});
  expect((await desk.api.post('/api/gather/gatherers').send({ name: 'once', spec: {} })).body).toMatchObject({
    error: { code: 'name-taken' },
  });
  const made = await desk.made('Untaught', {});
  expect((await desk.api.post(`/api/gather/gatherers/${made.id}/runs`)).body).toMatchObject({
    error: { code: 'nothing-taught' },
  });
  expect(
    (await desk.api.post('/api/gather/look').send({ page: 999_999, spec: made.spec })).body,
  ).toMatchObject({
    error: { code: 'unknown-page' },
  });
});

test('records become a source by the rules of any file, then a list by way of a match, and files', async () => {
  const { id } = await desk.taught('Delivered', { words: ['joinery'], places: ['Brno'] });
  const run = await desk.until((await desk.run(id)).id, 'done');
  const source = (
    await desk.api.post(`/api/gather/runs/${run.id}/deliver`).send({ to: 'source', name: 'From the guide' })
  ).body as DeliveredAnswer;
  const loaded = await desk.ended(source.job!);
  expect(loaded.job.state).toBe('done');
  const { sources } = (await desk.api.get('/api/sources')).body as {
    sources: { name: string; companies: number; countries: object[] }[];
  };
  expect(sources.find(({ name }) => name === 'From the guide')).toMatchObject({
    companies: 60,
    // Their phones say it.
    countries: [{ country: 'CZ', companies: 60 }],
  });
  const list = (
    await desk.api.post(`/api/gather/runs/${run.id}/deliver`).send({ to: 'list', name: 'Gathered' })
  ).body as DeliveredAnswer;
  expect((await desk.ended(list.job!)).job.state).toBe('done');
  const { lists } = (await desk.api.get('/api/lists')).body as { lists: ListView[] };
  expect(lists.find(({ name }) => name === 'Gathered')!.members).toBeGreaterThan(50);

  const csv = (await desk.api.get(`/api/gather/runs/${run.id}/file?format=csv`)).text.split('\r\n');
  expect(csv[0]).toBe('\ufeffCompany,Street,Postcode,Town,Phone,Web,Page of its own,Found by,Page,Read on');
  expect(csv).toHaveLength(62);
  const xlsx = await desk.api.get(`/api/gather/runs/${run.id}/file?format=xlsx`).buffer(true);
  expect(xlsx.headers['content-type']).toContain('spreadsheetml');
  expect((await desk.api.get(`/api/gather/runs/${run.id}/file?format=doc`)).body).toMatchObject({
    error: { field: 'format', rule: 'csv, xlsx, jsonl' },
  });
});
