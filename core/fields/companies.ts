import { activity } from './companies/activity.ts';
import { holders } from './companies/holders.ts';
import { market } from './companies/market.ts';
import { place } from './companies/place.ts';
import { size } from './companies/size.ts';
import { standing } from './companies/standing.ts';
import type { Subject } from './field.ts';

/** Everything known of a company, in the order in which a choice of fields lists them. */
export const companies: Subject = {
  id: 'companies',
  one: 'company',
  many: 'companies',
  table: 'company',
  fields: [...activity, ...place, ...size, ...market, ...standing, ...holders],
  relation: null,
};
