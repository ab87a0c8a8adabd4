/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { PrecedenceAnswer } from '../../contract/own-values.ts';
import { FRESH_DAYS } from '../../core/records/coverage.ts';
import { PART_LABELS } from '../../core/records/part-labels.ts';
import { undo } from '../app/history.ts';
import { freshDesk, settled, show } from '../testing/render.tsx';
import { source } from '../testing/sources.tsx';
import { CleanAddresses } from './CleanAddresses.tsx';
import { CoveragePlace } from './CoveragePlace.tsx';
import { WinsPlace } from './WinsPlace.tsx';

beforeEach(freshDesk);

const precedence: PrecedenceAnswer = {
  groups: [
    { group: 'contact', label: 'Phone, mail, web', by: 'newest', sources: [], ways: ['newest', 'order'] },
    { group: 'size', label: 'Headcount', by: 'exact', sources: [], ways: ['exact', 'newest', 'order'] },
  ],
  sources: [
    { key: 'register', name: 'Register' },
    { key: 'directory', name: 'Directory' },
  ],
};
const job = (id: string, result: object) => ({
  [`GET /jobs/${id}`]: { job: { id, state: 'done', title: '', result }, refusals: false },
});
const usual = [
  { group: 'contact', by: 'newest', sources: [] },
  { group: 'size', by: 'exact', sources: [] },
];
const wished = [
  { group: 'contact', by: 'order', sources: ['directory', 'register'] },
  { group: 'size', by: 'exact', sources: [] },
];

describe('which source wins', () => {
  const open = () =>
    show(<WinsPlace onLeave={() => {}} />, {
      'GET /precedence': precedence,
      'PUT /precedence': ({ apply }: { apply: boolean }) => ({ job: { id: apply ? 'j2' : 'j1' } }),
      ...job('j1', { several: 200, companies: 12, values: [{ part: 'Phone', count: 12 }] }),
      ...job('j2', {}),
    });
  test('is ordered by group, counted before it is taken over, and taken back', async () => {
    const { user, sent } = open();
    const contact = within(await screen.findByRole('region', { name: 'Phone, mail, web' }));
    const take = screen.getByRole<HTMLButtonElement>('button', { name: 'Take over' });
    expect(take.disabled).toBe(true);
    await user.click(contact.getByRole('radio', { name: 'in my order' }));
    await user.click(contact.getByRole('button', { name: 'Directory up' }));
    const order = within(contact.getByRole('list', { name: 'Order for Phone, mail, web' }));
    expect(order.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
      '1Directory',
      '2Register',
    ]);
    await user.click(screen.getByRole('button', { name: 'Count what changes' }));
    expect(await screen.findByLabelText('companies change: 12')).toBeTruthy();
    const values = within(screen.getByRole('list', { name: 'Values that change' }));
    expect(values.getByRole('listitem').textContent).toBe('Phone12');
    expect(screen.getByText('−188')).toBeTruthy();
    await user.click(take);
    await waitFor(() => expect(sent('PUT /precedence')).toHaveLength(2));
    expect(sent('PUT /precedence')).toEqual([
      { groups: wished, apply: false },
      { groups: wished, apply: true },
    ]);
    await settled(undo);
    expect(sent('PUT /precedence')[2]).toEqual({ groups: usual, apply: true });
  });
  test('is left as it is by a press', async () => {
    const { user, sent } = open();
    const contact = within(await screen.findByRole('region', { name: 'Phone, mail, web' }));
    await user.click(contact.getByRole('radio', { name: 'in my order' }));
    await user.click(screen.getByRole('button', { name: 'Leave as it is' }));
    expect(contact.getByRole('radio', { name: 'checked last' }).getAttribute('aria-checked')).toBe('true');
    expect(sent('PUT /precedence')).toEqual([]);
  });
});

describe('what each source knows', () => {
  const cell = (name: string, country: string, records: number, phones: number) => ({
    ...{ source: name, country, records },
    known: PART_LABELS.map(({ part }) => (part === 'name' ? records : part === 'phone' ? phones : 0)),
    fresh: FRESH_DAYS.map((_, at) => (at === 2 ? records : 0)),
  });
  const shares = (label: string) =>
    within(screen.getByRole('rowheader', { name: label }).parentElement!)
      .getAllByRole('cell')
      .map(({ textContent }) => textContent);
  test('stands by source, in all countries or one, and of one source by country', async () => {
    const { user } = show(<CoveragePlace sources={[source('a'), source('b')]} onLeave={() => {}} />, {
      'POST /coverage': { job: { id: 'j1' } },
      ...job('j1', { cells: [cell('a', 'CZ', 60, 30), cell('a', 'DE', 40, 0), cell('b', 'CZ', 10, 10)] }),
    });
    await screen.findByRole('table', { name: 'Coverage' });
    expect(shares('Phone')).toEqual(['30 %', '100 %']);
    expect(shares('Checked within 2 years')).toEqual(['100 %', '100 %']);
    // What nobody knows is no row.
    expect(screen.queryByRole('rowheader', { name: 'Revenue' })).toBeNull();
    const fields = () =>
      screen
        .getAllByRole('rowheader')
        .map(({ textContent }) => textContent)
        .filter((label) => !label.startsWith('Checked'));
    const inOrder = fields();
    await user.click(screen.getByRole('button', { name: 'Register a' }));
    expect(fields()).toEqual(['Name', 'Phone']);
    await user.click(screen.getByRole('button', { name: /^Register a/ }));
    expect(fields()).toEqual(['Phone', 'Name']);
    await user.click(screen.getByRole('button', { name: 'Field' }));
    expect(fields()).toEqual(inOrder);
    await user.selectOptions(screen.getByRole('combobox', { name: 'in' }), 'CZ');
    expect(shares('Phone')).toEqual(['50 %', '100 %']);
    await user.click(screen.getByRole('radio', { name: 'Register a' }));
    expect(screen.getAllByRole('columnheader').map(({ textContent }) => textContent)).toEqual([
      'Field',
      'all100',
      'CZ60',
      'DE40',
    ]);
    expect(shares('Phone')).toEqual(['30 %', '50 %', '']);
  });
});

describe('pasted web addresses', () => {
  test('are cleaned as they are typed, to the domain or the page, and matched as a file', async () => {
    const files: File[] = [];
    const { user } = show(<CleanAddresses onClose={() => {}} onMatch={(file) => files.push(file)} />);
    await user.click(screen.getByLabelText('As they came'));
    await user.paste('https://www.lakovna.example/en?utm_source=x\nlakovna.example\nnothing');
    const clean = screen.getByLabelText<HTMLTextAreaElement>(/^Clean: 1/);
    expect(clean.value).toBe('lakovna.example');
    expect(screen.getByText(/is no address: “nothing”/)).toBeTruthy();
    await user.click(screen.getByRole('radio', { name: 'its page' }));
    expect(clean.value).toBe('lakovna.example/en\nlakovna.example');
    await user.click(screen.getByRole('button', { name: 'Match these' }));
    expect([files[0]!.name, files[0]!.size]).toEqual([
      'addresses.csv',
      'Website\n'.length + clean.value.length + 1,
    ]);
  });
  test('of which there is none offer nothing', () => {
    show(<CleanAddresses onClose={() => {}} onMatch={() => {}} />);
    for (const name of ['Copy', 'Save as CSV', 'Match these'])
      expect(screen.getByRole<HTMLButtonElement>('button', { name }).disabled).toBe(true);
  });
});
