import { namePartsOf } from '../people/name-parts.ts';
import { languageOf } from '../people/languages.ts';
import type { FactsOfPerson } from './facts.ts';
import { rankProofs, type Proof } from './proofs.ts';
import { wordingOf } from './steps.ts';
import { countWords, fillTemplate, type FieldValues } from './template.ts';
import { monthOf, triggerText, type TriggerWay } from './trigger.ts';

/** A template in one language. */
export interface Template {
  name: string;
  /** ISO 639-1. */
  language: string;
  subject: string;
  body: string;
}

export interface Draft {
  template: string;
  language: string;
  subject: string;
  body: string;
  proof: string | null;
  proofText: string | null;
  /** Fields that the template names and nothing is known for. */
  unfilled: string[];
  words: number;
  wording: string;
}

/** The template of a name in the language of somebody's country, else in English, else in any. Undefined where there is none. */
export function templateFor<T extends Template>(
  templates: readonly T[],
  name: string,
  country: string | null,
): T | undefined {
  const own = templates.filter((template) => template.name === name);
  const language = languageOf(country);
  return (
    own.find((template) => template.language === language) ??
    own.find((template) => template.language === 'en') ??
    own[0]
  );
}

/** What of somebody's facts each field of a template says. */
export function valuesOf(
  { name, title, company }: FactsOfPerson,
  way: TriggerWay,
  proof: string | null,
  sender: string,
): FieldValues {
  const parts = namePartsOf(name);
  return {
    'first name': parts?.given[0] ?? null,
    'last name': parts?.family.join('-') ?? null,
    name,
    title,
    company: company && shortName(company.name, company.legalForm),
    town: company?.town ?? null,
    industry: company?.industry?.toLowerCase() ?? null,
    headcount: company?.headcount == null ? null : String(Math.round(company.headcount)),
    technology: company?.technologies[0]?.label ?? null,
    'last deal':
      company?.deal == null
        ? null
        : company.deal.date === null
          ? company.deal.name
          : `${company.deal.name}, ${monthOf(company.deal.date)}`,
    trigger: triggerText(company, way),
    proof,
    sender: sender || null,
  };
}

/** A company's name without its legal form at the end. */
export function shortName(name: string, form: string | null): string {
  if (form === null || !name.toLowerCase().endsWith(form.toLowerCase())) return name;
  return name.slice(0, -form.length).trimEnd().replace(/,$/, '') || name;
}

/**
 * The message to somebody by a template. `proof` names one of the library, null none, and undefined the one that fits best.
 * @throws Problem where the template is wrong
 */
export function draftOf(
  facts: FactsOfPerson,
  template: Template,
  proofs: readonly Proof[],
  { trigger, proof, sender }: { trigger: TriggerWay; proof?: string | null | undefined; sender: string },
): Draft {
  const chosen =
    proof === undefined ? bestProof(facts, proofs) : (proofs.find(({ id }) => id === proof) ?? null);
  const values = valuesOf(facts, trigger, chosen && asSentence(chosen.text), sender);
  const subject = fillTemplate(template.subject, values, 'subject');
  const body = fillTemplate(template.body, values, 'body');
  // What nobody would read in it is not named in it.
  const named = chosen !== null && body.text.includes(values.proof!) ? chosen : null;
  return {
    template: template.name,
    language: template.language,
    subject: subject.text.replace(/\s+/g, ' '),
    body: body.text,
    proof: named?.id ?? null,
    proofText: named && values.proof,
    unfilled: [...new Set([...subject.unfilled, ...body.unfilled])],
    words: countWords(body.text),
    wording: wordingOf(body.text, ownWords(facts)),
  };
}

/** What a text says of the person and the company alone, the longest first. */
export function ownWords({ name, title, company }: FactsOfPerson): string[] {
  const short = company && shortName(company.name, company.legalForm);
  return [company?.name, short, name, ...name.split(' '), title, company?.town]
    .filter((word): word is string => Boolean(word))
    .sort((a, b) => b.length - a.length);
}

function bestProof({ company }: FactsOfPerson, proofs: readonly Proof[]): Proof | null {
  const [best] = rankProofs(proofs, {
    codes: company?.codes ?? [],
    technologies: company?.technologies.map(({ key }) => key) ?? [],
    headcount: company?.headcount ?? null,
  });
  return best?.fits ? best : null;
}

/** A proof as it stands in a message. */
export function asSentence(text: string): string {
  return /[.!?]$/.test(text) ? text : `${text}.`;
}
