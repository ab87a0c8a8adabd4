/** @jest-environment jsdom */
import { describe, expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { SortHead, useOrder } from './SortHead.tsx';

interface Row extends Record<'name' | 'count' | 'at', string | number | null> {
  name: string;
  count: number | null;
  at: string | null;
}

function Sorted({ rows, short = false }: { rows: readonly Row[]; short?: boolean }) {
  const { sorted, order, setOrder } = useOrder<'name' | 'count' | 'at', Row>(rows, {
    by: 'count',
    descending: true,
  });
  return (
    <table>
      <thead>
        <tr>
          <SortHead by="name" label="Firm" order={order} onOrder={setOrder} short={short} />
          <SortHead by="count" label="Members" order={order} onOrder={setOrder} right />
          <SortHead by="at" label="Made" order={order} onOrder={setOrder} />
        </tr>
      </thead>
      <tbody>
        {sorted.map(({ name }) => (
          <tr key={name}>
            <td>{name}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const ROWS: readonly Row[] = [
  { name: 'firm 10', count: 3, at: '2026-10-01' },
  { name: 'Firm 9', count: null, at: null },
  { name: 'Äther', count: 12, at: '2026-11-01' },
];
const names = () => screen.getAllByRole('cell').map((cell) => cell.textContent);
const press = (label: string) =>
  userEvent.click(screen.getByRole('button', { name: new RegExp(`^${label}`) }));
const said = (label: string) =>
  screen.getByRole('columnheader', { name: new RegExp(`^${label}`) }).getAttribute('aria-sort');

describe('a list with headings that sort it', () => {
  test('begins in the order it is given, and says so', () => {
    render(<Sorted rows={ROWS} />);
    expect(names()).toEqual(['Äther', 'firm 10', 'Firm 9']);
    expect(['Firm', 'Members', 'Made'].map(said)).toEqual(['none', 'descending', 'none']);
  });

  test('sorts names from A, whatever the case and the accents, and numbers in them by size', async () => {
    render(<Sorted rows={ROWS} />);
    await press('Firm');
    expect(names()).toEqual(['Äther', 'Firm 9', 'firm 10']);
    expect(said('Firm')).toBe('ascending');
    await press('Firm');
    expect(names()).toEqual(['firm 10', 'Firm 9', 'Äther']);
  });

  test('sorts what is counted or dated from the most and the latest, the unknown last', async () => {
    render(<Sorted rows={ROWS} />);
    await press('Made');
    expect(names()).toEqual(['Äther', 'firm 10', 'Firm 9']);
    await press('Members');
    await press('Members');
    expect(names()).toEqual(['Firm 9', 'firm 10', 'Äther']);
  });

  test('keeps rows that are equal as they came', async () => {
    const same = ROWS.map((row) => ({ ...row, count: 1 }));
    render(<Sorted rows={same} />);
    expect(names()).toEqual(same.map(({ name }) => name));
    await press('Members');
    expect(names()).toEqual(same.map(({ name }) => name));
  });

  test('tells a label in full that is cut', () => {
    render(<Sorted rows={ROWS} short />);
    expect(screen.getByTitle('Firm').className).toContain('truncate');
    expect(screen.queryByTitle('Members')).toBeNull();
  });
});
