/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import type { UploadAnswer } from '../../../contract/responses.ts';
import type { MadeColumn } from '../../../core/records/made-columns.ts';
import { PLAIN_MAPPING } from '../../../core/testing/plain-mapping.ts';
import { freshDesk, show } from '../../testing/render.tsx';
import { isSameFile, withMadeOnes } from './keep-choices.ts';
import { ColumnRow } from './ColumnRow.tsx';
import { MadeColumns, wordMade } from './MadeColumns.tsx';

beforeEach(freshDesk);

const HEADER = ['Firma', 'Ulice', 'Číslo'];
const opened = (made: MadeColumn[] = []) => {
  const onMade = jest.fn();
  const file = {
    header: [...HEADER, ...made.map(({ heading }) => heading)],
    made,
    rows: [
      ['Dubina', 'Hutní', '7'],
      ['Veldín, Brno', '', ''],
    ],
  } as unknown as UploadAnswer;
  return { ...show(<MadeColumns file={file} off={false} onMade={onMade} />), onMade };
};
const shown = () =>
  within(screen.getByRole('group', { name: 'How it comes out' }))
    .getAllByRole('listitem')
    .map((item) => item.textContent);

describe('a column is made', () => {
  test('of several, joined in the order in which they are chosen, and seen before it is made', async () => {
    const { user, onMade } = opened();
    await user.click(screen.getByRole('button', { name: 'Make a column …' }));
    await user.type(screen.getByLabelText('Its name, by which it is recognised'), 'Street');
    expect(screen.getByText('Choose at least two columns, in their order.')).toBeTruthy();
    for (const column of ['Ulice', 'Firma', 'Číslo'])
      await user.selectOptions(screen.getByLabelText('One more column to join'), column);
    await user.click(screen.getByRole('button', { name: 'Leave out Firma' }));
    expect(shown()).toEqual(['Hutní 7', 'nothing']);
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    expect(onMade.mock.calls).toEqual([[[{ way: 'join', heading: 'Street', of: [1, 2], by: ' ' }]]]);
  });

  test('of a part of one, parted at a text', async () => {
    const { user, onMade } = opened();
    await user.click(screen.getByRole('button', { name: 'Make a column …' }));
    await user.click(screen.getByRole('radio', { name: 'A part of one' }));
    await user.type(screen.getByLabelText('Its name, by which it is recognised'), 'Town');
    expect(screen.getByText('Choose the column that it is a part of.')).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('A part of'), 'Firma');
    await user.selectOptions(screen.getByLabelText('What stands'), 'after the first');
    expect(shown()).toEqual(['nothing', 'Brno']);
    await user.clear(screen.getByLabelText('Text at which a cell is parted'));
    expect(screen.getByText('Say at which text a cell is parted.')).toBeTruthy();
    await user.type(screen.getByLabelText('Text at which a cell is parted'), ', {Enter}');
    expect(onMade.mock.calls).toEqual([
      [[{ way: 'part', heading: 'Town', of: [0], by: ', ', part: 'after-first' }]],
    ]);
  });

  test('of one text in every row, under a name that no other column has; those there can go', async () => {
    const there: MadeColumn = { way: 'same', heading: 'Country', text: 'CZ' };
    const { user, onMade } = opened([there]);
    expect(screen.getByText('“CZ” in every row')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Make a column …' }));
    await user.click(screen.getByRole('radio', { name: 'The same in every row' }));
    const name = screen.getByLabelText('Its name, by which it is recognised');
    await user.type(name, 'Country');
    expect(screen.getByText('There is a column “Country” already.')).toBeTruthy();
    await user.clear(name);
    await user.type(name, 'Status');
    await user.type(screen.getByLabelText('Text in every row'), 'active{Enter}');
    expect(onMade).toHaveBeenLastCalledWith([there, { way: 'same', heading: 'Status', text: 'active' }]);
    await user.click(screen.getByRole('button', { name: 'Take off the column Country' }));
    expect(onMade).toHaveBeenLastCalledWith([]);
  });

  test('and said in words', () => {
    expect(wordMade({ way: 'join', heading: 'Street', of: [1, 2], by: ' ' }, HEADER)).toBe(
      'Ulice and Číslo, joined',
    );
    expect(wordMade({ way: 'part', heading: 'Town', of: [0], by: ',', part: 'before-last' }, HEADER)).toBe(
      'of Firma: before the last “,”',
    );
  });
});

