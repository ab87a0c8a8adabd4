import { SCHEMES, type CodeTree, type Scheme } from '../codes/tree.ts';
import { fileColumns } from '../fields/registry.ts';
import type { Gazetteer } from '../geo/gazetteer.ts';
import { CURRENCIES } from '../money/rates.ts';
import { REASONS, type Reason } from '../tally/columns.ts';
import { fold } from '../text/fold.ts';
import { CellError, readDate, readNumber, readQuantity, readYear } from './cells.ts';
import type { Mapping } from './mapping.ts';
import type { CompanyRecord } from './record.ts';

/** One cell that could not be read. */
export interface CellProblem {
  /** Heading of the column, or a word for the whole row. */
  column: string;
  value: string;
  rule: string;
}

export interface RowReader {
  read(cells: readonly string[]): { record: CompanyRecord } | { problems: CellProblem[] };
}

const LONGEST_CELL = 32_767;

const STATUS_WORDS: Record<string, CompanyRecord['status']> = {
  active: 'active',
  aktiv: 'active',
  aktivni: 'active',
  aktywna: 'active',
  yes: 'active',
  dormant: 'dormant',
  inactive: 'dormant',
  ruhend: 'dormant',
  closed: 'closed',
  dissolved: 'closed',
  liquidated: 'closed',
  erloschen: 'closed',
  zanikla: 'closed',
};

