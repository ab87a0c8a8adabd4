/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import type { CodeCount } from '../../../contract/responses.ts';
import { emptyTape } from '../../../core/tape/nodes.ts';
import { freshDesk, show } from '../../testing/render.tsx';
import { useDesk } from '../store.ts';
import { SqlDialog } from '../tape/SqlDialog.tsx';
import { CodeNotes } from './CodeNotes.tsx';
import { CountryGroups } from './CountryGroups.tsx';

beforeEach(freshDesk);

describe('groups of countries', () => {
  const nordics = { key: 'nordics', label: 'Nordics', countries: ['DK', 'SE'], count: 812, own: false };
  const groups = (picked: string[], answers = {}) => {
    const onToggle = jest.fn();
    const shown = show(<CountryGroups groups={[nordics]} picked={picked} onToggle={onToggle} />, answers);
    return { ...shown, onToggle };
  };
  test('are pressed as one, with their count, and say which they are', async () => {
    const { user, onToggle } = groups(['nordics']);
    const button = screen.getByRole('button', { name: /Nordics/ });
    expect([button.getAttribute('aria-pressed'), button.title, button.textContent]).toEqual([
      'true',
      'DK SE',
      'Nordics 812',
    ]);
    await user.click(button);
    expect(onToggle).toHaveBeenCalledWith('nordics');
    // A group is no country that could be kept with others.
    expect(screen.queryByLabelText(/^keep these/)).toBeNull();
  });
  test('of one’s own are kept from the countries picked, by a name that has letters', async () => {
    const { user, sent } = groups(['CZ', 'nordics', 'AT'], { 'PUT /country-groups/our-markets': {} });
    const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep' });
    const name = screen.getByLabelText('keep these 2 as a group named');
    await user.type(name, '!?');
    expect(keep.disabled).toBe(true);
    await user.clear(name);
    await user.type(name, 'Our markets{Enter}');
    await waitFor(() =>
      expect(sent('PUT /country-groups/our-markets')).toEqual([
        { label: 'Our markets', countries: ['CZ', 'AT'] },
      ]),
    );
    expect((name as HTMLInputElement).value).toBe('');
  });
  test('that are refused keep the name, and say why', async () => {
    const { user } = groups(['CZ', 'AT'], {
      'PUT /country-groups/nordics': new Error('“nordics” is a group that ships with the program.'),
    });
    const name = screen.getByLabelText(/^keep these/);
    await user.type(name, 'Nordics{Enter}');
    expect(await screen.findByText(/ships with the program/)).toBeTruthy();
    expect((name as HTMLInputElement).value).toBe('Nordics');
  });
});

describe('what is known of a code', () => {
  const path = [
    { code: 'C', title: 'Manufacturing', count: 9000 },
    { code: '25', title: 'Manufacture of fabricated metal products', count: 1200 },
  ] as CodeCount[];
  const kin = (n: number, more: object = {}) => ({
    ...{ scheme: 'isic-4', code: `25${n}`, title: `Kin ${n}`, kind: 'exact', sure: true },
    ...more,
  });
  const answer = (more: object = {}) => ({
    ...{ code: '25', note: null, kin: [], together: [] },
    ...more,
  });
  const notes = (said: object) => {
    const onCodes = jest.fn();
    const shown = show(<CodeNotes scheme="nace-2.1" code="25" path={path} onCodes={onCodes} />, {
      'GET /codes/nace-2.1/25': said,
    });
    return { ...shown, onCodes };
  };
  test('is where it stands with counts, and its kin, sure and possible apart, each a way to look for it instead', async () => {
    const { user, onCodes } = notes(answer({ kin: [kin(1), kin(2, { sure: false, kind: 'partial' })] }));
    expect(screen.getByText('9,000')).toBeTruthy();
    const sure = (await screen.findByText('sure')).closest('button')!;
    expect(sure.textContent).toBe('ISIC 4 251 sure, the same: Kin 1');
    expect(screen.getByText('possible').closest('button')!.textContent).toMatch(/252 possible, in part/);
    await user.click(sure);
    expect(onCodes).toHaveBeenCalledWith('isic-4', ['251']);
  });
  test('of many kin says how many more there are, and what is filed together with it by share', async () => {
    notes(
      answer({
        kin: Array.from({ length: 20 }, (_, i) => kin(i)),
        together: [{ code: '33.11', title: 'Repair of metal products', count: 84, share: 0.264 }],
      }),
    );
    expect(await screen.findByText('and 6 more')).toBeTruthy();
    expect(screen.getByText('26 %').parentElement!.textContent).toMatch(/33\.11.*84/);
  });
  test('has a note that opens where it is long, and says of which code it is', async () => {
    const text = `${'a'.repeat(260)}the end`;
    notes(answer({ note: { text, from: 'ISIC 4 25' } }));
    expect((await screen.findByText(/^a{260}/)).textContent).toBe(`${'a'.repeat(260)} …`);
    expect(screen.getByText('the end')).toBeTruthy();
    expect(screen.getByText('Note of its exact kin ISIC 4 25.')).toBeTruthy();
  });
});

describe('the count as SQL', () => {
  test('is asked for one database at a time, and copied', async () => {
    useDesk.setState({
      tape: { ...emptyTape(), lines: [{ id: 'l', field: 'status', test: { any: ['active'] } }] },
    });
    const { user, sent } = show(<SqlDialog open onClose={() => undefined} />, {
      'POST /sql': ({ dialect }: { dialect: string }) => ({
        dialect,
        text: '',
        values: [],
        statement: `SELECT -- ${dialect}`,
      }),
    });
    expect(await screen.findByText('SELECT -- sqlite')).toBeTruthy();
    await user.click(screen.getByRole('radio', { name: 'DuckDB' }));
    await screen.findByText('SELECT -- duckdb');
    expect(screen.getByText(/one Parquet file each/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Copy' }));
    expect(await navigator.clipboard.readText()).toBe('SELECT -- duckdb');
    expect(sent('POST /sql')).toMatchObject([{ dialect: 'sqlite' }, { dialect: 'duckdb' }]);
  });
  test('of a tape that has none says why, and copies nothing', async () => {
    show(<SqlDialog open onClose={() => undefined} />, { 'POST /sql': new Error('Peers have no SQL.') });
    expect(await screen.findByText('Peers have no SQL.')).toBeTruthy();
    expect(screen.getByLabelText('Statement').textContent).toBe('None for this tape.');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Copy' }).disabled).toBe(true);
  });
});
