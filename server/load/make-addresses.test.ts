import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openUniverse, type Db } from '../db/open.ts';
import { makeAddresses } from './make-addresses.ts';

/** Addresses of people in a universe: recorded ones keep their standing, the others are made, and all of it follows what came back. */

let dir: string;
let db: Db;
beforeEach(() => {
  dir = mkdtempSync(join(tmpdir(), 'just-tally-addresses-'));
  db = openUniverse(dir);
});
afterEach(() => {
  db.close();
  rmSync(dir, { recursive: true });
});

let companies = 0;
function company(web: string | null): number {
  const id = ++companies;
  db.prepare("INSERT INTO company (id, key, name, country, web) VALUES (?, ?, ?, 'CZ', ?)").run(
    id,
    `k${id}`,
    `Firm ${id}`,
    web,
  );
  return id;
}
function person(
  name: string,
  at: number | null,
  recorded: string | null = null,
  stated: number | null = null,
): number {
  return Number(
    db
      .prepare(
        'INSERT INTO person (source, company_id, name, recorded_mail, stated_certainty) VALUES (?, ?, ?, ?, ?)',
      )
      .run('s', at, name, recorded, stated).lastInsertRowid,
  );
}
const outcome = (mail: string, what: string) =>
  db.prepare('INSERT OR REPLACE INTO mail_outcome VALUES (?, ?, 0)').run(mail, what);
interface Found {
  mail: string | null;
  certainty: number | null;
  address: string | null;
  made_by: string | null;
}
const found = (id: number) =>
  db.prepare<[number], Found>('SELECT mail, certainty, address, made_by FROM person WHERE id = ?').get(id)!;

/** A house where everybody is f.last. */
function house(domain: string, web: string | null = domain): number {
  const id = company(web);
  person('Anna First', id, `a.first@${domain}`);
  person('Bruno Second', id, `b.second@${domain}`);
  person('Cecile Third', id, `c.third@${domain}`);
  return id;
}

describe('recorded addresses', () => {
  test.each([
    ['anna@a.example', null, { address: 'recorded', certainty: 97 }],
    ['anna@a.example', 88, { address: 'recorded', certainty: 88 }],
    ['Info@a.example', null, { address: 'general', certainty: 97 }],
  ] as const)('%s stated %s', (mail, stated, is) => {
    const id = person('Anna First', company('a.example'), mail, stated);
    makeAddresses(db);
    expect(found(id)).toEqual({ mail, made_by: null, ...is });
  });
  test('are what came back of them says', () => {
    const at = company('a.example');
    const [one, other] = [
      person('Anna First', at, 'Anna@a.example'),
      person('Bruno Second', at, 'bruno@a.example'),
    ];
    outcome('anna@a.example', 'refuted');
    outcome('bruno@a.example', 'confirmed');
    makeAddresses(db);
    expect(found(one)).toMatchObject({ mail: 'Anna@a.example', address: 'refuted', certainty: 0 });
    expect(found(other)).toMatchObject({ address: 'confirmed', certainty: 99 });
  });
});

describe('made addresses', () => {
  test('follow the house, and say how many there do', () => {
    const id = person('Monika Planik', house('a.example'));
    makeAddresses(db);
    const { mail, made_by, certainty } = found(id);
    expect([mail, made_by]).toEqual(['m.planik@a.example', 'f.last, 3 of 3 known there']);
    expect(certainty).toBeGreaterThan(50);
  });
  test('stand under the mail domain of the house, not that of its site', () => {
    const id = person('Monika Planik', house('mail.example', 'www.site.example'));
    makeAddresses(db);
    expect(found(id).mail).toBe('m.planik@mail.example');
  });
  test('follow siblings of the same domain, where nobody of the company is known', () => {
    house('group.example');
    const id = person('Monika Planik', company('https://www.group.example/cz'));
    makeAddresses(db);
    expect(found(id)).toMatchObject({
      mail: 'm.planik@group.example',
      made_by: 'f.last, 3 of 3 known there',
    });
  });
  test('are none where there is no company, no site or no whole name', () => {
    const at = house('a.example');
    const ids = [person('Monika Planik', null), person('Monika Planik', company(null)), person('Planik', at)];
    makeAddresses(db);
    for (const id of ids)
      expect(found(id)).toEqual({ mail: null, certainty: null, address: null, made_by: null });
  });
  test('learn nothing from free mail, from a house’s own address, or from one that came back', () => {
    const at = company('a.example');
    person('Anna First', at, 'a.first@gmail.com');
    person('Bruno Second', at, 'info@a.example');
    person('Cecile Third', at, 'c.third@a.example');
    outcome('c.third@a.example', 'refuted');
    const id = person('Monika Planik', at);
    makeAddresses(db);
    expect(found(id)).toMatchObject({
      mail: 'monika.planik@a.example',
      made_by: 'first.last, none known there',
    });
  });
  test('two of one name have each their own; one that came back gives way to the next likely', () => {
    const at = house('a.example');
    const [one, other] = [person('Monika Planik', at), person('Marek Planik', at)];
    makeAddresses(db);
    expect(found(one).mail).toBe('m.planik@a.example');
    expect(found(other).mail).not.toBe('m.planik@a.example');
    outcome('m.planik@a.example', 'refuted');
    makeAddresses(db);
    const mails = [found(one).mail, found(other).mail];
    expect(mails).not.toContain('m.planik@a.example');
    expect(new Set(mails).size).toBe(2);
  });
  test('that are confirmed stay, and teach', () => {
    const at = company('a.example');
    const id = person('Monika Planik', at);
    makeAddresses(db);
    outcome(found(id).mail!, 'confirmed');
    const other = person('Petr Hladina', at);
    makeAddresses(db);
    expect(found(id)).toMatchObject({ address: 'confirmed', certainty: 99 });
    expect(found(other)).toMatchObject({
      mail: 'petr.hladina@a.example',
      made_by: 'first.last, 1 of 1 known there',
    });
  });
  test('are made anew from nothing but what is recorded: a second time changes nothing', () => {
    const at = house('a.example');
    person('Monika Planik', at);
    expect(makeAddresses(db)).toBe(4);
    expect(makeAddresses(db)).toBe(0);
    // Once the house writes otherwise, so does what was made.
    db.prepare(
      "UPDATE person SET recorded_mail = replace(recorded_mail, '.', '_') WHERE recorded_mail IS NOT NULL",
    ).run();
    db.prepare('UPDATE person SET recorded_mail = NULL').run();
    expect(makeAddresses(db)).toBe(4);
    expect(found(1).made_by).toContain('none known there');
  });
});
