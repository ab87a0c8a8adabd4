import type { Cell, CodeCell, MoneyCell, PlaceCell, QuantityCell } from '../cells.ts';
import type { Field } from '../fields/field.ts';

/** A line that a value can become, as it would be typed, and what to call it. */
export interface ValueLine {
  label: string;
  typed: string;
}

/** The lines that the value of a cell can become: its like kept, or from it upwards or downwards. None for what cannot be a line. */
export function linesOfValue(field: Field, cell: Cell): ValueLine[] {
  const [opener] = field.openers;
  if (opener === undefined || cell === null) return [];
  switch (field.kind) {
    case 'codes':
      return (cell as CodeCell[]).slice(0, 4).map(({ scheme, code, title, main }) => ({
        label: `${code} ${title}`,
        typed: `${SCHEME_OPENERS[scheme]} ${code}${main ? ' main only' : ''}`,
      }));
    case 'place': {
      const { town, townKey, country } = cell as PlaceCell;
      return [
        ...(townKey && town
          ? [
              { label: town, typed: `in "${townKey}"` },
              { label: `within 30 km of ${town}`, typed: `near ${town} 30 km` },
            ]
          : []),
        ...(country ? [{ label: country, typed: `in ${country}` }] : []),
      ];
    }
    case 'number': {
      const [low, high] = typeof cell === 'number' ? [cell, cell] : ends(cell as QuantityCell);
      return fromTo(opener, low, high, '');
    }
    case 'money': {
      const money = cell as MoneyCell;
      const [low, high] = ends(money);
      return fromTo(opener, low, high, ` ${money.currency.toLowerCase()}`);
    }
    case 'growth': {
      const percent = Math.round((cell as number) * 10) / 10;
      return fromTo('growth of headcount over 1y', percent, percent, '');
    }
    case 'date':
      return [
        { label: `since ${cell as string}`, typed: `${opener} since ${cell as string}` },
        { label: `until ${cell as string}`, typed: `${opener} until ${cell as string}` },
      ];
    case 'category':
      return (Array.isArray(cell) ? (cell as string[]) : [cell as string])
        .slice(0, 8)
        .map((value) => ({ label: value, typed: `${opener} "${value.replaceAll('"', '')}"` }));
    case 'flag':
      return [{ label: cell as string, typed: `${opener} ${cell as string}` }];
    default:
      return [];
  }
}

const SCHEME_OPENERS = {
  'nace-2.1': 'nace',
  'nace-2': 'nace2',
  'isic-4': 'isic',
  'naics-2022': 'naics',
  'sic-1987': 'sic',
} as const;

function ends({ amount, low, high }: QuantityCell): [number | null, number | null] {
  return amount === null ? [low, high] : [amount, amount];
}

function fromTo(opener: string, low: number | null, high: number | null, tail: string): ValueLine[] {
  return [
    ...(low === null
      ? []
      : [{ label: `${low} or more`, typed: `${opener} ${low} or more${tail}`.replace(' or more', '+') }]),
    ...(high === null ? [] : [{ label: `up to ${high}`, typed: `${opener} up to ${high}${tail}` }]),
  ];
}
