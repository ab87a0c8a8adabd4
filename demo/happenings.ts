import { dayOf } from '../core/dates.ts';
import type { EventRecord } from '../core/records/related.ts';
import type { Truth } from './company.ts';
import { DEMO_AS_OF } from './days.ts';
import type { Chance } from './random.ts';

const AS_OF = dayOf(DEMO_AS_OF)!;
const DAYS = 365;
/** Events of an average company in a year. */
const MEAN = 2;

const HEADLINES: readonly [kind: string, weight: number, wordings: readonly string[]][] = [
  [
    'job-opening',
    46,
    [
      'Hiring paint line setters',
      'Hiring a works manager',
      'Hiring joiners and fitters',
      'Hiring a head of purchasing',
      'Hiring machine operators',
      'Hiring area sales managers',
      'Hiring design engineers',
      'Hiring warehouse staff',
    ],
  ],
  [
    'appointment',
    14,
    ['New managing director', 'New head of production', 'New finance director', 'New head of sales'],
  ],
  ['departure', 8, ['Head of purchasing leaves', 'Managing director steps down', 'Sales director leaves']],
  [
    'move',
    6,
    ['Moves to larger premises', 'Second hall taken into use', 'Branch closed and moved to the works'],
  ],
  [
    'new-line',
    9,
    [
      'New pretreatment line announced',
      'New spray booth taken into use',
      'New cutting centre ordered',
      'Second shift on the paint line',
    ],
  ],
  [
    'certificate',
    7,
    ['Certified for quality management', 'Certified for safety at work', 'Low-solvent coating certified'],
  ],
  ['court', 3, ['Court proceedings with a supplier', 'Order for payment issued', 'Appeal withdrawn']],
  [
    'news',
    7,
    ['Wins an order from a rail vehicle builder', 'Open day at the works', 'Takes part in a trade fair'],
  ],
];
const TOTAL = HEADLINES.reduce((sum, [, weight]) => sum + weight, 0);

/** One thing that happens at a company. */
export function happening(chance: Chance, date: number): EventRecord {
  let at = chance.next() * TOTAL;
  const [kind, , wordings] = HEADLINES.find(([, weight]) => (at -= weight) < 0) ?? HEADLINES[0]!;
  return { name: chance.pick(wordings), kind, date };
}

/** What happened at a company in the past year; active and growing ones have more to tell. */
export function eventsOf(truth: Truth, chance: Chance): EventRecord[] {
  const mean = truth.status === 'active' ? MEAN * (0.55 + 0.2 * Math.log2(1 + truth.headcount) * 0.75) : 0.3;
  const events: EventRecord[] = [];
  // Waiting times of a Poisson process.
  for (let day = 0; ;) {
    day += -(DAYS / mean) * Math.log(1 - chance.next());
    if (day >= DAYS) return events;
    events.push(happening(chance, AS_OF - Math.floor(day)));
  }
}
