import { afterAll, describe, expect, test } from '@jest/globals';
import { copyFileSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isoOf } from '../../core/dates.ts';
import { relatedReader, type ReadSubject } from '../../core/records/read-related.ts';
import { rowReader } from '../../core/records/read-row.ts';
import type { CompanyRecord, Money, Quantity } from '../../core/records/record.ts';
import type { RelatedRecord } from '../../core/records/related.ts';
import { isFreeMail } from '../free-mail.ts';
import { loadCodeTrees, loadGazetteer, ROOT } from '../reference.ts';
import { dataRows } from './read-file.ts';
import { recognise } from './recognise.ts';

/** Files as other people write them, in `data/files/`, each with what it has to come to beside it. */

interface Expected {
  /** What the file is about, in a few words. */
  about: string;
  subject?: string;
  encoding?: string;
  was?: string;
  sheet?: string;
  /** What has to be said of which column before it is loaded. */
  undecided?: string[];
  /** Cells that are not understood, rows that are refused, and rows that are no data; 0 where left out. */
  left?: number;
  refused?: number;
  notData?: number;
  /** What each record has to have, in plain words; null for unknown. */
  records?: Record<string, unknown>[];
  /** Code of the problem with which the file is refused. */
  problem?: string;
}

const FILES = join(ROOT, 'data', 'files');
const dir = mkdtempSync(join(tmpdir(), 'just-tally-files-'));
afterAll(() => rmSync(dir, { recursive: true }));
const trees = loadCodeTrees();
const places = loadGazetteer();

const expectations = readdirSync(FILES)
  .filter((name) => name.endsWith('.expected.json'))
  .map((name) => {
    const file = readdirSync(FILES).find(
      (one) =>
        one.startsWith(`${name.slice(0, -'.expected.json'.length)}.`) && !one.endsWith('.expected.json'),
    )!;
    return [file, JSON.parse(readFileSync(join(FILES, name), 'utf8')) as Expected] as const;
  });

test('there are files of every kind', () => {
  expect(expectations.length).toBeGreaterThanOrEqual(80);
});

describe.each(expectations)('%s', (file, expected) => {
  test(expected.about, async () => {
    const path = join(dir, file);
    copyFileSync(join(FILES, file), path);
    const reading = recognise({ path, reading: {}, fresh: true, defaults: { currency: 'EUR', year: 2025 } });
    if (expected.problem !== undefined) {
      await expect(reading).rejects.toMatchObject({ code: expected.problem });
      return;
    }
    const { preview, was, subject, mapping } = await reading;
    expect(subject).toBe(expected.subject ?? 'companies');
    if (expected.encoding !== undefined) expect(preview.encoding).toBe(expected.encoding);
    if (expected.was !== undefined) expect(was).toBe(expected.was);
    if (expected.sheet !== undefined) expect(preview.sheet).toBe(expected.sheet);
    expect((mapping.undecided ?? []).map(({ column, what }) => `${preview.header[column]}: ${what}`)).toEqual(
      expected.undecided ?? [],
    );
    if (expected.undecided) return;
    const found: Record<string, unknown>[] = [];
    const counts = { left: 0, refused: 0, notData: 0 };
    const companies =
      subject === 'companies' ? rowReader(preview.header, mapping, trees, places, 20_700) : null;
    const related = companies
      ? null
      : relatedReader(subject as ReadSubject, preview.header, mapping, places, null, isFreeMail);
    const problems: unknown[] = [];
    for await (const block of dataRows(path, preview, preview.header))
      for (const { cells, notData } of block) {
        if (notData) {
          counts.notData++;
          continue;
        }
        const read = companies ? companies.read(cells) : related!.read(cells);
        if ('problems' in read) {
          counts.refused++;
          problems.push(...read.problems);
          continue;
        }
        counts.left += read.left.length;
        problems.push(...read.left);
        found.push('record' in read ? plainCompany(read.record) : plainRelated(read.related));
      }
    const { left = 0, refused = 0, notData = 0, records = [] } = expected;
    expect({ ...counts, problems: problems.length === left ? [] : problems }).toEqual({
      ...{ left, refused, notData },
      problems: problems.length === left ? [] : expect.anything(),
    });
    expect(found.map((one, i) => pick(one, records[i] ?? {}))).toEqual(records);
  });
});

function pick(one: Record<string, unknown>, wanted: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(
    Object.keys(wanted).map((key) => [key, one[key] === undefined ? 'no such part' : one[key]]),
  );
}

function plainCompany(record: CompanyRecord): Record<string, unknown> {
  return {
    ...record,
    headcount: figure(record.headcount),
    revenue: money(record.revenue),
    profit: money(record.profit),
    assets: money(record.assets),
    codes: record.codes.map(({ scheme, code }) => `${scheme} ${code}`),
    checkedOn: day(record.checkedOn),
    technologies: record.technologies.map(({ label }) => label),
    // Where it is known by its town or its own coordinates, to the first digit.
    at: record.lat === null ? null : `${record.lat.toFixed(1)} ${record.lon!.toFixed(1)}`,
  };
}

function plainRelated(related: RelatedRecord): Record<string, unknown> {
  const dates = Object.entries(related.record).map(([key, value]) =>
    /On$|^date$/.test(key) ? [key, day(value as number | null)] : [key, value as unknown],
  );
  const amount = 'amount' in related.record ? { amount: money(related.record.amount) } : {};
  return {
    ...(Object.fromEntries(dates) as Record<string, unknown>),
    ...amount,
    company:
      'company' in related
        ? (related.company.number ?? related.company.domain ?? related.company.name)
        : null,
    parties:
      'parties' in related ? related.parties.map(({ role, reference }) => `${role} ${reference.name}`) : null,
  };
}

const day = (value: number | null) => (value === null ? null : isoOf(value));

function figure(quantity: Quantity | null): string | null {
  if (quantity === null) return null;
  const { basis, low, high, point } = quantity;
  if (basis === 'reported') return String(point);
  const range = high === Infinity ? `${low}+` : low === -Infinity ? `-${high}` : `${low}-${high}`;
  return basis === 'band' ? range : `≈${point} (${range})`;
}

const money = (value: Money | null) => value && `${figure(value)} ${value.currency} ${value.year}`;
