/** @jest-environment jsdom */
import { beforeEach, expect, jest, test } from '@jest/globals';
import { screen } from '@testing-library/react';
import type { UploadAnswer } from '../../../contract/responses.ts';
import { freshDesk, show } from '../../testing/render.tsx';
import { HowFile } from './HowFile.tsx';

beforeEach(freshDesk);

const opened = (more: Partial<UploadAnswer> = {}) => {
  const onChange = jest.fn();
  const file = {
    ...{ kind: 'csv', encoding: 'utf-8', delimiter: ';', hasHeader: true, headerRows: 1, skip: 2 },
    ...{ above: [['Suppliers', '', 'Autumn'], ['']], sheets: [], sheet: null },
    ...more,
  } as unknown as UploadAnswer;
  return { ...show(<HowFile file={file} one="company" onChange={onChange} />), onChange };
};

test('a text file has an encoding and a delimiter, a workbook has sheets of which the hidden are marked', async () => {
  const { user, onChange, unmount } = opened();
  await user.selectOptions(screen.getByLabelText('Delimiter'), 'tab');
  expect(onChange).toHaveBeenLastCalledWith({ delimiter: '\t' });
  const encoding = screen.getByLabelText<HTMLSelectElement>('Encoding');
  await user.selectOptions(encoding, encoding.options[2]!);
  expect(onChange).toHaveBeenLastCalledWith({ encoding: encoding.options[2]!.value });
  unmount();
  const book = opened({
    kind: 'xlsx',
    sheet: 'Firms',
    sheets: [
      { name: 'Firms', hidden: false },
      { name: 'Old', hidden: true },
    ],
  });
  expect(screen.queryByLabelText('Encoding')).toBeNull();
  await book.user.selectOptions(screen.getByLabelText('Sheet'), 'Old (hidden)');
  expect(book.onChange).toHaveBeenLastCalledWith({ sheet: 'Old' });
});

test('what stands above the headings is shown, and the file is read anew once the number is typed whole', async () => {
  const { user, onChange } = opened();
  expect(screen.getByText('Suppliers Autumn')).toBeTruthy();
  const skip = screen.getByLabelText<HTMLInputElement>('Rows to skip above');
  await user.clear(skip);
  await user.type(skip, '12');
  expect(onChange).not.toHaveBeenCalled();
  await user.keyboard('{Enter}');
  expect(onChange.mock.calls).toEqual([[{ skip: 12 }]]);
});

test('a number of rows that cannot be is brought to the nearest that can', async () => {
  const { user, onChange } = opened();
  const skip = screen.getByLabelText<HTMLInputElement>('Rows to skip above');
  await user.clear(skip);
  await user.type(skip, '99999');
  await user.tab();
  expect(onChange).toHaveBeenLastCalledWith({ skip: 1000 });
  expect(skip.value).toBe('1000');
});

test('headings stand in one row, in two, or in none', async () => {
  const { user, onChange } = opened();
  const headings = screen.getByLabelText<HTMLSelectElement>('Headings');
  expect(headings.value).toBe('1');
  await user.selectOptions(headings, 'two rows, joined');
  expect(onChange).toHaveBeenLastCalledWith({ headerRows: 2 });
  await user.selectOptions(headings, 'none, the first row is a company');
  expect(onChange).toHaveBeenLastCalledWith({ headerRows: 0 });
});
