import type { Db } from '../server/db/open.ts';
import { noteMembers } from '../server/tables/lists/changes.ts';
import { combineInto } from '../server/tables/lists/combined.ts';
import { addList } from '../server/tables/lists/list-rows.ts';
import { addMembers, takeOff } from '../server/tables/lists/members.ts';
import { judge } from '../server/tables/lists/verdicts.ts';
import type { OriginKind } from '../core/lists/roll.ts';
import type { Combination } from '../core/lists/combine.ts';
import type { ListVerdict } from '../core/tape/nodes.ts';

/** The lists of the desk at Ternhollow Filtration: customers, targets half gone through, visitors, and whom not to write to. */

const MAKERS = `'16.23', '16.25', '18.12', '22.26', '25.51', '30.12', '31.00'`;
const REASONS = ['too small', 'wrong trade', 'closed', 'a customer', 'no plant of its own'];

/** A day of the quarter, in ms. */
const day = (iso: string) => Date.parse(`${iso}T09:12:00Z`);

interface DemoList {
  name: string;
  subject?: string;
  folder: string;
  owner: string;
  purpose?: string;
  suppression?: 'members' | 'groups';
  origins: { kind: OriginKind; what: string; on: string; person: string; keys: string[] }[];
}

export function fillLists(lists: Db, universe: Db): void {
  const keys = (from: string, limit: number) =>
    universe.prepare<[], string>(`SELECT DISTINCT ${from} LIMIT ${limit}`).pluck().all();
  const coded = (codes: string, more: string) =>
    `c.key FROM company c JOIN company_code k ON k.company_id = c.id AND k.rank = 0 WHERE k.code IN (${codes}) ${more} ORDER BY c.key`;
  const customers = keys(
    coded(`'25.51', '16.25', '31.00'`, `AND c.country IN ('CZ', 'DE', 'AT', 'PL') AND c.headcount_low >= 20`),
    90,
  );
  const targets = keys(
    coded(
      MAKERS,
      `AND c.country IN ('CZ', 'DE', 'AT', 'PL', 'SE', 'DK') AND c.headcount_low >= 20 AND c.headcount_high <= 249`,
    ),
    1200,
  ).filter((key) => !customers.includes(key));
  const visitors = [
    ...targets.filter((_, i) => i % 37 === 0).slice(0, 31),
    ...keys(coded(MAKERS, `AND c.country IN ('CZ', 'SK') AND c.headcount_high < 20`), 33),
  ];
  const people = `p.key FROM person p JOIN company c ON c.id = p.company_id JOIN company_code k ON k.company_id = c.id AND k.rank = 0
    WHERE k.code IN (${MAKERS}) AND p.mail IS NOT NULL AND p.department IN ('production', 'management')`;
  const made: DemoList[] = [
    {
      name: 'Our customers',
      folder: '',
      owner: 'all of us',
      suppression: 'groups',
      origins: [{ kind: 'file', what: 'order-book.csv', on: '2026-09-01', person: 'Hana', keys: customers }],
    },
    {
      name: 'Targets, autumn',
      folder: 'Targets',
      owner: 'Ilona',
      purpose: 'Whom the engineers visit until Christmas.',
      origins: [
        {
          kind: 'tape',
          what: 'Targets: workshops that spray, sand and mould',
          on: '2026-09-12',
          person: 'Ilona',
          keys: targets,
        },
        { kind: 'file', what: 'open-day-visitors.csv', on: '2026-09-24', person: 'Hana', keys: visitors },
      ],
    },
    {
      name: 'Open-day visitors',
      folder: 'Open day',
      owner: 'Hana',
      origins: [
        { kind: 'file', what: 'open-day-visitors.csv', on: '2026-09-24', person: 'Hana', keys: visitors },
      ],
    },
    {
      name: 'Rivals in air cleaning',
      folder: 'Rivals',
      owner: 'Ilona',
      origins: [
        {
          kind: 'tape',
          what: 'Rivals: makers of air-cleaning plant',
          on: '2026-09-14',
          person: 'Ilona',
          keys: keys(coded(`'28.25'`, `AND c.status = 'active'`), 271),
        },
      ],
    },
    {
      name: 'Works managers to write to',
      subject: 'people',
      folder: 'Outreach',
      owner: 'Jonas',
      origins: [
        {
          kind: 'tape',
          what: 'production and management at makers',
          on: '2026-09-28',
          person: 'Jonas',
          keys: keys(`${people} AND p.id % 3 = 0 ORDER BY p.id`, 190),
        },
      ],
    },
    {
      name: 'Asked not to be written to',
      subject: 'people',
      folder: 'Outreach',
      owner: 'all of us',
      suppression: 'members',
      origins: [
        {
          kind: 'hand',
          what: 'from replies',
          on: '2026-09-28',
          person: 'Jonas',
          keys: keys(`${people} AND p.id % 11 = 0 ORDER BY p.id`, 40),
        },
      ],
    },
  ];
  for (const { origins, ...wish } of made) {
    const { key } = addList(lists, wish);
    for (const { kind, what, on, person, keys: named } of origins) {
      const origin = { kind, what, tape: null, asOf: '2026-09-30', person };
      const { origins: ids } = addMembers(lists, key, origin, { keys: named });
      lists.prepare('UPDATE list_origin SET at = ? WHERE id = ?').run(day(on), ids[0]);
      lists
        .prepare('UPDATE list_member SET added_at = ? WHERE list = ? AND origins = ?')
        .run(day(on), key, String(ids[0]));
    }
  }
  takeOff(lists, 'targets-autumn', { keys: targets.filter((_, i) => i % 90 === 3) }, 'by hand', 'Ilona');
  lists.prepare(`UPDATE list_taken SET at = ?`).run(day('2026-09-29'));
  const small = new Set(keys('c.key FROM company c WHERE c.headcount_high < 28', 1_000_000));
  const said = (list: string, share: number) => {
    const members = lists
      .prepare<[string], string>('SELECT key FROM list_member WHERE list = ? ORDER BY key')
      .pluck()
      .all(list);
    judgeSome(lists, list, members.slice(0, Math.floor(members.length * share)), small);
  };
  said('targets-autumn', 0.22);
  said('open-day-visitors', 0.8);
  said('rivals-in-air-cleaning', 0.9);
  said('works-managers-to-write-to', 0.9);
  const engineers: Combination = {
    way: 'without',
    parts: [{ list: 'targets-autumn', verdict: ['in'] }, { list: 'our-customers' }],
  };
  const { key } = addList(lists, {
    name: 'Targets for the engineers',
    folder: 'Targets',
    owner: 'Ilona',
    purpose: 'Judged in on Targets, without customers.',
  });
  combineInto(lists, key, engineers, null);
  lists.prepare('UPDATE list SET stays = ? WHERE key = ?').run(JSON.stringify(engineers), key);
  noteMembers(lists, key, null, null);
  const changed = lists.prepare('UPDATE list SET changed_at = ?, made_at = ? WHERE key = ?');
  lists
    .prepare<[], string>('SELECT key FROM list ORDER BY name')
    .pluck()
    .all()
    .forEach((list, i) => changed.run(day(`2026-09-${29 - ((i * 3) % 17)}`), day('2026-09-01'), list));
  lists.prepare('UPDATE list_judgement SET at = ?').run(day('2026-09-29'));
  lists.prepare('UPDATE list_member SET judged_at = ? WHERE judged_at IS NOT NULL').run(day('2026-09-29'));
}

/** Judges members in a fixed pattern: the small ones mostly out, of the others most in, some out for other reasons, few unsure. */
function judgeSome(lists: Db, list: string, members: readonly string[], small: ReadonlySet<string>): void {
  const groups = new Map<string, { verdict: ListVerdict; reason: string | null; keys: string[] }>();
  members.forEach((key, i) => {
    const out = small.has(key) ? i % 6 !== 1 : i % 9 === 4;
    const verdict: ListVerdict = i % 23 === 7 ? 'unsure' : out ? 'out' : 'in';
    const reason = verdict !== 'out' ? null : small.has(key) ? REASONS[0]! : REASONS[1 + (i % 4)]!;
    const name = `${verdict} ${reason}`;
    const group = groups.get(name) ?? { verdict, reason, keys: [] };
    group.keys.push(key);
    groups.set(name, group);
  });
  for (const { verdict, reason, keys } of groups.values())
    judge(lists, list, { keys }, verdict, reason, 'Ilona');
}