/** A reader of the rows of one file. It reads the same cells as the same record each time, or says what is wrong with them. */
export function rowReader(
  header: readonly string[],
  mapping: Mapping,
  trees: ReadonlyMap<Scheme, CodeTree>,
  places: Gazetteer,
  asOf: number,
): RowReader {
  const columnOf = new Map(mapping.columns.flatMap((id, i) => (id === null ? [] : [[id, i] as const])));
  const labels = new Map(fileColumns('companies').map((column) => [column.id, column.label]));
  const tree = trees.get(mapping.scheme)!;

  return {
    read(cells) {
      const problems: CellProblem[] = [];
      if (cells.length > header.length && cells.slice(header.length).some((cell) => cell !== ''))
        return {
          problems: [
            {
              column: 'row',
              value: `${cells.length} cells`,
              rule: `at most ${header.length} cells, as the header has`,
            },
          ],
        };
      const text = (id: string): string | null => {
        const cell = cells[columnOf.get(id) ?? -1]?.trim() ?? '';
        return cell === '' ? null : cell;
      };
      const read = <T>(id: string, reader: (cell: string) => T): T | null => {
        const cell = text(id);
        if (cell === null) return null;
        try {
          if (cell.length > LONGEST_CELL) throw new CellError(`at most ${LONGEST_CELL} characters`);
          return reader(cell);
        } catch (error) {
          if (!(error instanceof CellError)) throw error;
          problems.push({
            column: header[columnOf.get(id)!] || labels.get(id)!,
            value: cell.slice(0, 200),
            rule: error.rule,
          });
          return null;
        }
      };
      const plain = (id: string) => read(id, (cell) => cell);

      const country =
        read('country', (cell) => {
          const found = places.countryNamed(cell);
          if (!found) throw new CellError('a country, as a name or an ISO code of two letters');
          return found.code;
        }) ?? mapping.country;
      const town = placeOf(plain('region'), plain('town'), country, places);
      const [lat, lon] = [coordinate('latitude', 90), coordinate('longitude', 180)];
      function coordinate(id: string, most: number) {
        return read(id, (cell) => {
          const value = readNumber(
            cell,
            cell.includes('.') && !cell.includes(',') ? { ...mapping, decimal: '.' } : mapping,
          );
          if (Math.abs(value) > most) throw new CellError(`degrees from -${most} to ${most}`);
          return value;
        });
      }
      const year = read('revenue-year', readYear) ?? mapping.year;
      const currency =
        read('revenue-currency', (cell) => {
          if (!CURRENCIES.includes(cell.toUpperCase()))
            throw new CellError(`a currency code with rates: ${CURRENCIES.join(', ')}`);
          return cell.toUpperCase();
        }) ?? mapping.currency;
      const revenue = read('revenue', (cell) =>
        readQuantity(
          /[a-z]{3}/i.test(cell) ? cell.replace(new RegExp(`\\s*${currency}\\s*`, 'i'), '') : cell,
          mapping,
          mapping.revenueUnit,
        ),
      );
      const technologies = (plain('technologies') ?? '')
        .split(/[,;|]/)
        .map((one) => one.trim())
        .filter(Boolean);
      const surveyedOn =
        read('surveyed', (cell) => readDate(cell, mapping)) ?? (technologies.length ? asOf : null);
      const record: CompanyRecord = {
        name: plain('name') ?? '',
        legalForm: plain('legal-form'),
        registration: plain('registration'),
        status: read('status', (cell) => oneOf(STATUS_WORDS[fold(cell)], 'active, dormant or closed')),
        country,
        ...town,
        postcode: plain('postcode'),
        street: plain('street'),
        lat: lat ?? town.lat,
        lon: lon ?? town.lon,
        phone: plain('phone'),
        mail: plain('mail'),
        web: read('web', (cell) => cell.replace(/^https?:\/\//i, '').replace(/\/$/, '')),
        description: plain('description'),
        founded: read('founded', readYear),
        codes: [
          ...(read('main-code', (cell) => readCodes(cell, tree, mapping.scheme)) ?? []).map((code, i) => ({
            scheme: mapping.scheme,
            code,
            main: i === 0,
          })),
          ...(read('other-codes', (cell) => readCodes(cell, tree, mapping.scheme)) ?? []).map((code) => ({
            scheme: mapping.scheme,
            code,
            main: false,
          })),
        ],
        headcount: read('headcount', (cell) => readQuantity(cell, mapping)),
        headcountYear: read('headcount-year', readYear),
        headcountWhy: read('headcount-unknown', reason),
        revenue: revenue ? { ...revenue, currency, year } : null,
        revenueWhy: read('revenue-unknown', reason),
        technologies,
        surveyedOn,
        checkedOn: read('checked', (cell) => readDate(cell, mapping)),
        checkedHow: read('checked-how', (cell) =>
          oneOf(
            (['phone', 'register', 'web'] as const).find((how) => how === fold(cell)),
            'phone, register or web',
          ),
        ),
      };
      if (record.name === '' && !problems.some((one) => one.column === header[columnOf.get('name') ?? -1]))
        problems.push({
          column: header[columnOf.get('name') ?? -1] ?? 'Company',
          value: '',
          rule: 'a name; a row without one cannot be loaded',
        });
      return problems.length ? { problems } : { record };
    },
  };
}

function placeOf(region: string | null, town: string | null, country: string | null, places: Gazetteer) {
  const regionKey = region === null ? null : (places.regionNamed(region, country ?? undefined)?.key ?? null);
  const found =
    town === null
      ? undefined
      : (places.townNamed(town, { country: country ?? undefined, region: regionKey ?? undefined }) ??
        undefined);
  if (found && country)
    return { region: found.region || regionKey, town: found.name, lat: found.lat, lon: found.lon };
  return { region: regionKey, town, lat: null, lon: null };
}

function readCodes(cell: string, tree: CodeTree, scheme: Scheme): string[] {
  return cell
    .split(/[,;|\s]+/)
    .filter(Boolean)
    .map((written) => {
      const node = tree.nodeOfLoose(written);
      if (node < 0) throw new CellError(`a code of ${SCHEMES[scheme]}; “${written}” is none`);
      return tree.codes[node]!;
    });
}

function oneOf<T>(value: T | null | undefined, rule: string): T {
  if (value === null || value === undefined) throw new CellError(rule);
  return value;
}

function reason(cell: string): Reason {
  return oneOf(
    REASONS.find((one) => one === cell.toLowerCase()),
    `one of ${REASONS.join(', ')}`,
  );
}
