import { fieldOf, SUBJECTS } from '../fields/registry.ts';
import type { Lookup } from './lookup.ts';
import { isBlock, isHas, isLive, liveBranches, type Leaf, type Line, type Tape } from './nodes.ts';
import { wordLine } from './wording.ts';

/**
 * A tape as one plain English sentence: "Companies that have industry 25.51 coating of metals (NACE 2.1) and headcount
 * 20 to 249, but not status closed; unknown headcount is kept." Parked lines are not read.
 */
export function readTape(tape: Tape, lookup: Lookup): string {
  const live = tape.lines.filter(isLive);
  const many = SUBJECTS.get(tape.subject)!.many;
  const whole = `${many.charAt(0).toUpperCase()}${many.slice(1)}`;
  if (live.length === 0) return `All ${many}.`;
  const kept = live.filter((line) => !line.not);
  const left = live.filter((line) => line.not);
  const phrase = (line: Line) => phraseOf(line, tape.subject, lookup);
  const notes = live.flatMap((line) => noteOf(line, tape.subject));
  return [
    whole,
    kept.length ? ` with ${listed(kept.map(phrase), 'and')}` : '',
    left.length ? `${kept.length ? ', but' : ''} without ${listed(left.map(phrase), 'or')}` : '',
    notes.length ? `; ${notes.join(', ')}` : '',
    '.',
  ].join('');
}

function phraseOf(line: Line, subject: string, lookup: Lookup): string {
  if (isBlock(line))
    return `either ${listed(
      liveBranches(line).map((one) => (one.not ? 'not ' : '') + branchOf(one, subject, lookup)),
      'or',
    )}`;
  return branchOf(line, subject, lookup);
}

function branchOf(line: Leaf, subject: string, lookup: Lookup): string {
  const { label, text } = wordLine(line, subject, lookup);
  if (isHas(line)) return `${label.replace(/^\w+ /, '')} ${text}`;
  return `${label.charAt(0).toLowerCase()}${label.slice(1)} ${text}`;
}

/** What happens to unknown records where a line says so itself. */
function noteOf(line: Line, subject: string): string[] {
  if (!line.unknown) return [];
  const of = isBlock(line)
    ? 'the choice'
    : isHas(line)
      ? `the number of ${line.has}`
      : fieldOf(subject, line.field)!.label.toLowerCase();
  return [`where ${of} is unknown they are ${line.unknown === 'keep' ? 'kept' : 'left out'}`];
}

function listed(parts: readonly string[], joint: 'and' | 'or'): string {
  if (parts.length === 1) return parts[0]!;
  return `${parts.slice(0, -1).join(', ')} ${joint} ${parts.at(-1)}`;
}
