import type { Gazetteer, Town } from '../core/geo/gazetteer.ts';
import { hashOf } from '../core/text/hash.ts';
import { runningSums } from './random.ts';
import type { Sector } from './sector.ts';

/** Countries that the demo fills, by how many companies they get; the later ones thinly. */
const COUNTRIES: Record<string, number> = {
  DE: 150,
  PL: 90,
  CZ: 85,
  AT: 60,
  FR: 70,
  IT: 70,
  GB: 65,
  ES: 50,
  NL: 45,
  SE: 42,
  HU: 36,
  SK: 34,
  DK: 34,
  BE: 32,
  FI: 32,
  CH: 32,
  RO: 28,
  NO: 26,
  PT: 22,
  SI: 18,
  HR: 17,
  BG: 16,
  LT: 16,
  EE: 14,
  LV: 13,
  GR: 14,
  IE: 13,
  LU: 5,
  IS: 4,
  CY: 4,
  MT: 4,
  US: 10,
  TR: 6,
  UA: 5,
  RS: 5,
  CA: 3,
  JP: 2,
  AU: 2,
  BR: 2,
  MX: 2,
  ZA: 2,
  KR: 1,
  NZ: 1,
};

const WOODED =
  /^(CZ-(63|52|71|31|80)|PL-(18|28|32|24)|AT-(2|3|4|6)|DE-(BY|BW|TH)|SK-(ZI|PV|BC)|FI-|SE-(W|Z|S|F|G|Y)|NO-(34|50)|SI-|EE-|LV-|RO-(SV|HR|BV|NT)|HR-(08|09|10)|CH-(BE|GR)|FR-(GES|ARA)|IT-(32|25))/;
const COASTAL =
  /^(DE-(SH|MV|NI|HB|HH)|PL-(22|32)|DK-|NL-(FR|ZE|NH|ZH)|NO-|SE-(O|M|K|H|AB|AC)|FI-(02|18|19|01)|EE-37|LV-kurzeme|FR-(BRE|PDL|NOR|PAC)|IT-(42|36|34|62|57)|ES-(GA|AS|CT|IB|VC)|PT-(11|13|08|15)|HR-(08|13|15|17|18)|GR-|GB-(south|east|northern|wales)|IE-|CY-|MT-|IS-)/;
const INDUSTRIAL =
  /^(DE-(NW|BW|SN|BY|HE)|CZ-(80|72|64|42|20)|PL-(24|02|30|12)|AT-(4|6)|SK-(TC|TA|ZI)|HU-(GS|FE|BZ|KE|PE)|IT-(25|21|45|34)|FR-(ARA|HDF|GES)|ES-(PV|CT)|GB-(west|yorkshire|north|east-mid)|SI-|SE-(F|O|U)|NL-(NB|GE|OV)|BE-V|RO-(TM|AR|CJ|BV)|CH-(AG|SO|ZH|SG)|LU-)/;

/** Draws towns by population and by where a sector gathers, so that trades stand in real clusters. */
export class Places {
  readonly countryCodes = Object.keys(COUNTRIES);
  readonly countrySums = runningSums(Object.values(COUNTRIES));
  private readonly towns = new Map<string, Town[]>();
  private readonly sums = new Map<string, Float64Array>();
  private readonly postcodeOf = new Map<string, string>();
  private readonly postcodes = new Map<
    string,
    { template: string; prefixes: Map<string, string[]>; letters: string }
  >();

  constructor(gazetteer: Gazetteer, postcodeTable: string) {
    for (const town of gazetteer.towns) {
      if (!COUNTRIES[town.country]) continue;
      const list = this.towns.get(town.country);
      if (list) list.push(town);
      else this.towns.set(town.country, [town]);
    }
    for (const row of postcodeTable.split('\n').slice(1).filter(Boolean)) {
      const [country, , , template, letters, , prefixes] = row.split('\t');
      this.postcodes.set(country!, {
        template: template!,
        letters: letters || 'ABCDEFGHJKLMNPRSTUWXYZ',
        prefixes: new Map(
          (prefixes ?? '')
            .split(';')
            .filter(Boolean)
            .map((part) => [part.split(':')[0]!, expand(part.split(':')[1]!)]),
        ),
      });
    }
  }

  townsOf(country: string): readonly Town[] {
    return this.towns.get(country)!;
  }

  sumsOf(country: string, gathers: Sector['gathers']): Float64Array {
    const key = `${country} ${gathers}`;
    let sums = this.sums.get(key);
    if (!sums) {
      sums = runningSums(
        this.townsOf(country).map(
          (town) =>
            Math.min(town.population, 3e6) ** (gathers === 'city' ? 0.95 : 0.75) * pull(town.region, gathers),
        ),
      );
      this.sums.set(key, sums);
    }
    return sums;
  }

  /** A made-up postcode of the right form; a town keeps its own. */
  postcode(town: Town): string {
    let postcode = this.postcodeOf.get(town.key);
    if (postcode === undefined) this.postcodeOf.set(town.key, (postcode = this.makePostcode(town)));
    return postcode;
  }

  private makePostcode(town: Town): string {
    const pattern = this.postcodes.get(town.country);
    if (!pattern) return '';
    let hash = hashOf(town.key);
    const draw = (n: number) => {
      hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d) >>> 0;
      return hash % n;
    };
    const prefixes = pattern.prefixes.get(town.region) ?? [''];
    const prefix = prefixes[draw(prefixes.length)]!;
    let left = pattern.template.includes('{p}') ? '' : prefix;
    return pattern.template.replace('{p}', prefix).replace(/[#@]/g, (mark) => {
      if (left !== '') {
        const first = left[0]!;
        left = left.slice(1);
        return first;
      }
      return mark === '#' ? String(draw(10)) : pattern.letters[draw(pattern.letters.length)]!;
    });
  }
}

function pull(region: string, gathers: Sector['gathers']): number {
  const strong =
    gathers === 'wood' ? WOODED : gathers === 'coast' ? COASTAL : gathers === 'works' ? INDUSTRIAL : null;
  if (!strong) return 1;
  // Within a country some regions lead by chance, as trades do.
  return (
    (strong.test(region) ? 3 : gathers === 'coast' ? 0.25 : 0.7) *
    (0.6 + (hashOf(`${region} ${gathers}`) % 100) / 125)
  );
}

function expand(prefixes: string): string[] {
  return prefixes.split(',').flatMap((part) => {
    const range = /^(\d+)-(\d+)$/.exec(part);
    if (!range) return [part];
    const all: string[] = [];
    for (let n = Number(range[1]); n <= Number(range[2]); n++)
      all.push(String(n).padStart(range[1]!.length, '0'));
    return all;
  });
}
