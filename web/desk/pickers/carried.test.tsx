/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { aList } from '../../testing/lists.ts';
import { pick, value } from '../../testing/picker.tsx';
import { freshDesk } from '../../testing/render.tsx';
import { ListPicker } from './ListPicker.tsx';

beforeEach(freshDesk);

const fair = aList({
  key: 'fair',
  name: 'Fair',
  members: 4,
  carried: [
    { column: 'Hall', kind: 'category' },
    { column: 'Visits', kind: 'number' },
    { column: 'Remark', kind: 'text' },
  ],
});
const other = aList({ key: 'other', name: 'Other', carried: [{ column: 'Hall', kind: 'number' }] });
const COUNTS: Record<string, object> = {
  Hall: {
    values: [value('b', 2, { label: 'Hall "B"' }), value('a', 1, { label: 'A' })],
    low: null,
    high: null,
  },
  Visits: { values: [], low: 3, high: 1250.5 },
  Remark: { values: [], low: null, high: null },
};

/** The picker with a line on some lists, one of whose files carried three columns along. */
const opened = (any: string[]) =>
  pick(
    ListPicker,
    'list',
    {
      'GET /lists': { lists: [fair, other], removed: [], reasons: [] },
      'POST /counts': ({ column }: { column?: string }) => {
        return column
          ? { total: 4, known: 3, unknown: 1, ...COUNTS[column] }
          : { total: 4, unknown: 0, values: [value('fair', 4), value('other', 2)] };
      },
    },
    { start: { any } },
  );

describe('what the file says that put members on a list', () => {
  test('of a category each value is counted, taken and let go', async () => {
    const { user, last, sent } = opened(['fair']);
    await user.selectOptions(await screen.findByLabelText('whose file says under'), 'Hall');
    const values = await screen.findByRole('list', { name: 'Hall' });
    await user.click(within(values).getByRole('checkbox', { name: /Hall "B"/ }));
    expect(last()).toEqual({ any: ['fair'], carried: { column: 'Hall', any: ['Hall B'] } });
    await user.click(within(values).getByRole('checkbox', { name: /^A/ }));
    expect(last()).toMatchObject({ carried: { any: ['Hall B', 'A'] } });
    await user.click(within(values).getByRole('checkbox', { name: /^A/ }));
    expect(last()).toMatchObject({ carried: { any: ['Hall B'] } });
    expect(sent('POST /counts').at(-1)).toMatchObject({ column: 'Hall', members: { any: ['fair'] } });
    expect(screen.getByText(/have it/).textContent).toBe('3 have it; not said of 1');
  });

  test('of numbers a range is asked, and what is no number is said and not taken', async () => {
    const { user, last, asks } = opened(['fair']);
    await user.selectOptions(await screen.findByLabelText('whose file says under'), 'Visits');
    expect((await screen.findByText(/have it/)).textContent).toBe(
      '3 have it, from 3 to 1,250.5; not said of 1',
    );
    await user.type(screen.getByLabelText('from'), '12,5{Enter}');
    expect(last()).toMatchObject({ carried: { column: 'Visits', from: 12.5 } });
    await user.type(screen.getByLabelText('to'), '40{Enter}');
    expect(last()).toMatchObject({ carried: { column: 'Visits', from: 12.5, to: 40 } });
    const before = asks.length;
    await user.clear(screen.getByLabelText('to'));
    await user.type(screen.getByLabelText('to'), 'many{Enter}');
    expect(screen.getByText('a number such as 12.5')).toBeTruthy();
    expect(asks).toHaveLength(before);
  });

  test('of texts words are asked', async () => {
    const { user, last } = opened(['fair']);
    await user.selectOptions(await screen.findByLabelText('whose file says under'), 'Remark');
    await user.type(await screen.findByLabelText('with the words'), '"pays late"{Enter}');
    expect(last()).toMatchObject({ carried: { column: 'Remark', words: 'pays late' } });
  });

  test('another heading, or none, asks nothing of the one before', async () => {
    const { user, last } = opened(['fair']);
    const heading = await screen.findByLabelText('whose file says under');
    await user.selectOptions(heading, 'Remark');
    await user.type(await screen.findByLabelText('with the words'), 'late{Enter}');
    await user.selectOptions(heading, 'any heading');
    expect(last()).toEqual({ any: ['fair'] });
  });

  test('what two lists have as different things is asked by its words; a list without a file asks nothing', async () => {
    const { user } = opened(['fair', 'other']);
    await user.selectOptions(await screen.findByLabelText('whose file says under'), 'Hall');
    expect(await screen.findByLabelText('with the words')).toBeTruthy();
    await user.click(await screen.findByRole('checkbox', { name: /^fair/ }));
    expect(screen.getByLabelText('whose file says under')).toBeTruthy();
  });
});
