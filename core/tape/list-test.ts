import type { Field } from '../fields/field.ts';
import { isStep } from '../lists/steps.ts';
import { checkCarried } from './carried.ts';
import type { Lookup } from './lookup.ts';
import { VERDICTS, type ListTest, type ListVerdict } from './nodes.ts';
import { Problem } from './problem.ts';
import { oneOfAt, onlyKeys, texts, wrong } from './shapes.ts';
import { spanAt } from './span-at.ts';

/** Checks the test of a line on lists. @throws Problem */
export function checkListTest(
  field: Field,
  raw: Record<string, unknown>,
  at: string,
  lookup: Lookup,
): ListTest {
  onlyKeys(raw, at, ['any', 'verdict', 'reason', 'tag', 'assigned', 'added', 'judged', 'step', 'carried']);
  const { step } = raw;
  if (step !== undefined && !(typeof step === 'string' && isStep(step)))
    throw wrong(`${at}.step`, step, 'a step of a roll such as "origin-3"');
  const said = (key: 'reason' | 'tag' | 'assigned') =>
    raw[key] === undefined ? {} : { [key]: texts(raw[key], `${at}.${key}`) };
  const within = (key: 'added' | 'judged') =>
    raw[key] === undefined ? {} : { [key]: spanAt(raw[key], `${at}.${key}`) };
  const lists = new Set(lookup.choices(field).map((choice) => choice.key));
  return {
    any: texts(raw.any, `${at}.any`, (key, where) => {
      if (!lists.has(key))
        throw new Problem(
          'unknown-list',
          `There is no list "${key}" of ${field.subject} in this workspace.`,
          {
            field: where,
            value: key,
            rule: `the key of a list of ${field.subject}`,
          },
        );
    }),
    ...(raw.verdict === undefined
      ? {}
      : {
          verdict: texts(raw.verdict, `${at}.verdict`, (one, where) =>
            oneOfAt(one, where, VERDICTS),
          ) as ListVerdict[],
        }),
    ...said('reason'),
    ...said('tag'),
    ...said('assigned'),
    ...within('added'),
    ...within('judged'),
    ...(step === undefined ? {} : { step }),
    ...(raw.carried === undefined ? {} : { carried: checkCarried(raw.carried, `${at}.carried`) }),
  };
}
