import { FEATURE_NAMES, type Comparison } from './compare.ts';

/** What a score rests on, in words: what speaks for the pair most first, then what speaks against it, then what is not known. */

/** Evidence below this many bits is not worth a word. */
const WORTH_SAYING = 1;

const FOR: Readonly<Record<string, readonly string[]>> = {
  number: ['', 'same number', 'number one figure off', ''],
  domain: ['', 'same domain', 'domain begins alike', ''],
  phone: ['', 'same phone', 'same switchboard', ''],
  name: [
    '',
    'same name',
    'name very alike',
    'name a part of the other',
    'name alike',
    'name shares a word',
    '',
  ],
  form: ['', 'same legal form', ''],
  place: [
    '',
    'same street and house',
    'same street',
    'same postcode',
    'same town',
    'near by',
    'same country',
    '',
  ],
  headcount: ['', 'headcount alike', ''],
};
const AGAINST: Readonly<Record<string, string>> = {
  number: 'another number',
  domain: 'another domain',
  phone: 'another phone',
  name: 'another name',
  form: 'another legal form',
  place: 'elsewhere',
  headcount: 'another size',
};

/** "Same domain; name alike, “Lakovna” rare; phone different." The words are those of the first record. */
export function wordsOf(comparison: Comparison, bits: Float64Array, rareWord: string | null): string {
  const parts = FEATURE_NAMES.map((feature, f) => ({
    feature,
    level: comparison.levels[f]!,
    bits: bits[f]!,
  }));
  const pro = parts.filter((one) => one.bits >= WORTH_SAYING && FOR[one.feature]![one.level]);
  const con = parts.filter((one) => one.bits <= -WORTH_SAYING);
  pro.sort((a, b) => b.bits - a.bits);
  con.sort((a, b) => a.bits - b.bits);
  const said = [
    ...pro.map(({ feature, level }) => {
      const words = FOR[feature]![level]!;
      return feature === 'name' && rareWord !== null ? `${words}, “${rareWord}” rare` : words;
    }),
    ...con.map(({ feature, level }) =>
      feature === 'place' && level === 7
        ? 'another country'
        : feature === 'place' && comparison.km !== null
          ? `${Math.round(comparison.km)} km away`
          : AGAINST[feature]!,
    ),
  ];
  if (said.length === 0) return 'Nothing speaks for it or against it.';
  const text = said.join('; ');
  return `${text[0]!.toUpperCase()}${text.slice(1)}.`;
}

/** The rarest word that both names have, as the first has it written; null where it is not rare. */
export function rareWordOf(
  { shared }: Comparison,
  name: string | null,
  ofWord: (word: string) => number,
  companies: number,
  fold: (text: string) => string,
): string | null {
  const [word] = shared;
  if (word === undefined || name === null || ofWord(word) > Math.max(3, companies / 2000)) return null;
  return name.split(/[\s,.;:/()&+-]+/).find((one) => fold(one) === word) ?? word;
}
