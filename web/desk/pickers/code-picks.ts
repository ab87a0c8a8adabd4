import type { Scheme } from '../../../core/codes/tree.ts';
import type { CodesTest } from '../../../core/tape/nodes.ts';

/** The parent of a code, or null at the top. */
type ParentOf = (code: string) => string | null;

/** Whether a code is picked: by itself or a code above, and not excepted; or some below it are. */
export function codeState(
  test: CodesTest | null,
  code: string,
  parentOf: ParentOf,
  abovePicked: ReadonlySet<string>,
): 'yes' | 'some' | 'no' {
  if (!test) return 'no';
  if (covered(test, code, parentOf))
    return (test.except ?? []).some((one) => isUnder(one, code, parentOf)) ? 'some' : 'yes';
  return abovePicked.has(code) ? 'some' : 'no';
}

/** The test with a code picked or let go. Letting go of a code inside a picked branch makes it an exception. Null where nothing is left. */
export function toggleCode(
  test: CodesTest | null,
  scheme: Scheme,
  code: string,
  parentOf: ParentOf,
  rank: 'main' | 'any' | undefined,
): CodesTest | null {
  const any = [...(test?.any ?? [])];
  const except = [...(test?.except ?? [])];
  const build = (nextAny: string[], nextExcept: string[]): CodesTest | null =>
    nextAny.length === 0
      ? null
      : {
          scheme,
          any: nextAny,
          ...(nextExcept.length ? { except: nextExcept } : {}),
          ...(rank ? { rank } : {}),
          ...(test?.kin ? { kin: test.kin } : {}),
        };
  if (test && covered(test, code, parentOf)) {
    const outside = (one: string) => one !== code && !isUnder(one, code, parentOf);
    const rest = any.filter(outside);
    const stillCovered = covered({ ...test, any: rest }, code, parentOf);
    const remaining = except.filter(outside);
    return build(
      rest,
      stillCovered
        ? [...remaining, code]
        : remaining.filter((one) => rest.some((top) => isUnder(one, top, parentOf))),
    );
  }
  const excepted = except.filter(
    (one) => one !== code && !isUnder(one, code, parentOf) && !isUnder(code, one, parentOf),
  );
  const inBranch = any.some((one) => isUnder(code, one, parentOf));
  return build(inBranch ? any : [...any.filter((one) => !isUnder(one, code, parentOf)), code], excepted);
}

function covered(test: CodesTest, code: string, parentOf: ParentOf): boolean {
  for (let at: string | null = code; at !== null; at = parentOf(at)) {
    if (test.except?.includes(at)) return false;
    if (test.any.includes(at)) return true;
  }
  return false;
}

/** Whether a code lies strictly below another. */
function isUnder(code: string, top: string, parentOf: ParentOf): boolean {
  for (let at = parentOf(code); at !== null; at = parentOf(at)) if (at === top) return true;
  return false;
}
