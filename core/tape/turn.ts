import { relationsOf, subjectOf } from '../fields/registry.ts';
import { renamed } from './edit.ts';
import { emptyTape, isBlock, isHas, isLive, type HasLine, type Line, type Tape } from './nodes.ts';
import { Problem } from './problem.ts';

/** Has-lines within each other that a tape may have. */
const MOST_DEEP = 2;

/** How many has-lines stand within each other at most. */
function depthOf(lines: readonly Line[]): number {
  return lines.reduce((most, line) => {
    if (isBlock(line)) return Math.max(most, depthOf(line.either));
    return isHas(line) ? Math.max(most, 1 + depthOf(line.lines)) : most;
  }, 0);
}

/** The same lines under ids of their own, in order. */
function renumbered(lines: readonly Line[]): Line[] {
  return lines.map((line, i) => renamed(line, `l${i + 1}`));
}

/**
 * The tape on another subject that keeps what hangs together with what a tape keeps: the people at these companies, the companies of
 * these people, and from one to another by way of their companies. The first tape stands inside as a has-line; one that
 * already looks up to companies is taken out of it again.
 * @throws Problem where that would nest has-lines deeper than can be read
 */
export function turnRound(tape: Pick<Tape, 'subject' | 'lines'>, to: string): Tape {
  if (tape.subject === to) return { ...emptyTape(to), lines: tape.lines };
  const companies = tape.subject === 'companies' ? tape.lines : companiesOf(tape);
  const whole = companies.length ? [{ id: 'l1', has: 'company', lines: companies } as HasLine] : [];
  const lines = to === 'companies' ? companies : whole;
  if (depthOf(lines) > MOST_DEEP)
    throw new Problem(
      'nested-too-deep',
      `These lines look through has-lines already; turned round to ${to} they would stand three deep. Take the innermost has-line off first.`,
      { rule: 'at most one has-line within another' },
    );
  return { ...emptyTape(to), lines: renumbered(lines) };
}

/** Lines on companies for a tape on what hangs on them. */
function companiesOf({ subject, lines }: Pick<Tape, 'subject' | 'lines'>): Line[] {
  const looksUp = (line: Line): line is HasLine =>
    isHas(line) &&
    isLive(line) &&
    !line.not &&
    !line.unknown &&
    line.as === undefined &&
    line.count === undefined;
  const up = lines.filter(looksUp).flatMap((line) => line.lines);
  const own = lines.filter((line) => !looksUp(line));
  return [
    ...up,
    ...(own.length || up.length === 0 ? [{ id: 'own', has: subject, lines: own } as HasLine] : []),
  ];
}

/** The records that a has-line counts for one company: a tape on their subject. */
export function relatedTape(line: HasLine, company: string): Tape {
  const subject = subjectOf(line.has).id;
  const up: HasLine = {
    id: 'l0',
    has: 'company',
    ...(line.as === undefined ? {} : { as: line.as }),
    lines: [{ id: 'l00', field: 'company', test: { any: [company] } }],
  };
  return { ...emptyTape(subject), lines: renumbered([up, ...line.lines]) };
}

/** The subject that the lines of a has-line are on. */
export function subjectWithin(tape: Pick<Tape, 'subject' | 'lines'>, holder: string): string {
  const within = (lines: readonly Line[], subject: string): string | undefined => {
    for (const line of lines) {
      const found = isBlock(line)
        ? within(line.either, subject)
        : isHas(line)
          ? line.id === holder
            ? relationsOf(subject).get(line.has)!.id
            : within(line.lines, relationsOf(subject).get(line.has)!.id)
          : undefined;
      if (found) return found;
    }
    return undefined;
  };
  return within(tape.lines, tape.subject) ?? tape.subject;
}
