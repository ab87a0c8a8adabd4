import fc from 'fast-check';
import type { Firm } from '../match/firm.ts';

/** Random firms over the same few values, so that they meet. For tests only. */
const or = <T>(...values: T[]) => fc.option(fc.constantFrom(...values), { nil: null });

export const anyFirm: fc.Arbitrary<Firm> = fc.record({
  name: or(
    'Zarmysko Stolařství s.r.o.',
    'ZARMYSKO',
    'Zermysko Stolarstvi',
    'Tenford Works Ltd',
    'Tenford',
    'AS',
  ),
  legalForm: or('s.r.o.', 'a.s.', 'Ltd'),
  registration: or('25000118', 'CZ 25000118', '25000119', '26000473'),
  country: or('CZ', 'SK', 'GB'),
  web: or('zarmysko.example', 'www.zarmysko-schody.example', 'tenford.example'),
  mail: or('a@zarmysko.example', 'b@tenford.example'),
  phone: or('+420 000 041 228', '+420 000 041 229', '000 067 310'),
  street: or('Lipová 18', 'Lipova 18', 'Nádražní 4'),
  postcode: or('680 01', '68001', '679 61'),
  town: or('Boskovice', 'Boskovice 2', 'Letovice'),
  lat: or(49.49, 49.55),
  lon: or(16.66, 16.57),
  headcount: or(1, 46, 40_000),
});

/** A firm of which only some is known. */
export const firmWith = (more: Partial<Firm>): Firm => ({
  name: null,
  legalForm: null,
  registration: null,
  country: 'CZ',
  web: null,
  mail: null,
  phone: null,
  street: null,
  postcode: null,
  town: null,
  lat: null,
  lon: null,
  headcount: null,
  ...more,
});
