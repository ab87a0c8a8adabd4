import { fold } from '../text/fold.ts';

/** Words that stand beside figures, folded, in the languages that files of companies come in. */

const words = (text: string) => new Set(text.split(',').map((word) => asWord(word.trim())));

/** A word as these lists have it: folded, signs and Chinese characters as they are. */
export function asWord(text: string): string {
  return /\p{L}/u.test(text) && !/\p{Script=Han}/u.test(text) ? fold(text) : text;
}

/** Before a figure that is only about right. */
export const ABOUT = words(
  '~, ≈, ca, c, cca, circa, about, around, approx, approximately, appr, est, estimated, rund, etwa, ungefahr, zirka, asi, zhruba, priblizne, okolo, ok, env, environ, quasi, aprox, aproximadamente, kb, korulbelul, ongeveer, omkring, ungefar',
);
/** Before a figure that is left out, from below. */
export const BELOW = words(
  '<, under, below, fewer than, less than, unter, weniger als, kleiner als, mene nez, mensi nez, pod, menej ako, mniej niz, ponizej, moins de, meno di, menos de, kevesebb mint, minder dan, faerre end, mindre an, mai putin de',
);
/** Before the last figure that still counts. */
export const UP_TO = words(
  '<=, =<, ≤, up to, at most, max, maximum, bis, bis zu, hochstens, maximal, do, az, nejvyse, najviac, najwyzej, jusqu a, jusqua, maximum de, fino a, hasta, ate, legfeljebb, tot, op til, upp till, pana la',
);
/** Before a figure that is left out, from above. */
export const ABOVE = words(
  '>, over, above, more than, uber, mehr als, grosser als, ueber, vice nez, nad, viac ako, wiecej niz, powyzej, ponad, plus de, oltre, piu di, mas de, mais de, tobb mint, meer dan, mere end, mer an, peste',
);
/** Before the first figure that counts. */
export const FROM = words(
  '>=, =>, ≥, from, at least, min, minimum, ab, mindestens, von, zwischen, od, nejmene, najmenej, minimalne, co najmniej, between, entre, a partir de, des, da, tra, desde, de, legalabb, minst, van, mellem, mellan, cel putin',
);
/** After the first figure that counts. */
export const AND_MORE = words(
  '+, and more, or more, and over, and above, und mehr, oder mehr, a vice, a viac, i wiecej, lub wiecej, et plus, ou plus, e oltre, e piu, y mas, o mas, ou mais, vagy tobb, es tobb, en meer, of meer, og derover, og flere, och fler, si peste, plus',
);
/** Between the ends of a band. */
export const TO = words('-, .., ..., to, bis, az, do, a, and, und, et, al, till, til, tot, e, y, i, es, si');

/** What figures are counted in. */
export const SCALES: ReadonlyMap<string, number> = new Map(
  Object.entries({
    k: 1e3,
    th: 1e3,
    ths: 1e3,
    thou: 1e3,
    thousand: 1e3,
    thousands: 1e3,
    tsd: 1e3,
    tausend: 1e3,
    tis: 1e3,
    tisic: 1e3,
    tisice: 1e3,
    tys: 1e3,
    tysiecy: 1e3,
    tysiace: 1e3,
    mille: 1e3,
    milliers: 1e3,
    mila: 1e3,
    migliaia: 1e3,
    miles: 1e3,
    milhares: 1e3,
    mii: 1e3,
    ezer: 1e3,
    duizend: 1e3,
    tusen: 1e3,
    tusind: 1e3,
    tuhat: 1e3,
    tuh: 1e3,
    tukst: 1e3,
    tukstanciai: 1e3,
    tukstosi: 1e3,
    bin: 1e3,
    khil: 1e3,
    hilj: 1e3,
    tisuca: 1e3,
    tisuce: 1e3,
    tisucama: 1e3,
    hiljada: 1e3,
    hiljadama: 1e3,
    tisoc: 1e3,
    tisocih: 1e3,
    tisyach: 1e3,
    tysyach: 1e3,
    khilyadi: 1e3,
    tuhandetes: 1e3,
    tuhatta: 1e3,
    tukstanciu: 1e3,
    tukstosos: 1e3,
    tusinde: 1e3,
    tusental: 1e3,
    thus: 1e3,
    mije: 1e3,
    chil: 1e3,
    chiliades: 1e3,
    m: 1e6,
    mm: 1e6,
    mn: 1e6,
    mio: 1e6,
    mi: 1e6,
    mill: 1e6,
    mln: 1e6,
    'mil.': 1e6,
    million: 1e6,
    millions: 1e6,
    millionen: 1e6,
    milion: 1e6,
    miliony: 1e6,
    milionu: 1e6,
    milionow: 1e6,
    milioni: 1e6,
    milione: 1e6,
    milioane: 1e6,
    millones: 1e6,
    milhoes: 1e6,
    millio: 1e6,
    miljoen: 1e6,
    miljoner: 1e6,
    millioner: 1e6,
    milj: 1e6,
    milyon: 1e6,
    milijun: 1e6,
    milijuna: 1e6,
    milijonai: 1e6,
    ekat: 1e6,
    ekatommyria: 1e6,
    milijon: 1e6,
    milijonov: 1e6,
    milijonih: 1e6,
    milijonu: 1e6,
    milijuni: 1e6,
    milijunima: 1e6,
    miljon: 1e6,
    miljonites: 1e6,
    miljoni: 1e6,
    miljoonaa: 1e6,
    miljoonissa: 1e6,
    miliona: 1e6,
    millionov: 1e6,
    "mil'yoniv": 1e6,
    b: 1e9,
    bn: 1e9,
    bi: 1e9,
    billion: 1e9,
    billions: 1e9,
    mrd: 1e9,
    mld: 1e9,
    md: 1e9,
    milliard: 1e9,
    milliarde: 1e9,
    milliarden: 1e9,
    milliards: 1e9,
    miliarda: 1e9,
    miliardy: 1e9,
    miliard: 1e9,
    miliardi: 1e9,
    miliarde: 1e9,
    miljard: 1e9,
    miljarder: 1e9,
    milyar: 1e9,
    mlrd: 1e9,
    mia: 1e9,
    mdr: 1e9,
    mds: 1e9,
    dis: 1e9,
    milijarda: 1e9,
    milijardi: 1e9,
    milijard: 1e9,
    // As India counts, and what China and Japan write as one character.
    lakh: 1e5,
    lakhs: 1e5,
    lac: 1e5,
    lacs: 1e5,
    cr: 1e7,
    crore: 1e7,
    crores: 1e7,
    万: 1e4,
    億: 1e8,
    亿: 1e8,
  }),
);

