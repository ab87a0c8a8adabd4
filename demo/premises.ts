import type { SiteRecord } from '../core/records/related.ts';
import type { Truth } from './company.ts';
import { checkedDay } from './days.ts';
import { street } from './names.ts';
import type { Places } from './places.ts';
import type { Chance } from './random.ts';

const MOST = 12;

/** The premises of a company: its head office, and branches, stores or works in towns of its country. */
export function sitesOf(truth: Truth, chance: Chance, places: Places): SiteRecord[] {
  const works = truth.sector.uses['production-planning'] !== undefined;
  const reach = Math.log2(1 + truth.headcount) / 4;
  const more = Math.min(MOST - 1, Math.floor(-reach * Math.log(1 - chance.next())));
  const headShare = more === 0 ? 1 : 0.4 + 0.4 * chance.next();
  const staff = (share: number) =>
    truth.headcountKnown ? Math.max(0, Math.round(truth.headcount * share)) : null;
  const { town } = truth;
  const head: SiteRecord = {
    name: `${truth.name}, ${town.name}`,
    kind: works ? 'works' : chance.in(0.7) ? 'office' : 'store',
    head: true,
    country: truth.country,
    region: town.region,
    town: town.name,
    postcode: truth.postcode,
    street: truth.street,
    lat: truth.lat,
    lon: truth.lon,
    headcount: staff(headShare),
    phone: truth.phone,
    checkedOn: checkedDay(chance, 300),
  };
  const others = Array.from({ length: more }, (): SiteRecord => {
    const at = places.townsOf(truth.country)[chance.draw(places.sumsOf(truth.country, 'any'))]!;
    const kind = chance.in(works ? 0.35 : 0.05)
      ? 'works'
      : chance.pick(['branch', 'branch', 'store', 'office']);
    return {
      name: `${truth.name}, ${at.name}`,
      kind,
      head: false,
      country: truth.country,
      region: at.region,
      town: at.name,
      postcode: places.postcode(at),
      street: street(chance, truth.country),
      lat: Math.round((at.lat + chance.normal() * 0.018) * 1e4) / 1e4,
      lon: Math.round((at.lon + chance.normal() * 0.026) * 1e4) / 1e4,
      headcount: chance.in(0.7) ? staff((1 - headShare) / more) : null,
      phone: null,
      checkedOn: checkedDay(chance, 400),
    };
  });
  return [head, ...others];
}
