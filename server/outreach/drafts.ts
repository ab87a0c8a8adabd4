import type { MessageBody, OutreachSettingsBody } from '../../contract/outreach.ts';
import type { CampaignView, TemplateView } from '../../contract/outreach-views.ts';
import { asSentence, draftOf, ownWords, templateFor, type Draft } from '../../core/outreach/draft.ts';
import type { FactsOfPerson } from '../../core/outreach/facts.ts';
import type { Proof } from '../../core/outreach/proofs.ts';
import { wordingOf } from '../../core/outreach/steps.ts';
import { countWords, leftUnfilled } from '../../core/outreach/template.ts';
import type { TriggerWay } from '../../core/outreach/trigger.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { Outreach } from './outreach.ts';
import { allProofs, allTemplates } from '../tables/outreach/library.ts';
import {
  addAddressed,
  messagesOf,
  writeDraft,
  type Addressed,
  type MessageRow,
} from '../tables/outreach/messages.ts';
import { readOutreachSettings } from '../tables/outreach/settings.ts';

/** Drafts as templates make them, and as people change them. */

/** People drafted in one go; in between others are answered. */
const PEOPLE_A_GO = 500;

/** What drafts are made from. */
export type Drafting = Pick<Outreach, 'db' | 'facts'>;

interface Library {
  templates: TemplateView[];
  proofs: Proof[];
  settings: OutreachSettingsBody;
}

function libraryOf({ db }: Drafting): Library {
  return { templates: allTemplates(db), proofs: allProofs(db), settings: readOutreachSettings(db) };
}

/** The draft to somebody by a template of the library. @throws Problem where there is no such template */
function draftTo(
  facts: FactsOfPerson,
  { templates, proofs, settings }: Library,
  wish: { template: string; trigger: TriggerWay; proof?: string | null | undefined },
): Draft {
  const template = templateFor(templates, wish.template, facts.company?.country ?? null);
  if (!template)
    throw new Problem('unknown-template', `There is no template “${wish.template}” any more.`, {
      field: 'template',
      value: wish.template,
      rule: 'the name of a template of the library',
    });
  return draftOf(facts, template, proofs, {
    trigger: wish.trigger,
    proof: wish.proof,
    sender: settings.sender,
  });
}

/** Puts people into a campaign, each with a draft. Returns how many of them are new to it. */
export async function addPeople(
  outreach: Drafting,
  campaign: CampaignView,
  keys: readonly string[],
): Promise<number> {
  const library = libraryOf(outreach);
  let added = 0;
  for (let from = 0; from < keys.length; from += PEOPLE_A_GO) {
    const some = keys.slice(from, from + PEOPLE_A_GO);
    const facts = outreach.facts.of(some);
    const people = some.flatMap((key): Addressed[] => {
      const one = facts.get(key);
      if (!one) return [];
      const { name, title, company } = one;
      return [
        {
          ...{ person: key, name, title, trigger: campaign.trigger },
          company: company?.key ?? null,
          companyName: company?.name ?? null,
          country: company?.country ?? null,
          draft: draftTo(one, library, campaign),
        },
      ];
    });
    added += addAddressed(outreach.db, campaign.id, people);
    await new Promise((resolve) => setImmediate(resolve));
  }
  return added;
}

/** Fills all drafts of a campaign anew that nobody changed by hand: after its template, or the way it names the trigger, changed. */
export async function fillAgain(outreach: Drafting, campaign: CampaignView): Promise<number> {
  const library = libraryOf(outreach);
  const drafts = messagesOf(outreach.db, campaign.id).filter(
    ({ state, edited }) => state === 'draft' && !edited,
  );
  let filled = 0;
  for (let from = 0; from < drafts.length; from += PEOPLE_A_GO) {
    const some = drafts.slice(from, from + PEOPLE_A_GO);
    const facts = outreach.facts.of(some.map(({ person }) => person));
    outreach.db.transaction(() => {
      for (const { id, person } of some) {
        const one = facts.get(person);
        if (!one) continue;
        const draft = draftTo(one, library, campaign);
        if (writeDraft(outreach.db, id, draft, { trigger: campaign.trigger, edited: false })) filled++;
      }
    })();
    await new Promise((resolve) => setImmediate(resolve));
  }
  return filled;
}

/**
 * Changes one draft: its text by hand, or filled anew with another template, proof or trigger. A proof that is changed in a text
 * written by hand is changed in the text, where it stands there; everything else of it stays. Returns whether it was still a draft.
 */
export function changeDraft(
  outreach: Drafting,
  message: MessageRow,
  campaign: CampaignView,
  wish: MessageBody,
): boolean {
  const facts = outreach.facts.of([message.person]).get(message.person);
  const byHand = wish.subject !== undefined || wish.body !== undefined;
  const library = libraryOf(outreach);
  const trigger = wish.trigger ?? message.trigger;
  if (byHand || (message.edited === 1 && wish.template === undefined && wish.trigger === undefined)) {
    const draft = rewritten(message, facts, library.proofs, wish);
    return writeDraft(outreach.db, message.id, draft, { trigger, edited: true });
  }
  if (!facts)
    throw new Problem(
      'unknown-person',
      `${message.name} is in no source any more; the draft can be written by hand only.`,
      {
        field: 'person',
        value: message.person,
      },
    );
  const draft = draftTo(facts, library, {
    template: wish.template ?? message.template ?? campaign.template,
    trigger,
    proof: wish.proof === undefined ? (wish.template === undefined ? message.proof : undefined) : wish.proof,
  });
  return writeDraft(outreach.db, message.id, draft, { trigger, edited: false });
}

function rewritten(
  message: MessageRow,
  facts: FactsOfPerson | undefined,
  proofs: readonly Proof[],
  wish: MessageBody,
): Draft {
  const subject = wish.subject ?? message.subject;
  let body = wish.body ?? message.body;
  let [proof, proofText] = [message.proof, message.proof_text];
  if (wish.proof !== undefined) {
    const chosen = proofs.find(({ id }) => id === wish.proof);
    const text = chosen ? asSentence(chosen.text) : '';
    if (proofText !== null && body.includes(proofText)) body = body.replace(proofText, () => text).trim();
    else if (text !== '') body = `${body.trimEnd()}\n\n${text}`;
    [proof, proofText] = chosen ? [chosen.id, text] : [null, null];
  }
  // A proof whose words were taken out of the text is named no more.
  if (proofText !== null && !body.includes(proofText)) [proof, proofText] = [null, null];
  const names = facts ? ownWords(facts) : [message.name, message.company_name];
  return {
    template: message.template!,
    language: message.language!,
    ...{ subject, body, proof, proofText },
    unfilled: leftUnfilled(`${subject}\n${body}`),
    words: countWords(body),
    wording: wordingOf(body, names),
  };
}
