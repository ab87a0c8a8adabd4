/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { fireEvent, screen } from '@testing-library/react';
import type { ColumnStyle, Undecided } from '../../../core/records/column-styles.ts';
import { PLAIN_MAPPING } from '../../../core/testing/plain-mapping.ts';
import { freshDesk, show } from '../../testing/render.tsx';
import { HowWritten } from './HowWritten.tsx';

beforeEach(freshDesk);

function written(id: string, style: ColumnStyle, undecided: Undecided['what'][] = [], came: string[] = []) {
  const onMapping = jest.fn<(part: object) => void>();
  show(
    <HowWritten
      at={1}
      name="Figures"
      id={id}
      mapping={{
        ...PLAIN_MAPPING,
        columns: ['name', id],
        styles: [{}, style],
        undecided: undecided.map((what) => ({ column: 1, what })),
      }}
      samples={came.map((cell) => ({ came: cell }))}
      onMapping={onMapping}
    />,
  );
  return onMapping;
}
const options = (label: string) =>
  [...screen.getByLabelText<HTMLSelectElement>(label).options].map(({ text }) => text);

describe('how a column is written', () => {
  test('its year is that of its heading, and can be another', () => {
    const onMapping = written('revenue', { year: 2022, unit: 1000 });
    const year = screen.getByLabelText<HTMLInputElement>('Figures: year');
    expect(year.value).toBe('2022');
    // A year that is being typed, or none, changes nothing yet.
    for (const value of ['', '20']) fireEvent.change(year, { target: { value } });
    expect(onMapping).not.toHaveBeenCalled();
    fireEvent.change(year, { target: { value: '2021' } });
    expect(onMapping.mock.calls).toEqual([[{ styles: [{}, { year: 2021, unit: 1000 }], undecided: [] }]]);
  });

  test('money is counted in what people count it in, lakhs and crores too', () => {
    written('revenue', { unit: 1e7, currency: 'INR' });
    expect(options('Figures is in')).toEqual([
      ...[
        'units',
        'thousands',
        'ten thousands',
        'lakhs',
        'millions',
        'crores',
        'hundred millions',
        'billions',
      ],
    ]);
    expect(screen.getByLabelText<HTMLSelectElement>('Figures is in').value).toBe('10000000');
    expect(screen.queryByLabelText('Figures: year')).toBeNull();
  });

  test('a currency that nobody can tell is asked for, and the answer settles it', () => {
    const onMapping = written('revenue', { unit: 1e6 }, ['currency']);
    expect(screen.getByRole('alert').textContent).toBe('Which currency is this?');
    expect(options('Figures: currency')[0]).toBe('choose');
    fireEvent.change(screen.getByLabelText('Figures: currency'), { target: { value: 'SEK' } });
    expect(onMapping.mock.calls).toEqual([[{ styles: [{}, { unit: 1e6, currency: 'SEK' }], undecided: [] }]]);
  });

  test('decimals are asked of only where a cell has a mark', () => {
    written('headcount', {}, [], ['120', '45']);
    expect(screen.queryByLabelText('Figures: decimals')).toBeNull();
  });

  test('a column of text says nothing', () => {
    const { container } = show(
      <HowWritten at={0} name="Town" id="town" mapping={PLAIN_MAPPING} samples={[]} onMapping={jest.fn()} />,
    );
    expect(container.textContent).toBe('');
  });
});
