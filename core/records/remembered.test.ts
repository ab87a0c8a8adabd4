import { describe, expect, test } from '@jest/globals';
import { Gazetteer } from '../geo/gazetteer.ts';
import { CellError } from '../values/cell.ts';
import { placeOf } from '../values/place.ts';
import { remembered, rememberedPlaces } from './remembered.ts';

describe('a reader that remembers', () => {
  test('reads equal cells once and gives what it read', () => {
    const asked: string[] = [];
    const read = remembered((cell: string) => {
      asked.push(cell);
      return cell.length;
    });
    expect(['Brno', 'Zlín', 'Brno', '', 'Brno'].map(read)).toEqual([4, 4, 4, 0, 4]);
    expect(asked).toEqual(['Brno', 'Zlín', '']);
  });

  test('tells a cell that cannot be read as such each time', () => {
    const read = remembered((cell: string) => {
      if (cell === 'x') throw new CellError('a figure');
      return 1;
    });
    for (let time = 0; time < 2; time++) expect(() => read('x')).toThrow('a figure');
    expect(read('1')).toBe(1);
  });

  test('reads more different cells than it keeps', () => {
    const read = remembered(Number);
    const wrong = Array.from({ length: 70_000 }, (_, n) => n).filter((n) => read(`${n}`) !== n);
    expect(wrong).toEqual([]);
    expect(read('3')).toBe(3);
  });
});

describe('places that are remembered', () => {
  const places = new Gazetteer({
    countries:
      'h\nCZ\tCZE\t203\tCzechia\tČesko\tCZK\t\t\t+420\nSK\tSVK\t703\tSlovakia\tSlovensko\tEUR\t\t\t+421',
    regions: 'h\nCZ-63\tCZ\tVysočina\t\nCZ-64\tCZ\tJihomoravský\tSouth Moravia',
    towns: [
      'h',
      '1\tTasov\tTasov\t\t\tCZ\tCZ-63\t49.2\t16.0\t600',
      '2\tTasov\tTasov\t\t\tCZ\tCZ-64\t48.9\t17.4\t550',
      '3\tBrno\tBrno\t\tBrünn\tCZ\tCZ-64\t49.2\t16.6\t380000',
    ].join('\n'),
    postcodes: 'h\nCZ\t\t\t\t\t\tCZ-63:58-59;CZ-64:60-66,69',
  });

  test('are those that looking each up gives, in whatever order they come', () => {
    const read = rememberedPlaces(places);
    const said = [null, 'CZ-63', 'Vysočina', 'South Moravia', 'nowhere'].flatMap((region) =>
      [null, 'Tasov', 'Brno', 'Brünn', 'Nikde'].flatMap((town) =>
        [null, 'CZ', 'SK'].flatMap((country) =>
          [null, '594 53', '69663', '10000'].map((postcode) => [region, town, country, postcode] as const),
        ),
      ),
    );
    for (const [region, town, country, postcode] of [...said, ...said.toReversed()])
      expect(read(region, town, country, postcode)).toEqual(placeOf(region, town, country, places, postcode));
  });
});
