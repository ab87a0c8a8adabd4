import { randomUUID } from 'node:crypto';
import type { CampaignChangeBody } from '../../../contract/outreach.ts';
import type { CampaignView } from '../../../contract/outreach-views.ts';
import type { PersonFunction } from '../../../core/people/functions.ts';
import type { TriggerWay } from '../../../core/outreach/trigger.ts';
import { HttpProblem } from '../../http/check.ts';
import { Problem } from '../../../core/tape/problem.ts';
import type { Db } from '../../db/open.ts';

/** Messages to several people for one purpose. */

interface CampaignRow {
  id: string;
  name: string;
  person: string;
  made_at: number;
  what: string;
  functions: string | null;
  without: number;
  template: string;
  trigger: TriggerWay;
  certainty: number;
  words: number;
  quiet_days: number;
  ask_proof: number;
  people: number;
  outbox: number;
  sent: number;
  replies: number;
}

const WITH_COUNTS = `
  SELECT c.*, count(m.id) AS people, count(CASE WHEN m.state IN ('outbox', 'sending') THEN 1 END) AS outbox,
    count(CASE WHEN m.state IN ('sent', 'perhaps', 'bounced') THEN 1 END) AS sent,
    (SELECT count(*) FROM reply r JOIN message o ON o.id = r.message WHERE o.campaign = c.id) AS replies
  FROM campaign c LEFT JOIN message m ON m.campaign = c.id`;

function viewOf(row: CampaignRow): CampaignView {
  const { id, name, person, made_at, what, functions, without, template, trigger, certainty, words } = row;
  const { people, outbox, sent, replies } = row;
  return {
    ...{
      id,
      name,
      person,
      what,
      without,
      template,
      trigger,
      certainty,
      words,
      people,
      outbox,
      sent,
      replies,
    },
    madeAt: new Date(made_at).toISOString(),
    functions: functions === null ? null : (JSON.parse(functions) as PersonFunction[]),
    quietDays: row.quiet_days,
    askProof: row.ask_proof === 1,
  };
}

/** All campaigns, the latest first. */
export function allCampaigns(db: Db): CampaignView[] {
  return db
    .prepare<[], CampaignRow>(`${WITH_COUNTS} GROUP BY c.id ORDER BY c.made_at DESC, c.id`)
    .all()
    .map(viewOf);
}

/** @throws HttpProblem where there is none */
export function campaignById(db: Db, id: string): CampaignView {
  const row = db.prepare<[string], CampaignRow>(`${WITH_COUNTS} WHERE c.id = ? GROUP BY c.id`).get(id);
  if (!row)
    throw new HttpProblem(
      404,
      'unknown-campaign',
      `There is no campaign "${id}"; it may have been removed.`,
      {
        field: 'id',
        value: id,
      },
    );
  return viewOf(row);
}

export type CampaignWish = Pick<
  CampaignView,
  | 'name'
  | 'person'
  | 'what'
  | 'functions'
  | 'template'
  | 'trigger'
  | 'certainty'
  | 'words'
  | 'quietDays'
  | 'askProof'
>;

export function addCampaign(db: Db, wish: CampaignWish): string {
  refuseTaken(db, wish.name, null);
  const id = randomUUID();
  db.prepare(
    `INSERT INTO campaign (id, name, person, made_at, what, functions, template, trigger, certainty, words, quiet_days, ask_proof)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  ).run(
    ...[id, wish.name, wish.person, Date.now(), wish.what, wish.functions && JSON.stringify(wish.functions)],
    ...[wish.template, wish.trigger, wish.certainty, wish.words, wish.quietDays, Number(wish.askProof)],
  );
  return id;
}

const COLUMNS: Readonly<Record<keyof CampaignChangeBody, string>> = {
  name: 'name',
  template: 'template',
  trigger: 'trigger',
  certainty: 'certainty',
  words: 'words',
  quietDays: 'quiet_days',
  askProof: 'ask_proof',
};

/** Changes what is said; what is left out stays. */
export function changeCampaign(db: Db, id: string, wish: CampaignChangeBody): void {
  if (wish.name !== undefined) refuseTaken(db, wish.name, id);
  db.transaction(() => {
    for (const [key, column] of Object.entries(COLUMNS)) {
      const value = wish[key as keyof CampaignChangeBody];
      if (value !== undefined)
        db.prepare(`UPDATE campaign SET ${column} = ? WHERE id = ?`).run(
          typeof value === 'boolean' ? Number(value) : value,
          id,
        );
    }
  })();
}

/** Companies of which nobody was chosen, since nobody there holds any of the functions asked for; to those before. Returns the new ones. */
export function noteWithout(db: Db, id: string, keys: readonly string[]): string[] {
  const before = new Set(companiesWithout(db, id));
  writeWithout(db, id, [...before, ...keys]);
  return keys.filter((key) => !before.has(key));
}

/** Takes companies back that were noted so. */
export function forgetWithout(db: Db, id: string, keys: readonly string[]): void {
  const gone = new Set(keys);
  writeWithout(
    db,
    id,
    companiesWithout(db, id).filter((key) => !gone.has(key)),
  );
}

function writeWithout(db: Db, id: string, keys: readonly string[]): void {
  const all = new Set(keys);
  db.prepare('UPDATE campaign SET without = ?, without_keys = ? WHERE id = ?').run(
    all.size,
    JSON.stringify([...all]),
    id,
  );
}

export function companiesWithout(db: Db, id: string): string[] {
  const text = db.prepare<[string], string>('SELECT without_keys FROM campaign WHERE id = ?').pluck().get(id);
  return JSON.parse(text ?? '[]') as string[];
}

/** Takes a campaign away with its drafts. @throws Problem where messages of it went out: they are the record of who was written to */
export function removeCampaign(db: Db, id: string): void {
  const { outbox, sent } = campaignById(db, id);
  if (outbox + sent > 0)
    throw new HttpProblem(
      409,
      'written-to',
      `${outbox + sent} of its messages are in the outbox or went out; what was written to whom is kept.`,
      { field: 'id', value: id, rule: 'a campaign of which nothing went out' },
    );
  db.prepare('DELETE FROM campaign WHERE id = ?').run(id);
}

function refuseTaken(db: Db, name: string, own: string | null): void {
  const other = db.prepare<[string], string>('SELECT id FROM campaign WHERE name = ?').pluck().get(name);
  if (other !== undefined && other !== own)
    throw new Problem('name-taken', `There is a campaign “${name}” already.`, {
      field: 'name',
      value: name,
      rule: 'a name that no other campaign has',
    });
}
