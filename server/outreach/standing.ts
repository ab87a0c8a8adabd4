import type { AddresseeView, CampaignAnswer, CampaignView } from '../../contract/outreach-views.ts';
import { outreachRoll, stepsOf, type Addressee, type Step } from '../../core/outreach/steps.ts';
import type { FactsOfPerson } from '../../core/outreach/facts.ts';
import { CONFIRMED_CERTAINTY } from '../../core/people/standing.ts';
import { calls } from '../engine/calls.ts';
import type { Services } from '../services.ts';
import { campaignById } from '../tables/outreach/campaigns.ts';
import { standeesOf, writtenSince, type Standee } from '../tables/outreach/messages.ts';
import { companiesSince, countTaken } from '../tables/outreach/outbox.ts';
import { allOutcomes, optedOut } from '../tables/outreach/outcomes.ts';
import { readOutreachSettings } from '../tables/outreach/settings.ts';
import { dayStart } from './post.ts';

const DAY = 86_400_000;

export type Address = Pick<FactsOfPerson, 'mail' | 'certainty' | 'address'>;

/** Somebody of a campaign with the address of today and the step that takes them off. */
export interface Standing {
  message: Standee;
  address: Address;
  /** Null for those who go out today. */
  step: Step | null;
  writtenBy: string | null;
}

/** How everybody of a campaign stands now, in their order. One function decides for the roll, the table and the outbox. */
export async function standingOf(services: Services, campaign: CampaignView): Promise<Standing[]> {
  const { db, facts } = services.outreach;
  const messages = standeesOf(db, campaign.id);
  const keys = messages.map(({ person }) => person);
  const suppressed = new Set(await services.engine.call(calls.keptOffAmong, ['people', keys]));
  const now = new Map(facts.rows(keys).map((row) => [row.key, row]));
  const gone = optedOut(db);
  const outcomes = allOutcomes(db);
  const settings = readOutreachSettings(db);
  const lately = new Map<string, string>();
  if (campaign.quietDays > 0)
    for (const { mail, person, by, campaign: of } of writtenSince(db, Date.now() - campaign.quietDays * DAY))
      for (const key of [mail, person])
        if (of !== campaign.id || !lately.has(key)) lately.set(key, by || 'one of us');
  const standing = messages.map((message): Standing & { one: Addressee } => {
    // What went, or is about to, went to the address it was put out with.
    const address: Address =
      message.state === 'draft'
        ? (now.get(message.person) ?? { mail: null, certainty: null, address: null })
        : {
            mail: message.mail,
            certainty: message.certainty,
            address: now.get(message.person)?.address ?? null,
          };
    const mail = address.mail?.toLowerCase() ?? '';
    const writtenBy = lately.get(message.person) ?? lately.get(mail) ?? null;
    const { person, company, words, proof, wording, state } = message;
    return {
      message,
      address,
      writtenBy,
      step: null,
      one: {
        ...{ person, company, words, proof, writtenBy, mail: address.mail },
        leftOut: message.left_out === 1,
        goneOut: state !== 'draft',
        certainty: outcomes.get(mail)?.outcome === 'confirmed' ? CONFIRMED_CERTAINTY : address.certainty,
        refuted: outcomes.get(mail)?.outcome === 'refuted' || address.address === 'refuted',
        optedOut: gone.mails.has(mail) || gone.people.has(person),
        suppressed: suppressed.has(person),
        unfilled: message.unfilled === '[]' ? [] : (JSON.parse(message.unfilled) as string[]),
        sameText: wording,
      },
    };
  });
  const steps = stepsOf(
    standing.map(({ one }) => one),
    {
      certainty: campaign.certainty,
      words: campaign.words,
      askProof: campaign.askProof,
      sameText: settings.sameText,
      leftToday: Math.max(0, settings.daily - countTaken(db, dayStart())),
      companiesToday: companiesSince(db, dayStart()),
    },
  );
  return standing.map(({ message, address, writtenBy }, i) => ({
    message,
    address,
    writtenBy,
    step: steps[i]!,
  }));
}

/** The roll of a campaign, and who goes out today. */
export async function campaignAnswer(services: Services, id: string): Promise<CampaignAnswer> {
  const { db } = services.outreach;
  const campaign = campaignById(db, id);
  const standing = await standingOf(services, campaign);
  const { daily, sameText } = readOutreachSettings(db);
  const roll = outreachRoll(
    standing.map(({ step }) => step),
    {
      ...{ daily, sameText },
      certainty: campaign.certainty,
      words: campaign.words,
      quietDays: campaign.quietDays,
    },
    notesOf(campaign, standing, daily),
  );
  const today = standing.filter(({ step }) => step === null);
  return {
    campaign,
    roll,
    seen: today.filter(({ message }) => message.seen === 1).length,
    today: today.map(({ message }) => message.person),
  };
}

/** What a step says below its label: by whom, how sure, when. */
function notesOf(campaign: CampaignView, standing: readonly Standing[], daily: number) {
  const at = (step: Step) => standing.filter((one) => one.step === step);
  const by = counted(at('written-lately').map(({ writtenBy }) => writtenBy!));
  const doubtful = at('uncertain').flatMap(({ address }) => address.certainty ?? []);
  const over = at('over-limit').length;
  return {
    chosen: campaign.what,
    'no-address': 'and no pattern to make one by',
    refuted: 'a message to it came back',
    uncertain: doubtful.length ? `guesses, ${Math.min(...doubtful)} to ${Math.max(...doubtful)} %` : '',
    'opted-out': 'they want no more messages',
    suppressed: 'they or their company',
    'written-lately': by.map(([person, count]) => `${count} by ${person}`).join(', '),
    'same-company': 'one person of a company a day',
    unfilled: 'nothing is known for a field of the template',
    'over-limit':
      over === 0 ? '' : over <= daily ? `${over} tomorrow` : `${daily} tomorrow, ${over - daily} later`,
  };
}

function counted(words: readonly string[]): [string, number][] {
  const counts = new Map<string, number>();
  for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1]);
}

export function addresseeView({ message, address, step }: Standing): AddresseeView {
  const { person, company, name, title, country, state, words, seen, edited } = message;
  return {
    ...{ person, company, name, title, country, state, words, step, ...picked(address) },
    companyName: message.company_name,
    seen: seen === 1,
    edited: edited === 1,
  };
}

const picked = ({ mail, certainty, address }: Address) => ({ mail, certainty, address });
