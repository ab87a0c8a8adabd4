import { MOST_SEEDS, PARTS, type Part, type Weights } from '../peers/parts.ts';
import type { Lookup } from './lookup.ts';
import type { PeersTest } from './nodes.ts';
import { Problem } from './problem.ts';
import { objectAt, onlyKeys, texts, textAt, wrong } from './shapes.ts';
import { splitOutside } from './typed/pieces.ts';

/** Checks a test on peers. @throws Problem */
export function checkPeers(raw: Record<string, unknown>, at: string, lookup: Lookup): PeersTest {
  onlyKeys(raw, at, ['like', 'list', 'from', 'weights']);
  if ((raw.like === undefined) === (raw.list === undefined))
    throw wrong(at, raw, 'exactly one of like and list');
  if (typeof raw.from !== 'number' || !(raw.from >= 0 && raw.from <= 1))
    throw wrong(`${at}.from`, raw.from, 'a number from 0 to 1');
  const weights = raw.weights === undefined ? undefined : checkWeights(raw.weights, `${at}.weights`);
  const rest = { from: raw.from, ...(weights ? { weights } : {}) };
  if (raw.list !== undefined) {
    const list = textAt(raw.list, `${at}.list`, 200);
    if (!lookup.choices({ subject: 'companies', id: 'list' }).some(({ key }) => key === list))
      throw new Problem('unknown-list', `There is no list "${list}" in this workspace.`, {
        field: `${at}.list`,
        value: list,
        rule: 'the key of a list',
      });
    return { list, ...rest };
  }
  const like = texts(raw.like, `${at}.like`, (key, where) => {
    if (lookup.companyName(key) === undefined)
      throw new Problem('unknown-company', `There is no company "${key}" in this universe.`, {
        field: where,
        value: key,
        rule: 'the key of a company',
      });
  });
  if (like.length > MOST_SEEDS)
    throw wrong(`${at}.like`, like.length, `at most ${MOST_SEEDS} companies; a list can have more`);
  return { like, ...rest };
}

function checkWeights(input: unknown, at: string): Weights {
  const raw = objectAt(input, at);
  onlyKeys(raw, at, PARTS);
  const weights: Partial<Record<Part, number>> = {};
  for (const part of PARTS) {
    const value = raw[part];
    if (value === undefined) continue;
    if (typeof value !== 'number' || !(value >= 0 && value <= 1))
      throw wrong(`${at}.${part}`, value, 'a number from 0 to 1');
    weights[part] = value;
  }
  return weights;
}

/** Reads "CZ-123, CZ-456 from 0.6 weighing codes 1 words 0" or "list customers from 0.5". @throws Problem */
export function readPeers(text: string, lookup: Lookup): PeersTest {
  const found = /^(.*?)\s+(?:from|at least)\s+(\d*\.?\d+)(?:\s+weighing\s+(.+))?$/i.exec(text);
  const expected =
    'companies or a list, then how alike, as in “like CZ-123 from 0.6” or “like list customers from 0.5”';
  if (!found || Number(found[2]) > 1)
    throw new Problem(
      'typed',
      `“like” is understood; after it comes ${text ? `“${text}”` : 'nothing'}, where this is expected: ${expected}.`,
      { value: text, rule: expected },
    );
  const weights = found[3] === undefined ? undefined : readWeights(found[3], expected);
  const rest = { from: Number(found[2]), ...(weights ? { weights } : {}) };
  const list = /^list\s+(.+)$/i.exec(found[1]!);
  if (list) {
    const name = list[1]!.replaceAll('"', '').trim();
    const choice = lookup
      .choices({ subject: 'companies', id: 'list' })
      .find(({ key, label }) => key === name || label.toLowerCase() === name.toLowerCase());
    return { list: choice?.key ?? name, ...rest };
  }
  return {
    like: splitOutside(found[1]!, ',')
      .map((part) => part.trim().replaceAll('"', ''))
      .filter(Boolean),
    ...rest,
  };
}

function readWeights(text: string, expected: string): Weights {
  const weights: Partial<Record<Part, number>> = {};
  const words = text.split(/[\s,]+/).filter(Boolean);
  for (let i = 0; i < words.length; i += 2) {
    const part = PARTS.find((one) => one === words[i]!.toLowerCase());
    const weight = Number(words[i + 1]);
    if (!part || !(weight >= 0 && weight <= 1))
      throw new Problem(
        'typed',
        `“weighing” is understood; “${words[i]} ${words[i + 1] ?? ''}” is not: ${PARTS.join(', ')}, each with a number from 0 to 1.`,
        { value: text, rule: expected },
      );
    weights[part] = weight;
  }
  return weights;
}

/** A test on peers as it would be typed after its opener. */
export function spellPeers({ like, list, from, weights }: PeersTest): string {
  const of =
    list === undefined
      ? like!.map((key) => (/^[\w-]+$/.test(key) ? key : `"${key}"`)).join(', ')
      : `list "${list}"`;
  const weighing = weights
    ? PARTS.filter((part) => weights[part] !== undefined).map((part) => `${part} ${weights[part]}`)
    : [];
  return `${of} from ${from}${weighing.length ? ` weighing ${weighing.join(' ')}` : ''}`;
}

/** A test on peers in words, after "Peers". */
export function wordPeers({ like, list, from, weights }: PeersTest, lookup: Lookup): string {
  const names = list === undefined ? like!.map((key) => lookup.companyName(key) ?? key) : [];
  const label =
    lookup.choices({ subject: 'companies', id: 'list' }).find(({ key }) => key === list)?.label ?? list;
  const of =
    list === undefined
      ? names.length <= 3
        ? names.join(' or ')
        : `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`
      : `the list ${label}`;
  return `of ${of}, alike ${from} or more${weights ? ', weighed by hand' : ''}`;
}
