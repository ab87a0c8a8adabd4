import type {
  CampaignAnswer,
  OutreachAnswer,
  PutOutAnswer,
  RepliesAnswer,
} from '../../contract/outreach-views.ts';
import type { UploadAnswer } from '../../contract/responses.ts';
import {
  answerOf,
  hostKindOf,
  mailboxExists,
  UNKNOWN_CERTAINTY,
  type Answer,
  type HostKind,
} from '../outreach/stand-in/behaviour.ts';
import { tape, TestServer } from './test-server.ts';

/** The seed of the stand-in for the world's mailboxes. */
const SEED = 20_260_930;
/** Of an address that a source records. */
const CERTAINTY = 97;

const COMPANIES = 'name,registration,country,web,town,founded,headcount,nace';
const PEOPLE = 'Full name,Job title,Company domain,Level,Department,E-mail';

export interface Somebody {
  name: string;
  mail: string;
  domain: string;
}

/** Somebody whose stand-in mailbox does just this, by trying domains until one does. */
function somebodyWho(does: Answer | 'missing', nth: number): Somebody {
  for (let n = 0; ; n++) {
    const domain = `firm-${nth}-${n}.example`;
    const mail = `iva.test@${domain}`;
    const there = mailboxExists(SEED, mail, CERTAINTY);
    if (hostKindOf(SEED, domain) !== 'honest') continue;
    if (does === 'missing' ? !there : there && answerOf(SEED, mail) === does)
      return { name: 'Iva Test', mail, domain };
  }
}

/** An address at a host of a kind, of a mailbox that is there or not; nobody in the universe has it. */
export function mailboxAt(kind: HostKind, there: boolean): string {
  for (let n = 0; ; n++) {
    const mail = `somebody@host-${n}.example`;
    if (
      hostKindOf(SEED, `host-${n}.example`) === kind &&
      mailboxExists(SEED, mail, UNKNOWN_CERTAINTY) === there
    )
      return mail;
  }
}

/** A tape on people. */
export const everybody = (lines: object[] = []) => ({ ...tape(lines), subject: 'people' });
const ofSource = (source: string) => everybody([{ id: 'a', field: 'source', test: { any: [source] } }]);
/** Those whose mailboxes answer, and those at three companies that nobody has written to at. */
export const ANSWERING = ofSource('people');
export const OTHERS = ofSource('more-people');

/** A server with people to write to, templates and proofs. */
export class OutreachDesk extends TestServer {
  private campaigns = 0;
  people: Somebody[] = [];

  /** Starts with people whose mailboxes do just this, and three others whose do nothing of note. */
  async open(does: readonly (Answer | 'missing')[]): Promise<void> {
    await this.start(5);
    this.people = does.map(somebodyWho);
    const firms = this.people.map(
      ({ domain }, i) => `Alder ${i} s.r.o.,${100 + i},CZ,${domain},Brno,1999,2${i}0,25.51`,
    );
    const more = [1, 2, 3].map((n) => `Birch ${n} a.s.,${200 + n},CZ,birch-${n}.example,Brno,2000,40,25.51`);
    await this.loadAs('Companies', [COMPANIES, ...firms, ...more]);
    if (does.length)
      await this.loadAs(
        'People',
        [
          PEOPLE,
          ...this.people.map(
            ({ name, mail, domain }) => `${name},Works manager,${domain},head,production,${mail}`,
          ),
        ],
        'people',
      );
    await this.loadAs(
      'More people',
      [PEOPLE, ...[1, 2, 3].map((n) => `Oto Other,Owner,birch-${n}.example,owner,,oto@birch-${n}.example`)],
      'people',
    );
    await this.settings({ sender: 'Jonas Tilgard', mail: 'jonas@ternhollow.example', sameText: 50 });
    await this.api.post('/api/outreach/templates').send({
      name: 'Spray lines',
      subject: 'Air for {company}',
      body: 'Dear {name}, clean air for {company}. [We saw {technology}. ][{proof}] May we call?',
    });
    for (const [text, industry] of [
      ['Solvent in the air down by 71 %', '25'],
      ['Boats need less', '30'],
    ] as const)
      await this.api.post('/api/outreach/proofs').send({ text, industries: [industry] });
  }

  async loadAs(name: string, lines: readonly string[], subject?: string): Promise<void> {
    const preview = (await this.upload(name, Buffer.from(lines.join('\n')))).body as UploadAnswer;
    const { encoding, delimiter } = preview;
    const read = { encoding, delimiter, hasHeader: true, ...(subject ? { subject } : {}) };
    const { job } = await this.load(preview, { name, read });
    if (job.state !== 'done') throw new Error(`${name} was not loaded: ${job.message}`);
  }

  async outreach(): Promise<OutreachAnswer> {
    return (await this.api.get('/api/outreach')).body as OutreachAnswer;
  }

  async settings(more: object): Promise<void> {
    const { settings } = await this.outreach();
    const { status, text } = await this.api.put('/api/outreach/settings').send({ ...settings, ...more });
    if (status !== 200) throw new Error(text);
  }

  /** A new campaign; of OTHERS where nothing else is said. */
  async campaign(more: object = {}): Promise<CampaignAnswer> {
    const answer = await this.api
      .post('/api/campaigns')
      .send({ name: `Campaign ${++this.campaigns}`, tape: OTHERS, ...more });
    if (answer.status !== 201) throw new Error(answer.text);
    return answer.body as CampaignAnswer;
  }

  async campaignNow({ campaign: { id } }: CampaignAnswer): Promise<CampaignAnswer> {
    return (await this.api.get(`/api/campaigns/${id}`)).body as CampaignAnswer;
  }

  see({ campaign: { id } }: CampaignAnswer, people: string[]) {
    return this.api.post(`/api/campaigns/${id}/seen`).send({ people });
  }

  /** Looks at all that goes out today and puts it in the outbox. */
  async sendAll(one: CampaignAnswer): Promise<PutOutAnswer> {
    if (one.today.length) await this.see(one, one.today);
    const answer = await this.api.post(`/api/campaigns/${one.campaign.id}/outbox`).send({});
    if (answer.status !== 200) throw new Error(answer.text);
    return answer.body as PutOutAnswer;
  }

  /** What came back, once the outbox is empty and so many replies are there. */
  async settled(replies: number): Promise<RepliesAnswer> {
    for (;;) {
      const { outbox } = await this.outreach();
      const answer = (await this.api.get('/api/outreach/replies')).body as RepliesAnswer;
      if (outbox.waiting === 0 && answer.total >= replies) return answer;
    }
  }
}

/** Steps of a roll that take somebody off, or add, with how many. */
export const stepsOf = ({ roll }: CampaignAnswer) =>
  Object.fromEntries(roll.steps.flatMap(({ step, delta }) => (delta === 0 ? [] : [[step, delta]])));
