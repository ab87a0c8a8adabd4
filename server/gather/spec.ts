import type { GatherSpecBody, StepBody } from '../../contract/gather.ts';
import type { Step } from '../../core/gather/forms.ts';
import type { Example, TaughtField } from '../../core/gather/lesson.ts';
import { MOST_SEARCHES } from '../../core/gather/words-places.ts';
import { Problem } from '../../core/tape/problem.ts';

/** What a gatherer reads, as it is kept. */
export interface GatherSpec extends Omit<GatherSpecBody, 'steps' | 'detail' | 'sites'> {
  steps: Step[];
  detail: { page: number; fields: TaughtField[] } | null;
  sites: { list: string } | null;
}

/** A gatherer's wish as it is kept. @throws Problem naming a step that lacks what it needs, or an address that is none */
export function specOf(body: GatherSpecBody): GatherSpec {
  const { start } = body;
  if (start !== '' && !/^https?:\/\/[^\s/]+/i.test(start))
    throw new Problem('wrong-address', `“${start}” is no address of a page.`, {
      field: 'spec.start',
      value: start,
      rule: 'an address that begins with https:// or http://',
    });
  const { detail } = body;
  return {
    ...body,
    steps: body.steps.map(stepOf),
    detail: detail ? { page: detail.page, fields: detail.fields } : null,
    sites: body.sites ? { list: body.sites.list } : null,
  };
}

const NEEDED = {
  type: ['into', 'text'],
  choose: ['in', 'option'],
  tick: ['box', 'on'],
  press: ['button'],
  wait: ['seconds'],
} as const;

function stepOf(step: StepBody, i: number): Step {
  const lacking = NEEDED[step.do].find((name) => step[name] === undefined);
  if (lacking !== undefined)
    throw new Problem('wrong-step', `Step ${i + 1}, ${step.do}, lacks ${lacking}.`, {
      field: `spec.steps[${i}].${lacking}`,
      rule: `${step.do} has ${NEEDED[step.do].join(' and ')}`,
    });
  return Object.fromEntries(
    ['do', ...NEEDED[step.do]].map((name) => [name, step[name as keyof StepBody]]),
  ) as unknown as Step;
}

/** Examples with the names of their pages. */
export const examplesOf = ({ examples }: Pick<GatherSpec, 'examples'>): Example[] =>
  examples.map(({ page, ...example }) => ({ ...example, page: String(page) }));

/** @throws Problem where words and places are more searches than one gatherer does */
export function checkSearches({ words, places }: Pick<GatherSpec, 'words' | 'places'>): void {
  const searches = Math.max(1, words.length) * Math.max(1, places.length);
  if (searches > MOST_SEARCHES)
    throw new Problem(
      'too-many-searches',
      `${words.length} words at ${places.length} places are ${searches} searches.`,
      { field: 'spec.words', value: searches, rule: `at most ${MOST_SEARCHES}` },
    );
}
