import type { Cell, CodeCell, MoneyCell, PlaceCell, QuantityCell, Row } from '../../core/cells.ts';
import type { Scheme } from '../../core/codes/tree.ts';
import { isoOf } from '../../core/dates.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import type { Reason } from '../../core/tally/columns.ts';
import type { Db } from '../db/open.ts';

type CompanyRow = Record<string, string | number | null> & { id: number; key: string };

/** Reads companies as rows of cells. */
export class RowSource {
  private readonly company;
  private readonly codes;
  private readonly technologies;
  private readonly sources;
  private readonly lookup: Lookup;

  constructor(db: Db, lookup: Lookup) {
    this.lookup = lookup;
    this.company = db.prepare<[number], CompanyRow>('SELECT * FROM company WHERE id = ?');
    this.codes = db.prepare<[number], { scheme: Scheme; code: string; rank: number }>(
      'SELECT scheme, code, rank FROM company_code WHERE company_id = ? ORDER BY rank, scheme',
    );
    this.technologies = db
      .prepare<[number], string>(
        'SELECT t.label FROM company_technology v JOIN technology t ON t.key = v.technology WHERE v.company_id = ? ORDER BY t.label',
      )
      .pluck();
    this.sources = db
      .prepare<[number], string>(
        'SELECT s.name FROM company_source v JOIN source s ON s.key = v.source WHERE v.company_id = ? ORDER BY s.id',
      )
      .pluck();
  }

  row(id: number, columns: readonly string[]): Row {
    const company = this.company.get(id)!;
    const row: Row = { key: company.key, cells: {} };
    for (const column of columns) {
      const cell = this.cell(company, column);
      row.cells[column] = cell;
      const why = cell === null ? company[`${column}_why`] : null;
      if (why) row.why = { ...row.why, [column]: why as Reason };
    }
    return row;
  }

  private cell(company: CompanyRow, column: string): Cell {
    const field = fieldOf('companies', column)!;
    const { store } = field;
    switch (store.at) {
      case 'column': {
        const value = company[store.column] ?? null;
        return field.kind === 'date' && value !== null ? isoOf(Number(value)) : value;
      }
      case 'range':
        return field.kind === 'money' ? money(company, store.stem) : quantity(company, store.stem);
      case 'place':
        return this.place(company);
      case 'codes':
        return this.codes.all(company.id).map(({ scheme, code, rank }): CodeCell => {
          const tree = this.lookup.codes(scheme);
          return { scheme, code, title: tree.titles[tree.nodeOf(code)]!, main: rank === 0 };
        });
      case 'many':
        if (store.known !== null && company[store.known] === null) return null;
        return store.table === 'company_technology'
          ? this.technologies.all(company.id)
          : this.sources.all(company.id);
      case 'words':
        return null;
    }
  }

  private place(company: CompanyRow): PlaceCell | null {
    const { town, region, country, lat, lon } = company as unknown as Omit<PlaceCell, 'townKey'>;
    if (town === null && country === null) return null;
    return {
      town,
      country,
      lat,
      lon,
      region: region === null ? null : (this.lookup.places.region(region)?.english ?? region),
      townKey: town === null || (region ?? country) === null ? null : `${town}, ${region ?? country}`,
    };
  }
}

function quantity(company: CompanyRow, stem: string): QuantityCell | null {
  const basis = company[`${stem}_basis`] as QuantityCell['basis'] | null;
  if (basis === null) return null;
  const finite = (value: string | number | null | undefined) =>
    typeof value === 'number' && Number.isFinite(value) ? value : null;
  return {
    basis,
    low: finite(company[`${stem}_low`]),
    high: finite(company[`${stem}_high`]),
    amount: finite(company[`${stem}_point`]),
    year: finite(company[`${stem}_year`]),
  };
}

function money(company: CompanyRow, stem: string): MoneyCell | null {
  const value = quantity(company, stem);
  return value && { ...value, currency: company[`${stem}_currency`] as string };
}
