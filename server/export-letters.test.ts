import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import ICAL from 'ical.js';
import { ExportDesk } from './testing/export-desk.ts';
import { tape } from './testing/test-server.ts';

/** What reaches people by post and on paper: cards, papers, labels, letters and mail merges. */

const desk = new ExportDesk();
beforeAll(() => desk.open(), 60_000);
afterAll(() => desk.stop());

test('cards are read by a vCard reader, of companies and of people', async () => {
  const firms = await desk.exported({ format: 'vcard', columns: ['name'] });
  const cards = (ICAL.parse(firms.bytes.toString('utf8')) as unknown[][]).map(
    (one) => new ICAL.Component(one as never),
  );
  expect(cards).toHaveLength(4);
  const brno = cards.find((card) => card.getFirstPropertyValue('fn') === 'Alderway "Coat" a.s.')!;
  expect(brno.getFirstPropertyValue('email')).toBe('office@alderway.example');
  expect(brno.getFirstPropertyValue('adr')).toEqual(['', '', 'Dlouhá 1', 'Brno', '', '60200', 'Czechia']);
  const people = await desk.exported({
    format: 'vcard',
    tape: { ...tape([]), subject: 'people' },
    columns: ['name'],
  });
  const text = people.bytes.toString('utf8');
  expect(text).toContain('FN:Jana Malá\r\n');
  expect(text).toContain('ORG:Alderway "Coat" a.s.\r\n');
});

describe('paper', () => {
  const text = (path: string) => desk.run('pdftotext', ['-layout', path, '-']);

  test('a sheet has its rows and, on its last page, how it was made', async () => {
    const { path } = await desk.exported({ format: 'pdf', name: 'Printed' });
    const printed = text(path);
    for (const name of ['Alderway', 'Brackfold', 'Corbin']) expect(printed).toContain(name);
    expect(printed).toMatch(/c\. 88/);
    expect(printed.split('\f')[1]).toContain('How this list was made');
  });

  test('dossiers have a page each', async () => {
    const { path } = await desk.exported({
      format: 'dossiers',
      columns: ['name', 'street', 'headcount', 'revenue'],
    });
    const pages = text(path).split('\f');
    expect(pages.filter((page) => /Headcount/.test(page) && !/How this/.test(page))).toHaveLength(4);
    expect(pages.find((page) => page.includes('Alderway'))).toContain('Dlouhá 1');
  });

  test('labels have an address each, and letters what is said to each', async () => {
    const labels = await desk.exported({ format: 'labels', columns: ['name'] });
    expect(text(labels.path)).toMatch(/602 00 Brno/);
    expect(text(labels.path)).toMatch(/CZECHIA/);
    const letters = await desk.exported({
      format: 'letters',
      columns: ['name'],
      tape: { ...tape([]), subject: 'people' },
      letter: {
        sender: 'Just Us\nStreet 1, Brno',
        text: 'Dear {name} of {company} in {town},\n\ngood day.',
        from: 'CZ',
      },
    });
    const pages = text(letters.path)
      .split('\f')
      .filter((page) => page.trim() !== '');
    expect(pages).toHaveLength(2);
    expect(pages[0]).toContain('Dear Jana Malá of Alderway "Coat" a.s. in Brno,');
    expect(pages[0]).toContain('Just Us · Street 1, Brno');
    expect(pages[0]).not.toContain('CZECHIA');
    expect(pages[1]).toContain('AUSTRIA');
  });
});

test('a mail merge has the address line by line', async () => {
  const { bytes } = await desk.exported({ format: 'merge', columns: ['name'] });
  const [heading, ...rows] = bytes.toString('utf8').trim().split('\r\n');
  expect(heading).toBe(
    'Company,Address line 1,Address line 2,Address line 3,Address line 4,Address line 5,Address line 6,Address line 7',
  );
  const german = await desk.exported({ format: 'merge', columns: ['name'], language: 'de' });
  expect(german.bytes.toString('utf8')).toMatch(/^Firma,Adresszeile 1,Adresszeile 2,/);
  expect(rows.find((row) => row.includes('Corbin'))).toBe(
    "'=Corbin GmbH,'=Corbin GmbH,Gasse 3,8010 Graz,AUSTRIA,,,",
  );
});
