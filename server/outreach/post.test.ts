import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { OutreachSettingsBody } from '../../contract/outreach.ts';
import { openOutreach, type Db } from '../db/open.ts';
import { NO_LOG } from '../log.ts';
import { addCampaign } from '../tables/outreach/campaigns.ts';
import { addAddressed, messagesOf, writtenTo } from '../tables/outreach/messages.ts';
import {
  companiesSince,
  countSentSince,
  countWaiting,
  noteNotTaken,
  noteSent,
  putInOutbox,
  takeFromOutbox,
  takeToSend,
} from '../tables/outreach/outbox.ts';
import { setPaused, writeOutreachSettings } from '../tables/outreach/settings.ts';
import { dayStart, Post, wholeText } from './post.ts';

/** When messages go, and what becomes of those under way when the program ends. */

let dir: string;
let db: Db;
let ids: number[];

beforeEach(() => {
  dir = mkdtempSync(join(tmpdir(), 'just-tally-post-'));
  db = openOutreach(dir);
  const campaign = addCampaign(db, {
    ...{ name: 'C', person: 'Ilona', what: '', functions: null, template: 'T', trigger: 'named' },
    ...{ certainty: 80, words: 40, quietDays: 90, askProof: false },
  });
  addAddressed(
    db,
    campaign,
    [0, 1, 2, 3].map((nth) => ({
      ...{ person: `person-${nth}`, company: `c-${nth}`, name: 'Ann', title: null, companyName: 'Alder' },
      ...{ country: 'CZ', trigger: 'named' as const },
      draft: {
        ...{ template: 'T', language: 'en', subject: 'Air', body: 'Dear Ann', proof: null, proofText: null },
        ...{ unfilled: [], words: 2, wording: 'dear' },
      },
    })),
  );
  ids = messagesOf(db, campaign).map(({ id }) => id);
});
afterEach(() => {
  db.close();
  rmSync(dir, { recursive: true });
});

const settings = (more: Partial<OutreachSettingsBody>) =>
  writeOutreachSettings(db, Object.assign(new OutreachSettingsBody(), { mail: 'us@us.example', ...more }));
const put = (nth: number) =>
  putInOutbox(db, ids[nth]!, { mail: `a${nth}@b.example`, certainty: 97 }, 'Ilona');
const take = (nth: number) => takeToSend(db, ids[nth]!, `<just-tally.${nth}.x@us.example>`);
const state = (nth: number) =>
  db.prepare<[number], string>('SELECT state FROM message WHERE id = ?').pluck().get(ids[nth]!);
const post = () => new Post(dir, db, NO_LOG, 1);

describe('each step is taken once', () => {
  test('a draft goes into the outbox once, and out of it once', () => {
    expect([put(0), put(0)]).toEqual([true, false]);
    expect([take(0), take(0)]).toEqual([true, false]);
    expect(takeFromOutbox(db, [ids[0]!])).toEqual([]);
    noteSent(db, ids[0]!);
    expect(state(0)).toBe('sent');
    expect(put(0)).toBe(false);
  });
  test('what waits can be taken back; what was put off waits again', () => {
    put(0);
    put(1);
    take(1);
    noteNotTaken(db, ids[1]!, '451 later', Date.now() + 60_000);
    expect(state(1)).toBe('outbox');
    expect(takeFromOutbox(db, ids)).toEqual([ids[0], ids[1]]);
    expect(countWaiting(db)).toBe(0);
  });
  test('what was being handed over when the program ended is perhaps sent, and counts as written', () => {
    put(0);
    put(1);
    take(0);
    post();
    expect([state(0), state(1)]).toEqual(['perhaps', 'outbox']);
    expect(countSentSince(db, dayStart())).toBe(1);
    expect(companiesSince(db, dayStart())).toEqual(new Set(['c-0', 'c-1']));
    expect(writtenTo(db, 'person-0', null, null)).toMatchObject([{ state: 'perhaps', by: 'Ilona' }]);
    expect(take(0)).toBe(false);
  });
});

describe('when the next goes', () => {
  const next = () => {
    const { next: iso } = post().state();
    return iso === null ? null : Date.parse(iso);
  };
  test('at once where the stand-in is hastened, whatever the hour', () => {
    settings({ hasten: true, from: 8, to: 9, days: [1] });
    put(0);
    expect(Math.abs(next()! - Date.now())).toBeLessThan(5000);
  });
  test('never before the working hours of the country', () => {
    settings({ hasten: false, from: 8, to: 17, days: [1, 2, 3, 4, 5] });
    put(0);
    const at = new Date(next()!);
    const clock = new Intl.DateTimeFormat('en-GB', {
      timeZone: 'Europe/Prague',
      weekday: 'short',
      hour: '2-digit',
      hourCycle: 'h23',
    });
    const parts = Object.fromEntries(clock.formatToParts(at).map(({ type, value }) => [type, value]));
    expect(['Sat', 'Sun']).not.toContain(parts.weekday);
    expect(Number(parts.hour)).toBeGreaterThanOrEqual(8);
    expect(Number(parts.hour)).toBeLessThan(17);
  });
  test('tomorrow once the limit of the day is reached, an hour later once that of the hour is', () => {
    put(0);
    put(1);
    take(0);
    noteSent(db, ids[0]!);
    settings({ daily: 1 });
    const tomorrow = new Date();
    tomorrow.setDate(tomorrow.getDate() + 1);
    expect(next()).toBe(tomorrow.setHours(0, 0, 0, 0));
    settings({ daily: 9, hourly: 1 });
    expect(Math.abs(next()! - Date.now() - 3_600_000)).toBeLessThan(5000);
    expect(post().state()).toMatchObject({ waiting: 1, today: 1, daily: 9 });
  });
  test('nothing waits, the outbox is stopped, nobody sends: each is said', () => {
    settings({});
    expect(post().state()).toMatchObject({
      next: null,
      paused: false,
      trouble: null,
      through: { own: false },
    });
    setPaused(db, true);
    expect(post().state().paused).toBe(true);
    settings({ mail: null });
    expect(post().state().trouble).toContain('your own mail address');
  });
});

test('below a message stand the signature and how to hear no more, as far as there are any', () => {
  expect(wholeText('Dear Ann', { signature: 'Ilona', unsubscribe: 'Say no.' })).toBe(
    'Dear Ann\n\nIlona\nSay no.',
  );
  expect(wholeText('Dear Ann', { signature: '', unsubscribe: '' })).toBe('Dear Ann');
});
