import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { domainKey, eachKey, houseKey, phoneKey } from './blocking.ts';
import { CandidateFinder } from './candidates.ts';
import { readyFirm, type Firm, type ReadyFirm } from './firm.ts';

const firm = (more: Partial<Firm>): ReadyFirm =>
  readyFirm(
    {
      ...{ name: null, legalForm: null, registration: null, country: 'CZ', web: null, mail: null },
      ...{ phone: null, street: null, postcode: null, town: null, lat: null, lon: null, headcount: null },
      ...more,
    },
    (domain) => domain === 'freemail.example',
  );
/** Candidates of the only row, by their place in the universe. */
function candidates(row: ReadyFirm, universe: readonly ReadyFirm[], most = 20): number[] {
  const finder = new CandidateFinder([row]);
  universe.forEach((company, id) => finder.offer(id, company));
  return finder.candidatesOf(row, most).map(({ company }) => company);
}

describe('a row meets', () => {
  const row = firm({
    name: 'Zarmysko Stolařství s.r.o.',
    registration: '01234567',
    web: 'zarmysko.example',
    phone: '+420 000 178 447',
    street: 'Lipová 18/3',
    postcode: '602 00',
    town: 'Brno',
  });

  test.each<[string, Partial<Firm>]>([
    ['its number', { registration: 'CZ01234567' }],
    ['its number without the nought', { registration: '1234567' }],
    ['its domain in a mail address', { mail: 'info@zarmysko.example' }],
    ['its phone, written otherwise', { phone: '00420000178447' }],
    ['a rare word of its name, anywhere', { name: 'Stolařství', country: 'AT' }],
    ['a mistyped name in its town', { name: 'Zarmyska', town: 'Brno' }],
    ['a mistyped name in its country', { name: 'Zermisko' }],
    ['words run together', { name: 'ZarmyskoStolarstvi' }],
    ['whoever is in its house', { name: 'Halvek', street: '18 Lipová ul.', town: 'Brno 2' }],
  ])('a company by %s', (_, more) => {
    expect(candidates(row, [firm({ name: 'Tonbru', town: 'Zlín' }), firm(more)])).toEqual([1]);
  });

  test('nobody it shares nothing with, nor one with mail where anybody may have it', () => {
    const free = firm({ name: 'Ash', mail: 'zarmysko@freemail.example' });
    expect(candidates(firm({ name: 'Oak', mail: 'oak@freemail.example' }), [free])).toEqual([]);
  });

  test('the worthiest first, and no more than are asked for', () => {
    const universe = [
      firm({ name: 'Stolařství Novák' }),
      firm({ name: 'Zarmysko', web: 'zarmysko.example', registration: '01234567' }),
      firm({ name: 'Zarmysko Okna', web: 'zarmysko.example' }),
    ];
    expect(candidates(row, universe)).toEqual([1, 2, 0]);
    expect(candidates(row, universe, 1)).toEqual([1]);
  });
});

describe('keys that too many share', () => {
  const crowd = (more: Partial<Firm>) =>
    Array.from({ length: 600 }, (_, i) => firm({ name: `Firm${i}x`, ...more }));

  test('say nothing, such as a word that hundreds have', () => {
    const row = firm({ name: 'Kovo' });
    expect(
      candidates(
        row,
        Array.from({ length: 600 }, () => firm({ name: 'Kovo' })),
        1000,
      ),
    ).toEqual([]);
  });

  test('still say something where they are identifiers, as far as the first of them', () => {
    const row = firm({ web: 'holding.example' });
    expect(candidates(row, crowd({ web: 'holding.example' }), 1000)).toHaveLength(400);
  });
});

test('how many companies have a word, a domain, a phone or a house is counted, of what the rows have', () => {
  const row = firm({
    ...{ name: 'Zarmysko', web: 'zarmysko.example', phone: '+420000178447' },
    ...{ street: 'Lipová 18', town: 'Brno' },
  });
  const finder = new CandidateFinder([row]);
  const same = { name: 'Zarmysko Okna', web: 'zarmysko.example', street: 'Lipová 18', town: 'Brno' };
  for (const [id, company] of [firm(same), firm(same), firm({ name: 'Okna' })].entries())
    finder.offer(id, company);
  expect(finder.withWord('zarmysko')).toBe(2);
  expect(finder.withWord('okna')).toBe(3);
  expect(finder.withWord('dvere')).toBe(0);
  expect(finder.sharing(domainKey('zarmysko.example'))).toBe(2);
  expect(finder.sharing(houseKey(row)!)).toBe(2);
  expect(finder.sharing(phoneKey('+420000178447'))).toBe(0);
  expect(finder.sharing(domainKey('other.example'))).toBe(0);
});

test('a row without a country meets companies of any, by keys that are within a country otherwise', () => {
  const abroad = firm({ name: 'Zermisko', country: 'AT' });
  expect(candidates(firm({ name: 'Zarmysko', country: null }), [abroad])).toEqual([0]);
  expect(candidates(firm({ name: 'Zarmysko', country: 'CZ' }), [abroad])).toEqual([]);
});

test('two records that share a key meet, whatever they are', () => {
  const text = (...of: string[]) => fc.option(fc.constantFrom(...of));
  const any = fc
    .record({
      name: text('Zarmysko', 'Halvek Okna', 'Tonbru s.r.o.', 'Kovo'),
      registration: text('01234567', '7654321'),
      web: text('zarmysko.example', 'halvek-okna.example'),
      phone: text('+420000178447', '000178447'),
      street: text('Lipová 18', 'Dlouhá 3'),
      town: text('Brno', 'Zlín'),
      country: text('CZ', 'AT'),
    })
    .map(firm);
  const keysOf = (ready: ReadyFirm, anywhere: boolean) => {
    const keys = new Set<number>();
    eachKey(ready, anywhere, (key) => keys.add(key));
    return keys;
  };
  fc.assert(
    fc.property(any, any, (row, company) => {
      const own = keysOf(row, false);
      const shares = [...keysOf(company, row.firm.country === null)].some((key) => own.has(key));
      expect(candidates(row, [company])).toEqual(shares ? [0] : []);
    }),
  );
});
