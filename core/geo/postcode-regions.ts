import { plainPostcode } from './postcodes.ts';

/**
 * Which region the beginning of a postcode lies in, from a table whose seventh column reads "AT-9:10-12;AT-3:20-28,30-39". Postal areas
 * cross borders of regions here and there, so that this tells towns of one name apart and says nothing by itself.
 */
export class PostcodeRegions {
  /** Regions by country and beginning. */
  private readonly regions = new Map<string, string>();
  private readonly longest = new Map<string, number>();

  /** @param table tab-separated with one header row */
  constructor(table: string) {
    for (const line of table.split('\n').slice(1)) {
      const [country, , , , , , prefixes] = line.split('\t');
      for (const part of (prefixes ?? '').trim().split(';').filter(Boolean)) {
        const [region, beginnings] = part.split(':');
        for (const beginning of beginnings!.split(',').flatMap(eachOf)) {
          this.regions.set(`${country} ${beginning}`, region!);
          this.longest.set(country!, Math.max(this.longest.get(country!) ?? 0, beginning.length));
        }
      }
    }
  }

  /** Key of the region, by the longest beginning that is known; null where none is. */
  regionOf(country: string, postcode: string): string | null {
    const plain = plainPostcode(postcode);
    for (let length = this.longest.get(country) ?? 0; length > 0; length--) {
      const region = plain.length > length && this.regions.get(`${country} ${plain.slice(0, length)}`);
      if (region) return region;
    }
    return null;
  }
}

/** "30-32" → 30, 31, 32, with the noughts that they begin with. */
function eachOf(range: string): string[] {
  const [first, last] = range.split('-');
  if (last === undefined) return [range];
  return Array.from({ length: Number(last) - Number(first) + 1 }, (_, i) =>
    String(Number(first) + i).padStart(first!.length, '0'),
  );
}
