import type { Scheme } from '../../codes/tree.ts';
import type { CodeHit } from '../../codes/search.ts';
import type { Lookup } from '../lookup.ts';
import { OPENER_SCHEMES } from './tests.ts';
import type { Suggestion } from './suggestion.ts';

/** Schemes that words are searched in when the line names none, and how many of their codes are offered. */
const COMMON_SCHEMES: readonly (readonly [Scheme, number])[] = [
  ['nace-2.1', 5],
  ['naics-2022', 1],
];
/** Codes that a trade may have to be offered all together. */
const MOST_TOGETHER = 12;

/** Codes that a text names: a trade's codes together first, then one by one; then those by their notes alone, and those only spelled alike. */
export interface CodeSuggestions {
  /** A title or an activity term is just the text. */
  exact: Suggestion[];
  written: Suggestion[];
  inNotes: Suggestion[];
  alike: Suggestion[];
}

export function openerOf(scheme: Scheme): string {
  return Object.keys(OPENER_SCHEMES).find((opener) => OPENER_SCHEMES[opener] === scheme)!;
}

export function suggestCodes(text: string, lookup: Lookup): CodeSuggestions {
  const found: CodeSuggestions = { exact: [], written: [], inNotes: [], alike: [] };
  for (const [scheme, most] of COMMON_SCHEMES) {
    const hits = lookup.findCodes(scheme, text, MOST_TOGETHER);
    const line = (codes: readonly string[]) => `${openerOf(scheme)} ${codes.join(' ')}`;
    const written = hits.filter(({ alike, inNote }) => !alike && !inNote);
    const exact = written.some((hit) => hit.exact);
    const into = exact ? found.exact : found.written;
    const together = withoutInner(written, scheme, lookup);
    if (scheme === 'nace-2.1' && together.length > 1)
      into.push({ typed: line(together), what: 'all its codes' });
    for (const { code } of written.slice(0, most)) into.push({ typed: line([code]) });
    for (const { code } of hits.filter(({ inNote }) => inNote).slice(0, most))
      found.inNotes.push({ typed: line([code]) });
    for (const { code } of hits.filter(({ alike }) => alike).slice(0, Math.min(3, most)))
      found.alike.push({ typed: line([code]), alike: true });
  }
  return found;
}

/** The codes of some hits without those that another of them holds. */
function withoutInner(hits: readonly CodeHit[], scheme: Scheme, lookup: Lookup): string[] {
  const tree = lookup.codes(scheme);
  const nodes = hits.map(({ code }) => tree.nodeOf(code));
  return nodes
    .filter((node) => !nodes.some((other) => other !== node && other < node && node < tree.ends[other]!))
    .sort((a, b) => a - b)
    .map((node) => tree.codes[node]!);
}
