import { OutreachSettingsBody, type ProofBody, type TemplateBody } from '../contract/outreach.ts';
import type { ReplyKind } from '../core/outreach/reply-kind.ts';
import { dayOf } from '../core/dates.ts';
import { DEMO_AS_OF } from './days.ts';
import { openLists, openOutreach, type Db } from '../server/db/open.ts';
import { addPeople } from '../server/outreach/drafts.ts';
import { OPTED_OUT_LIST } from '../server/outreach/outreach.ts';
import { PersonFacts } from '../server/outreach/person-facts.ts';
import { answerOf, type Answer } from '../server/outreach/stand-in/behaviour.ts';
import { loadCodeTrees } from '../server/reference.ts';
import { addList } from '../server/tables/lists/list-rows.ts';
import { addMembers } from '../server/tables/lists/members.ts';
import { addCampaign, campaignById } from '../server/tables/outreach/campaigns.ts';
import { allTemplates, writeProof, writeTemplate } from '../server/tables/outreach/library.ts';
import { messagesOf } from '../server/tables/outreach/messages.ts';
import { noteOutcome, optOut } from '../server/tables/outreach/outcomes.ts';
import { writeOutreachSettings } from '../server/tables/outreach/settings.ts';

/** What the desk at Ternhollow Filtration writes: its templates and proofs, a round that went out, and one that is being written. */

const SEED = 20_260_930;
const DAY = 86_400_000;

const TEMPLATES: readonly Omit<TemplateBody, 'language'>[] = [
  {
    name: 'Spray lines, short',
    subject: 'Cleaner air at {company}',
    body: 'Dear {name},\n\n[With {trigger} there may be more air to clean. ][{proof}]\n\nMay our engineer look in one day?',
  },
  {
    name: 'After a loan',
    subject: 'Air for what comes next at {company}',
    body: 'Dear {name},\n\nNew plant often needs cleaner air sooner than planned. [{proof} ]Shall we measure yours, at no cost?',
  },
  {
    name: 'Small joineries, open day',
    subject: 'An open day near {town}',
    body: 'Dear {name},\n\nwe show dust extraction for small workshops at our open day near Brno. [{proof} ]May we keep a place for {company}?',
  },
];

type Fact = Pick<ProofBody, 'text' | 'industries' | 'from' | 'to' | 'source' | 'since'>;
const fact = (
  text: string,
  industries: string[],
  from: number | null,
  to: number | null,
  since: string,
): Fact => ({
  ...{ text, industries, from, to, since },
  source: 'our own measurements, report on the shared drive',
});
const PROOFS: readonly Fact[] = [
  fact(
    'A joinery near Olomouc has 71 % less solvent in the air without a new stack',
    ['16', '31', '43.32'],
    10,
    249,
    '2024-03-01',
  ),
  fact('A boatyard at Ustka changes filters twice a year, not six times', ['30'], null, null, '2025-05-01'),
  fact(
    'A coating shop in Zlín warms its hall with the heat of the exhaust since 2024',
    ['25', '22'],
    20,
    null,
    '2024-11-01',
  ),
  fact(
    'A printer at Linz gets half of the solvent it buys back from the air',
    ['18'],
    null,
    null,
    '2023-09-01',
  ),
  fact('A moulder near Aarhus runs two lines on one fan', ['22', '30'], 20, 249, '2025-10-01'),
  fact(
    'A furniture maker in Riga passed its dust inspection at the first visit',
    ['31', '16'],
    null,
    99,
    '2025-02-01',
  ),
  fact('A carpenter of four in Tábor spends 90 euros a year on filters', ['16', '43'], 0, 9, '2025-06-01'),
  fact('No plant of ours has stood still for more than a day in five years', [], null, null, '2026-01-01'),
];

/** Heads of production and the like at companies of some codes, who can be reached. */
function people(universe: Db, codes: readonly string[], limit: number, offset: number): string[] {
  return universe
    .prepare<[string, number, number], string>(
      `SELECT min(p.key) FROM person p JOIN company c ON c.id = p.company_id JOIN company_code k ON k.company_id = c.id AND k.rank = 0
       WHERE k.scheme = 'nace-2.1' AND k.code IN (SELECT value FROM json_each(?)) AND c.status = 'active'
         AND p.department = 'production' AND p.level IN ('head', 'director')
       GROUP BY c.id ORDER BY c.id LIMIT ? OFFSET ?`,
    )
    .pluck()
    .all(JSON.stringify(codes), limit, offset);
}

