/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { useState } from 'react';
import { aList } from '../testing/lists.ts';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import { TaughtTable } from './TaughtTable.tsx';
import { TermsField } from './TermsField.tsx';

beforeEach(() => {
  freshDesk();
  // Files of jsdom cannot be read as texts.
  File.prototype.text = function (this: File) {
    return new Promise((resolve) => {
      const reader = new FileReader();
      reader.onload = () => resolve(reader.result as string);
      reader.readAsText(this);
    });
  };
});

/** The field by itself, keeping what is put into it. */
function Held({ start }: { start: string }) {
  const [value, setValue] = useState(start);
  return <TermsField label="Words" placeholder="one a line" value={value} onChange={setValue} />;
}
const opened = (start = '', answers: Answers = {}) => show(<Held start={start} />, answers);
const field = () => screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Words' });
const upload = (text: string, name = 'words.txt') =>
  [screen.getByLabelText('Words from a file'), new File([text], name, { type: 'text/plain' })] as const;

describe('words to search for', () => {
  test('are counted as they are read: each once, by lines, commas and semicolons', async () => {
    const { user } = opened();
    await user.type(field(), 'joinery, stairs{Enter}joinery;"doors, inner"');
    expect(screen.getByText('Words', { exact: false }).textContent).toBe('Words 3');
  });

  test('come from a file of lines, beside those that are there', async () => {
    const { user } = opened('stairs');
    await user.upload(...upload('\uFEFFjoinery\nstairs\n"doors, inner"\n'));
    await screen.findByText('3');
    expect(field().value.split('\n')).toEqual(['stairs', 'joinery', '"doors, inner"']);
  });

  test('of a sheet come from the column that is chosen', async () => {
    const { user } = opened();
    await user.upload(...upload('Word;Town\njoinery;Brno\nstairs;Brno\n', 'words.csv'));
    const group = await screen.findByRole('group', { name: 'Column of Words' });
    expect(
      within(group)
        .getAllByRole('button')
        .map(({ textContent }) => textContent),
    ).toEqual(['Word 2', 'Town 1']);
    await user.click(within(group).getByRole('button', { name: /^Word/ }));
    expect(field().value).toBe('joinery\nstairs');
    expect(screen.queryByRole('group', { name: 'Column of Words' })).toBeNull();
  });

  test('of a file that is too large are not read, and that is said', async () => {
    const { user } = opened();
    await user.upload(...upload('x'.repeat(2_000_001), 'all.txt'));
    expect((await screen.findByRole('alert')).textContent).toBe('all.txt is larger than 2 MB.');
    expect(field().value).toBe('');
  });

  test('come from a column of a list', async () => {
    const list = aList({ members: 2 });
    const row = (key: string, name: string) => ({ key, cells: { name } });
    const { user, sent } = opened('oak', {
      'GET /lists': { lists: [list], removed: [], reasons: [] },
      'POST /rows': { total: 2, rows: [row('a', 'Dubina'), row('b', 'Veldín, Brno')] },
    });
    await user.click(screen.getByRole('button', { name: 'from a list' }));
    const group = await screen.findByRole('group', { name: 'Words from a list' });
    await user.click(within(group).getByRole('button'));
    await screen.findByText('3');
    expect(field().value).toBe('oak\nDubina\n"Veldín, Brno"');
    expect(sent('POST /rows')[0]).toMatchObject({
      tape: { lines: [{ field: 'list', test: { any: ['rivals'] } }] },
    });
  });
});

describe('what comes of a taught page', () => {
  const value = (name: string, of: string) => ({ field: name, value: of, node: 1 });
  const look = {
    rows: [
      { node: 10, example: null, values: [value('name', 'Veldín'), value('town', 'Brno')] },
      { node: 20, example: null, values: [value('name', 'Dubina')] },
    ],
  } as never;

  test('stands as records, sorted by a click, those that lack something marked with what', async () => {
    const onShow = jest.fn();
    const { user } = show(<TaughtTable look={look} needs={['town']} onShow={onShow} />);
    const names = () =>
      screen
        .getAllByRole('row')
        .slice(1)
        .map((row) => within(row).getAllByRole('cell')[1]!.textContent);
    expect(names()).toEqual(['Veldín', 'Dubina']);
    await user.click(within(screen.getAllByRole('columnheader')[1]!).getByRole('button'));
    expect(names()).toEqual(['Dubina', 'Veldín']);
    expect(screen.getByTitle('without town: it would be refused').textContent).toContain('Dubina');
    await user.click(screen.getByRole('button', { name: 'Show row 2 on the page' }));
    expect(onShow.mock.calls).toEqual([[20]]);
  });

  test('of nothing says how to begin', () => {
    show(<TaughtTable look={{ rows: [] } as never} needs={[]} onShow={() => {}} />);
    expect(screen.getByText(/point at a row of the page/)).toBeTruthy();
  });
});
