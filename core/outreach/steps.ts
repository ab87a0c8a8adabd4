import { rolled, type Roll } from '../lists/roll.ts';

/** Why somebody of a campaign is not written to today: the steps of its roll, the first that holds counts. */
export const STEPS = [
  'left-out',
  'gone-out',
  'no-address',
  'refuted',
  'uncertain',
  'opted-out',
  'suppressed',
  'written-lately',
  'same-company',
  'unfilled',
  'too-long',
  'no-proof',
  'same-text',
  'over-limit',
] as const;
export type Step = (typeof STEPS)[number];

/** Somebody of a campaign, with what decides whether the message goes. */
export interface Addressee {
  person: string;
  company: string | null;
  leftOut: boolean;
  /** Whether this campaign's message waits in the outbox or has left it. */
  goneOut: boolean;
  mail: string | null;
  /** In percent; null where there is no address. */
  certainty: number | null;
  refuted: boolean;
  optedOut: boolean;
  suppressed: boolean;
  /** Who of us wrote lately, or null. */
  writtenBy: string | null;
  unfilled: readonly string[];
  words: number;
  proof: string | null;
  /** The text without the names in it: many with the same one are a mass mailing. */
  sameText: string;
}

export interface Rules {
  /** In percent. */
  certainty: number;
  words: number;
  askProof: boolean;
  /** Messages of one wording that may go out. */
  sameText: number;
  /** Messages that may go out today still. */
  leftToday: number;
  /** Companies somebody was written to today already. */
  companiesToday: ReadonlySet<string>;
}

/**
 * The step at which each is taken off, or null for those who are written to today, in the order of the campaign. One person of
 * a company is written to on a day; once so many have the same wording, the next of it wait.
 */
export function stepsOf(people: readonly Addressee[], rules: Rules): (Step | null)[] {
  const companies = new Set(rules.companiesToday);
  const wordings = new Map<string, number>();
  let left = rules.leftToday;
  return people.map((one) => {
    const step = ownStep(one, rules);
    if (step) return step;
    if (one.company !== null && companies.has(one.company)) return 'same-company';
    const flaw = flawOf(one, rules);
    if (flaw) return flaw;
    const same = wordings.get(one.sameText) ?? 0;
    if (same >= rules.sameText) return 'same-text';
    if (left <= 0) return 'over-limit';
    wordings.set(one.sameText, same + 1);
    if (one.company !== null) companies.add(one.company);
    left--;
    return null;
  });
}

function ownStep(one: Addressee, { certainty }: Rules): Step | null {
  if (one.leftOut) return 'left-out';
  if (one.goneOut) return 'gone-out';
  if (one.mail === null) return 'no-address';
  if (one.refuted) return 'refuted';
  if ((one.certainty ?? 0) < certainty) return 'uncertain';
  if (one.optedOut) return 'opted-out';
  if (one.suppressed) return 'suppressed';
  if (one.writtenBy !== null) return 'written-lately';
  return null;
}

function flawOf(one: Addressee, { words, askProof }: Rules): Step | null {
  if (one.unfilled.length) return 'unfilled';
  if (one.words > words) return 'too-long';
  if (askProof && one.proof === null) return 'no-proof';
  return null;
}

/** What the steps of a roll say, with what of the settings they name. */
export interface StepWords {
  certainty: number;
  words: number;
  quietDays: number;
  sameText: number;
  daily: number;
}

const LABELS: Readonly<Record<Step, (words: StepWords) => string>> = {
  'left-out': () => 'Left out by hand',
  'gone-out': () => 'In the outbox or gone out',
  'no-address': () => 'No address',
  refuted: () => 'Address came back',
  uncertain: ({ certainty }) => `Address below ${certainty} %`,
  'opted-out': () => 'Opted out',
  suppressed: () => 'On a suppression list',
  'written-lately': ({ quietDays }) => `Written to in the past ${quietDays} days`,
  'same-company': () => 'Second of a company today',
  unfilled: () => 'Fields not filled',
  'too-long': ({ words }) => `Over ${words} words`,
  'no-proof': () => 'No proof named',
  'same-text': ({ sameText }) => `Same wording as ${sameText} others`,
  'over-limit': ({ daily }) => `Over today’s limit of ${daily}`,
};

/** Steps that stand on every roll, since what they ask is a choice of one's own. */
const ALWAYS: ReadonlySet<Step> = new Set(['no-address', 'uncertain', 'written-lately', 'over-limit']);

/** The roll of a campaign: those chosen, what takes off whom, and how many go out today. `notes` say more of a step. */
export function outreachRoll(
  steps: readonly (Step | null)[],
  words: StepWords,
  notes: Partial<Record<Step | 'chosen', string>>,
): Roll {
  const counts = new Map<Step, number>();
  for (const step of steps) if (step) counts.set(step, (counts.get(step) ?? 0) + 1);
  return rolled([
    { step: 'chosen', label: 'People chosen', note: notes.chosen ?? '', delta: steps.length },
    ...STEPS.filter((step) => counts.has(step) || ALWAYS.has(step)).map((step) => ({
      step,
      label: LABELS[step](words),
      note: notes[step] ?? '',
      delta: 0 - (counts.get(step) ?? 0),
    })),
  ]);
}

/** A text with the names that are a person's and a company's own taken out, in lower case, by which wordings are compared. */
export function wordingOf(text: string, names: readonly (string | null)[]): string {
  let plain = text;
  for (const name of names) if (name) plain = plain.replaceAll(name, '');
  return plain.toLowerCase().replace(/\s+/g, ' ').trim();
}