/** Currencies by the signs and short words that stand for one of them only; ISO codes stand for themselves. */
export const CURRENCY_SIGNS: ReadonlyMap<string, string> = new Map(
  Object.entries({
    '€': 'EUR',
    euro: 'EUR',
    euros: 'EUR',
    eura: 'EUR',
    '£': 'GBP',
    gbp: 'GBP',
    $: 'USD',
    us$: 'USD',
    usd: 'USD',
    c$: 'CAD',
    ca$: 'CAD',
    a$: 'AUD',
    r$: 'BRL',
    hk$: 'HKD',
    s$: 'SGD',
    nz$: 'NZD',
    mx$: 'MXN',
    kc: 'CZK',
    korun: 'CZK',
    zl: 'PLN',
    zlotych: 'PLN',
    ft: 'HUF',
    forint: 'HUF',
    sfr: 'CHF',
    fr: 'CHF',
    lei: 'RON',
    ron: 'RON',
    lv: 'BGN',
    '¥': 'JPY',
    '₺': 'TRY',
    tl: 'TRY',
    '₴': 'UAH',
    grn: 'UAH',
    hrn: 'UAH',
    hryven: 'UAH',
    din: 'RSD',
    dinara: 'RSD',
    leva: 'BGN',
    kn: 'HRK',
    kuna: 'HRK',
    '₩': 'KRW',
    '₹': 'INR',
    rs: 'INR',
    '₪': 'ILS',
    yuan: 'CNY',
    rmb: 'CNY',
    元: 'CNY',
    円: 'JPY',
  }),
);

/** Currencies without rates by the words that headings have for them. */
export const OTHER_CURRENCIES: ReadonlyMap<string, string> = new Map(
  Object.entries({ rub: 'RUB', rubley: 'RUB', rubli: 'RUB', leke: 'ALL', lari: 'GEL', tenge: 'KZT' }),
);

/** Money and what it is counted in, in one short word. "kr" is a currency of several countries. */
export const SCALED_MONEY: ReadonlyMap<string, readonly [currency: string, scale: string]> = new Map(
  Object.entries({
    tkr: ['kr', 'k'],
    kkr: ['kr', 'k'],
    tusenkr: ['kr', 'k'],
    mkr: ['kr', 'm'],
    mnkr: ['kr', 'm'],
    miokr: ['kr', 'm'],
    mdkr: ['kr', 'mrd'],
    eft: ['HUF', 'k'],
    mft: ['HUF', 'm'],
    tkc: ['CZK', 'k'],
    mkc: ['CZK', 'm'],
    tzl: ['PLN', 'k'],
    mzl: ['PLN', 'm'],
    万元: ['CNY', '万'],
    亿元: ['CNY', '亿'],
    百万円: ['JPY', 'm'],
    千円: ['JPY', 'k'],
    億円: ['JPY', '億'],
    万円: ['JPY', '万'],
    千元: ['CNY', 'k'],
    仟元: ['CNY', 'k'],
    百万元: ['CNY', 'm'],
    cheonwon: ['KRW', 'k'],
    baegmanwon: ['KRW', 'm'],
    manwon: ['KRW', '万'],
    eogwon: ['KRW', '億'],
  } as const),
);

/** Which crowns are meant where a file is of one country. */
export const CROWNS: Readonly<Record<string, string>> = { SE: 'SEK', NO: 'NOK', DK: 'DKK', IS: 'ISK' };

/** What may follow a count of people. */
export const PEOPLE = words(
  'employees, employee, staff, people, persons, person, heads, head, headcount, workers, fte, ftes, mitarbeiter, mitarbeitern, mitarbeitende, mitarbeiterinnen, ma, beschaftigte, angestellte, personen, pers, vza, vzae, zamestnancu, zamestnanci, zamestnanec, zam, osob, osoby, lidi, zamestnancov, pracownikow, pracownicy, prac, salaries, salarie, personnes, collaborateurs, employes, effectif, dipendenti, addetti, persone, empleados, trabajadores, personas, funcionarios, fo, alkalmazott, dolgozo, werknemers, medewerkers, mensen, ansatte, anstallda, medarbejdere, angajati, salariati',
);