/** Fills what is written unless something is written already. */
export async function fillOutreach(dir: string, universe: Db): Promise<void> {
  const db = openOutreach(dir);
  const lists = openLists(dir);
  try {
    if (allTemplates(db).length) return;
    writeOutreachSettings(
      db,
      Object.assign(new OutreachSettingsBody(), {
        sender: 'Ilona Marsk',
        mail: 'ilona.marsk@ternhollow.example',
        signature: 'Ilona Marsk, Ternhollow Filtration',
        words: 45,
      }),
    );
    for (const template of TEMPLATES) writeTemplate(db, { ...template, language: 'en' });
    for (const proof of PROOFS) writeProof(db, { ...proof, technologies: [] });
    const facts = new PersonFacts(universe, loadCodeTrees().get('nace-2.1')!, () => dayOf(DEMO_AS_OF)!);
    const rules = { certainty: 80, quietDays: 90, askProof: false, words: 45 };
    const went = addCampaign(db, {
      ...rules,
      ...{
        name: 'Summer round: coating shops',
        person: 'Hana',
        what: 'Coating shops, summer',
        functions: null,
      },
      ...{ template: 'After a loan', trigger: 'named' },
    });
    await addPeople({ db, facts }, campaignById(db, went), people(universe, ['25.51', '25.53'], 70, 0));
    send(db, lists, went, facts);
    const written = addCampaign(db, {
      ...rules,
      ...{
        name: 'Autumn round: works managers',
        person: 'Ilona',
        what: 'Works managers, autumn',
        functions: null,
      },
      ...{ template: 'Spray lines, short', trigger: 'named' },
    });
    const chosen = [
      ...people(universe, ['16.23', '16.25', '31.00', '22.26', '18.12'], 120, 0),
      ...people(universe, ['25.51'], 15, 10),
    ];
    await addPeople({ db, facts }, campaignById(db, written), chosen);
  } finally {
    db.close();
    lists.close();
  }
}

const REPLIES: Readonly<Record<Exclude<Answer, 'none'>, [ReplyKind, string]>> = {
  yes: ['answered', 'Thank you for your note. Please come by on Thursday at ten.'],
  question: ['answered', 'What would that cost for a hall of 1,200 square metres?'],
  no: ['opted-out', 'No.'],
  away: ['out-of-office', 'I am out of the office. In urgent matters please ring the office.'],
  'comes-back': ['bounced', 'There is no such mailbox any more.'],
};

/** Lets the messages of a campaign have gone out some weeks ago, and what came back have come. */
function send(db: Db, lists: Db, campaign: string, facts: PersonFacts): void {
  const now = Date.now();
  const sent = db.prepare(
    `UPDATE message SET state = ?, mail = ?, certainty = ?, seen = 1, put_at = ?, put_by = ?, sent_at = ?, message_id = ? WHERE id = ?`,
  );
  const reply = db.prepare(
    'INSERT INTO reply (message, sender, subject, body, kind, at, done, meeting) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
  );
  const out: string[] = [];
  const messages = messagesOf(db, campaign);
  const reached = facts.of(messages.map(({ person }) => person));
  messages.forEach(({ id, person, subject }, nth) => {
    const { mail, certainty } = reached.get(person)!;
    if (mail === null || (certainty ?? 0) < 80) return;
    const at = now - (44 + (nth % 12)) * DAY;
    const answer = answerOf(SEED, mail);
    const bounced = answer === 'comes-back';
    sent.run(
      bounced ? 'bounced' : 'sent',
      mail,
      certainty,
      at,
      nth % 3 ? 'Hana' : 'Ilona',
      at,
      `<just-tally.demo-${id}@ternhollow.example>`,
      id,
    );
    if (answer === 'none') return;
    const [kind, text] = REPLIES[answer];
    reply.run(id, mail, `Re: ${subject}`, text, kind, at + DAY, nth % 4 ? 1 : 0, answer === 'yes' ? 1 : 0);
    if (bounced) noteOutcome(db, { mail, outcome: 'refuted', how: 'a message to it came back' });
    if (kind === 'opted-out') {
      optOut(db, mail, person);
      out.push(person);
    }
  });
  if (out.length === 0) return;
  const { key } = addList(lists, {
    ...{ name: OPTED_OUT_LIST, subject: 'people', owner: 'Ilona', suppression: 'members' },
    purpose: 'They answered that they want no more messages.',
  });
  const origin = { kind: 'hand' as const, what: 'answers by mail', tape: null, asOf: null, person: 'Ilona' };
  addMembers(lists, key, origin, { keys: out });
}