test('a column that another is made of says so where it is not read itself', () => {
  const made: MadeColumn[] = [{ way: 'join', heading: 'Street', of: [1, 2], by: ' ' }];
  const file = { header: [...HEADER, 'Street'], made, rows: [], columns: [] } as unknown as UploadAnswer;
  show(
    <table>
      <tbody>
        {HEADER.map((heading, at) => (
          <ColumnRow
            key={heading}
            at={at}
            file={file}
            mapping={{ ...PLAIN_MAPPING, columns: [null, null, null, 'street'] }}
            unread="left out"
            answer={null}
            onReadAs={jest.fn()}
            onMapping={jest.fn()}
          />
        ))}
      </tbody>
    </table>,
  );
  const said = HEADER.map(
    (heading) => screen.getByLabelText<HTMLSelectElement>(`Column ${heading} is read as`).options[0]!.text,
  );
  expect(said).toEqual(['left out', 'part of “Street”', 'part of “Street”']);
});

describe('what was chosen stays when made columns change', () => {
  const made: MadeColumn[] = [{ way: 'same', heading: 'Country', text: 'CZ' }];
  const headed = (own: string[], of: MadeColumn[] = []) => ({
    subject: 'companies',
    header: [...own, ...of.map(({ heading }) => heading)],
    made: of,
  });
  const mapped = (columns: (string | null)[], more: object = {}) => ({ ...PLAIN_MAPPING, columns, ...more });

  test('of the file’s own columns, unnamed ones too; what is new is as it is recognised', () => {
    const before = headed(['Firma', '', '']);
    const now = {
      ...headed(['Firma', '', ''], made),
      columns: [],
      mapping: mapped([null, null, null, 'country']),
    };
    expect(isSameFile(before, now)).toBe(true);
    const chosen = mapped(['name', null, 'town'], {
      answers: [null, { x: '' }, null],
      styles: [{}, {}, { unit: 1000 }],
      undecided: [{ column: 2, what: 'dates' }],
    });
    expect(withMadeOnes(chosen, before, now)).toMatchObject({
      columns: ['name', null, 'town', 'country'],
      answers: [null, { x: '' }, null, null],
      styles: [{}, {}, { unit: 1000 }, {}],
      undecided: [{ column: 2, what: 'dates' }],
    });
  });

  test('a made one that is recognised as another column is, is left for a person to say, unless it is called so', () => {
    const before = headed(['Firma', 'Land']);
    const now = {
      ...headed(['Firma', 'Land'], made),
      columns: [],
      mapping: mapped(['name', null, 'country']),
    };
    expect(withMadeOnes(mapped(['name', 'country']), before, now).columns).toEqual(['name', 'country', null]);
    const known = [{ id: 'country', label: 'Country', headings: [] }];
    expect(withMadeOnes(mapped(['name', 'country']), before, { ...now, columns: known }).columns).toEqual([
      'name',
      null,
      'country',
    ]);
  });

  test('one that goes takes what was chosen for it along', () => {
    const more: MadeColumn[] = [...made, { way: 'same', heading: 'Status', text: 'active' }];
    const before = headed(['Firma'], more);
    const now = { ...headed(['Firma'], more.slice(1)), columns: [], mapping: mapped(['name', null]) };
    const chosen = mapped(['name', 'country', 'status'], { undecided: [{ column: 1, what: 'dates' }] });
    const kept = withMadeOnes(chosen, before, now);
    expect(kept.columns).toEqual(['name', 'status']);
    expect(kept.undecided).toBeUndefined();
  });

  test('another header is another file', () => {
    expect(isSameFile(headed(['Firma']), headed(['Name']))).toBe(false);
    expect(isSameFile(headed(['Firma']), { ...headed(['Firma']), subject: 'people' })).toBe(false);
  });
});
