import type { GatherSpecBody } from '../../contract/gather.ts';
import type {
  GathererAnswer,
  GatherRunAnswer,
  LookAnswer,
  PageAnswer,
  PagesAnswer,
} from '../../contract/gather-views.ts';
import { stepsFor } from '../../core/gather/guess.ts';
import { call } from '../api.ts';
import { newSpec } from './teaching.ts';

/** Where a new gatherer's pages come from. */
export type Beginning =
  | { from: 'address'; address: string; words: string[]; places: string[] }
  | { from: 'file'; file: File }
  | { from: 'paste'; text: string }
  | { from: 'sites'; list: string };

/**
 * Makes a gatherer with a page to point at: the first page of its first search, with the steps that its form seems to ask for,
 * a saved page, or what was pasted. Sites of companies are read at once, since nothing is to be taught.
 */
export async function beginGatherer(
  name: string,
  beginning: Beginning,
): Promise<{ id: string; run: string | null }> {
  const spec =
    beginning.from === 'address'
      ? startingAt(beginning)
      : newSpec(beginning.from === 'sites' ? { sites: { list: beginning.list }, pause: 0.2 } : {});
  const { id } = await call<GathererAnswer>('POST', '/gather/gatherers', { name, spec });
  try {
    if (beginning.from === 'sites') {
      const { run } = await call<GatherRunAnswer>('POST', `/gather/gatherers/${id}/runs`);
      return { id, run: run.id };
    }
    if (beginning.from === 'address') await fetchFirst(id, name, spec);
    else if (beginning.from === 'paste')
      await call<PagesAnswer>('POST', `/gather/gatherers/${id}/pasted`, { text: beginning.text });
    else {
      const form = new FormData();
      form.append('file', beginning.file);
      await call<PagesAnswer>('POST', `/gather/gatherers/${id}/saved`, form);
    }
  } catch (error) {
    // A gatherer without a page is of no use to anyone; what was entered is still in the dialog.
    await call('DELETE', `/gather/gatherers/${id}`).catch(() => {});
    throw error;
  }
  return { id, run: null };
}

function startingAt({ address, words, places }: Extract<Beginning, { from: 'address' }>): GatherSpecBody {
  const start = /^https?:\/\//i.test(address) ? address : `http://${address}`;
  return newSpec({ start, words, places, pause: /\.example(?:[:/]|$)/.test(start) ? 0.2 : 1 });
}

async function fetchFirst(id: string, name: string, spec: GatherSpecBody): Promise<void> {
  const fetch = (wish: object) => call<PageAnswer>('POST', `/gather/gatherers/${id}/pages`, wish);
  const { words, places, start } = spec;
  const searches = words.length > 0 || places.length > 0;
  if (!searches || /\{(?:word|place)\}/.test(start)) {
    await fetch(searches ? { word: words[0] ?? '', place: places[0] ?? '' } : { address: start });
    return;
  }
  const { page } = await fetch({ address: start });
  const { forms } = await call<LookAnswer>('POST', '/gather/look', { page: page.id, spec });
  const steps = stepsFor(forms, words.length > 0, places.length > 0);
  if (steps.length === 0) return;
  await call('PUT', `/gather/gatherers/${id}`, { name, spec: { ...spec, steps } });
  await fetch({ word: words[0] ?? '', place: places[0] ?? '' });
}

/** A name with the next number behind it where it is taken. */
export function freeName(base: string, taken: readonly string[]): string {
  const known = new Set(taken.map((name) => name.toLowerCase()));
  for (let n = 1; ; n++) {
    const name = n === 1 ? base : `${base} ${n}`;
    if (!known.has(name.toLowerCase())) return name;
  }
}
