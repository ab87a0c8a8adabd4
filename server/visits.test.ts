import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { UploadAnswer } from '../contract/responses.ts';
import type { VisitsAnswer } from '../contract/visits.ts';
import { ROAD_FACTOR } from '../core/geo/tour.ts';
import { readVCards } from '../core/records/contacts.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Companies as a day's visits, through the API: the order, the times, and the files. */

const server = new TestServer();
const COMPANIES = [
  'name,registration,country,town,street,latitude,longitude,phone',
  'North,1,CZ,Brno,Polní 1,49.40,16.60,+420000111001',
  'South,2,CZ,Brno,Polní 2,49.00,16.60,+420000111002',
  'Middle,3,CZ,Brno,Polní 3,49.30,16.60,+420000111003',
  'Nowhere,4,,,,,,',
].join('\n');
const PEOPLE = [
  'Full name,Job title,Company number,Company country,Level,E-mail',
  'Anna Buyer,Buyer,1,CZ,specialist,anna@north.example',
  'Otto Owner,Owner,1,CZ,owner,otto@north.example',
].join('\n');
const start = { lat: 49.45, lon: 16.6, label: 'Home' };
const visits = (more: object = {}) => server.api.post('/api/visits').send({ tape: tape([]), start, ...more });
const answer = async (more: object = {}) => (await visits(more)).body as VisitsAnswer;

beforeAll(async () => {
  await server.start(1);
  for (const [name, text] of [
    ['Companies', COMPANIES],
    ['People', PEOPLE],
  ] as const) {
    const preview = (await server.upload(`${name}.csv`, Buffer.from(text))).body as UploadAnswer;
    const { encoding, delimiter, subject } = preview;
    const { job } = await server.load(preview, {
      name,
      read: { encoding, delimiter, hasHeader: true, ...(subject === 'people' ? { subject } : {}) },
    });
    expect(job.state).toBe('done');
  }
});
afterAll(() => server.stop());

test('stand in the order of the way there and back, with times that add up', async () => {
  const { stops, back, km, minutes, without, beyond } = await answer({ from: '08:30', stay: 30, speed: 60 });
  expect(stops.map(({ name }) => name)).toEqual(['North', 'Middle', 'South']);
  expect([without, beyond]).toEqual([1, 0]);
  // Towns between the stops, to find one's way by; the largest first.
  const { towns } = await answer();
  expect(towns.length).toBeGreaterThan(0);
  for (const { lat } of towns) expect(lat).toBeGreaterThan(48.9);
  expect(stops.reduce((sum, stop) => sum + stop.km, back.km)).toBeCloseTo(km, 6);
  expect(stops.reduce((sum, stop) => sum + stop.minutes, back.minutes)).toBe(minutes);
  let clock = 8 * 60 + 30;
  for (const stop of stops) {
    expect(stop.minutes).toBe(Math.round(ROAD_FACTOR * stop.km));
    clock += stop.minutes;
    expect(stop.at).toBe(
      `${String(Math.floor(clock / 60)).padStart(2, '0')}:${String(clock % 60).padStart(2, '0')}`,
    );
    clock += 30;
  }
});

test('take whoever stands highest, the note, and the nearest so many', async () => {
  const { rows } = (await server.api.post('/api/rows').send({ tape: tape([]), columns: ['name'] })).body as {
    rows: { key: string; cells: { name: string } }[];
  };
  const north = rows.find(({ cells }) => cells.name === 'North')!.key;
  await server.api.put(`/api/notes/companies/${north}`).send({ text: 'Ring first' });
  const { stops, beyond, start: from } = await answer({ keys: [north], start: undefined });
  expect(stops).toMatchObject([{ name: 'North', note: 'Ring first', person: { name: 'Otto Owner' }, km: 0 }]);
  expect([beyond, from.label]).toEqual([0, 'Brno']);
  const nearest = await answer({ most: 1, start: { lat: 49.05, lon: 16.6, label: 'Southern end' } });
  expect([nearest.stops.map(({ name }) => name), nearest.beyond]).toEqual([['South'], 2]);
});

describe('go into other programs', () => {
  test('as a calendar', async () => {
    const { text, headers } = await server.api
      .post('/api/visits/calendar')
      .send({ tape: tape([]), start, day: '2026-12-01', from: '23:30' });
    expect(headers['content-type']).toContain('text/calendar');
    expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(3);
    expect(text).toContain('SUMMARY:North');
    expect(text).toContain('DESCRIPTION:Otto Owner\\, Owner\\n+420000111001\\nRing first');
    // A day of a calendar ends at midnight.
    expect(text).toContain('DTEND:20261201T235900');
  });
  test('as a paper, with the way, the stops and what was noted', async () => {
    const printed = await server.api
      .post('/api/visits/paper')
      .send({ tape: tape([]), start, day: '2026-12-01', from: '08:30', size: 'Letter' })
      .buffer()
      .parse((response, done) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () => done(null, Buffer.concat(chunks)));
      });
    expect(printed.headers['content-type']).toBe('application/pdf');
    const path = join(server.dir, 'visits.pdf');
    writeFileSync(path, printed.body as Buffer);
    const { stdout } = spawnSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
    const text = stdout.normalize('NFKC');
    const { stops, back } = await answer({ from: '08:30' });
    expect(text).toContain(`2026-12-01: 3 from Home and back`);
    expect(text).toContain(`back at ${back.at}`);
    for (const [nth, { name, at, until }] of stops.entries())
      expect(text).toMatch(new RegExp(`${nth + 1}\\s+${at}–${until}\\s+${name}`));
    expect(text).toContain('Otto Owner, Owner');
    expect(text).toMatch(/1\s+North: Ring first/);
    expect((await server.api.post('/api/visits/paper').send({ tape: tape([]), size: 'A3' })).status).toBe(
      400,
    );
  });
  test('as cards', async () => {
    const { text } = await server.api.post('/api/visits/cards').send({ tape: tape([]), start });
    expect(readVCards(text).map(({ name, organisation, phone }) => [name, organisation, phone])).toEqual([
      ['Otto Owner', 'North', '+420000111001'],
      ['Middle', 'Middle', '+420000111003'],
      ['South', 'South', '+420000111002'],
    ]);
  });
});

test.each([
  [{ tape: { ...tape([]), subject: 'people' } }, 'tape on people'],
  [
    { tape: tape([{ id: 'a', field: 'headcount', test: { from: 5 } }]) },
    'None of these companies has a place',
  ],
  [{ from: '9' }, 'from must be a time'],
  [{ start: { lat: 91, lon: 0, label: '' } }, 'latitude'],
  [{ most: 0 }, 'most'],
] as const)('what is wrong is said: %#', async (more, message) => {
  const answered = await visits(more);
  expect(answered.status).toBe(400);
  expect((answered.body as { error: { message: string } }).error.message).toContain(message);
});
