import { fold } from '../text/fold.ts';

export interface Town {
  /** "Brno, CZ-64": name and region key, as tapes name towns. */
  key: string;
  name: string;
  country: string;
  region: string;
  lat: number;
  lon: number;
  population: number;
}

/**
 * The towns of a gazetteer, each read when it is first asked for. Every spelling of every town stands folded and
 * sorted in a table of its own, made by `npm run spellings`, so that a thread finds a town without first
 * reading eighty thousand:
 *
 *     spellings                 towns
 *     brno ⇥ 9241 ⇥ 60112       row 9241: Brno, CZ-64 …
 *     brünn → brunn ⇥ 9241
 *
 * Towns come by country and then by population.
 */
export class Towns {
  private readonly rows: string[];
  private readonly spellings: string[];
  private readonly made: (Town | undefined)[];

  /** @param spellings the table of `spellingsOf(towns)`; made here where it is not given. */
  constructor(towns: string, spellings: string | null) {
    this.rows = linesBelowHead(towns);
    this.made = new Array<Town | undefined>(this.rows.length);
    this.spellings = linesBelowHead(spellings ?? spellingsOf(towns));
  }

  all(): Town[] {
    return this.rows.map((_, row) => this.at(row));
  }

  /** The town of a key; the largest in its region where two share a name. */
  withKey(key: string): Town | undefined {
    return this.spelled(fold(key.slice(0, Math.max(0, key.lastIndexOf(', '))))).find(
      (town) => town.key === key,
    );
  }

  /** The towns with a spelling that folds to just this text, in their order. */
  spelled(folded: string): Town[] {
    const line = this.spellings[this.firstFrom(folded)];
    return line && spellingIn(line) === folded ? this.ofLine(line) : [];
  }

  /** The towns with a spelling whose folded form begins with a text, each once. */
  beginning(folded: string): Town[] {
    const found = new Set<Town>();
    for (let i = this.firstFrom(folded); this.spellings[i]?.startsWith(folded); i++)
      for (const town of this.ofLine(this.spellings[i]!)) found.add(town);
    return [...found];
  }

  private ofLine(line: string): Town[] {
    return line
      .split('\t')
      .slice(1)
      .map((row) => this.at(Number(row)));
  }

  private at(row: number): Town {
    return (this.made[row] ??= readTown(this.rows[row]!));
  }

  /** Where the first spelling stands that is not below a text. */
  private firstFrom(folded: string): number {
    let low = 0;
    let high = this.spellings.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (spellingIn(this.spellings[middle]!) < folded) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

/** The table of spellings for a table of towns: a folded spelling and the rows (from 0) of the towns that have it, sorted by code unit. */
export function spellingsOf(towns: string): string {
  const rowsOf = new Map<string, number[]>();
  for (const [row, line] of linesBelowHead(towns).entries()) {
    const [, name, , english, others] = line.split('\t');
    const names = [name!, english!, ...others!.split('|')].filter(Boolean);
    for (const text of new Set(names.map(fold))) rowsOf.set(text, [...(rowsOf.get(text) ?? []), row]);
  }
  const sorted = [...rowsOf].sort(([a], [b]) => (a < b ? -1 : 1));
  return ['spelling\trows', ...sorted.map(([text, rows]) => [text, ...rows].join('\t')), ''].join('\n');
}

function spellingIn(line: string): string {
  return line.slice(0, line.indexOf('\t'));
}

function readTown(row: string): Town {
  const [, name, , , , country, region, lat, lon, population] = row.split('\t');
  return {
    key: `${name}, ${region || country}`,
    name: name!,
    country: country!,
    region: region!,
    lat: Number(lat),
    lon: Number(lon),
    population: Number(population),
  };
}

function linesBelowHead(table: string): string[] {
  return table.split('\n').slice(1).filter(Boolean);
}
