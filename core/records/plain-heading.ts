import { foldedWords } from '../text/fold.ts';

/** Text of a heading as it is compared: folded, without spaces and punctuation, ä and ae as one. */
export function plainHeading(text: string): string {
  return foldedWords(text)
    .join('')
    .replace(/([aou])e/g, '$1');
}

/** "companyName" as two words, without signs for "number". */
export const splitCamel = (text: string): string =>
  text.replace(/[°º№#]/g, ' ').replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2');

/** What short forms stand for in the names that databases give their columns. */
const SHORT: ReadonlyMap<string, string> = new Map(
  Object.entries({
    addr: 'address',
    amt: 'amount',
    cd: 'code',
    cnt: 'count',
    cntry: 'country',
    co: 'company',
    ctry: 'country',
    dt: 'date',
    emp: 'employees',
    est: 'established',
    nbr: 'number',
    nm: 'name',
    num: 'number',
    ph: 'phone',
    reg: 'registration',
    rev: 'revenue',
    st: 'state',
    tel: 'phone',
    yr: 'year',
  }),
);

/** "EMP_CNT" as "employees count"; a heading without underlines as it is. */
export const inFull = (heading: string): string =>
  heading.includes('_')
    ? heading
        .split('_')
        .map((word) => SHORT.get(word.toLowerCase()) ?? word)
        .join(' ')
    : heading;

/** Letters of a heading that are looked at. */
const LONGEST = 300;

/** The year that a heading names, such as 2023 in "CA 2023 (k€)"; null where it names none, or several. */
export function yearIn(heading: string): number | null {
  const years = new Set(heading.slice(0, LONGEST).match(/(?<!\d)(?:19|20)\d\d(?!\d)/g));
  return years.size === 1 ? Number([...years][0]) : null;
}
