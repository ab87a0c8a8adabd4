/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import type { BatchView, Target } from '../../contract/runs.ts';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import { runView } from '../testing/runs.ts';
import { job } from '../testing/sources.tsx';
import { BatchFields } from './BatchFields.tsx';
import { NextMonth } from './NextMonth.tsx';
import { SearchesSheet } from './SearchesSheet.tsx';

beforeEach(freshDesk);

const sheet: BatchView = {
  id: 'b1',
  fileName: 'searches.csv',
  header: ['Search', 'Country', 'Remark'],
  rows: 3,
  at: 0,
  guess: { search: 0, fields: [{ column: 1, as: 'in' }] },
} as BatchView;
const preview = {
  ready: 2,
  refused: 1,
  searches: [
    { row: 0, search: 'nace 16.23', said: 'NACE 16.23; in Czechia', state: 'done', found: 60, taken: 40 },
    { row: 1, search: 'oak', said: 'words oak', state: 'done', found: 7, taken: 7 },
    {
      row: 2,
      search: 'nace 99.99',
      said: 'There is no code 99.99.',
      state: 'refused',
      found: null,
      taken: null,
    },
  ],
};
const targets: Target[] = [];

/** The fields over a target that they change. */
function Held({ first = {} }: { first?: Target }) {
  const [target, setTarget] = useState<Target>(first);
  targets.push(target);
  return <BatchFields target={target} onChange={setTarget} />;
}
const last = () => targets.at(-1)!;

const opened = (more: Answers = {}, first?: Target) =>
  show(<Held first={first} />, {
    'POST /batches/pasted': { batch: sheet },
    'POST /batches': { batch: sheet },
    'POST /batches/b1/preview': preview,
    'GET /gather': { gatherers: [{ id: 'g1', name: 'Workshop Guide' }] },
    ...more,
  });

describe('a sheet of searches', () => {
  test('is pasted, guessed at, and tried before anything runs', async () => {
    const { sent } = opened();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Read it' }).disabled).toBe(true);
    const box = screen.getByLabelText('Searches');
    fireEvent.change(box, { target: { value: 'Search\tCountry\nnace 16.23\tCzechia' } });
    fireEvent.keyDown(box, { key: 'Enter', ctrlKey: true });
    expect((await screen.findByText(/searches of searches.csv/)).textContent).toBe(
      '3 searches of searches.csv',
    );
    expect(sent('POST /batches/pasted')).toEqual([{ text: 'Search\tCountry\nnace 16.23\tCzechia' }]);
    expect(last()).toMatchObject({ batch: 'b1', search: 0, fields: [{ column: 1, as: 'in' }] });
    expect((await screen.findByText(/can run/)).textContent).toBe(
      '2 can run, 1 are refused; the others run all the same',
    );
    const rows = within(screen.getByRole('list', { name: 'Preview' })).getAllByRole('listitem');
    expect(rows.map((row) => row.textContent)).toEqual([
      '2nace 16.23NACE 16.23; in Czechia40 of 60',
      '3oakwords oak7',
      '4nace 99.99There is no code 99.99.–',
    ]);
  });

  test('comes from a file, and what is wrong with one is said', async () => {
    const { user } = opened({ 'POST /batches': new Error('The file holds no row below its headings.') });
    await user.upload(screen.getByLabelText('File of searches'), new File(['x'], 'searches.csv'));
    expect((await screen.findByRole('alert')).textContent).toContain('no row below its headings');
    expect(screen.getByLabelText('Searches')).toBeTruthy();
  });

  test('has its columns, caps and where it goes told otherwise, each of which is tried again', async () => {
    const { user, sent } = opened({ 'GET /batches/b1': { batch: { ...sheet, at: 2 } } }, { batch: 'b1' });
    expect(await screen.findByText(/the next run goes on with row 4/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Remark is'), { target: { value: 'words' } });
    fireEvent.change(screen.getByLabelText('Country is'), { target: { value: 'in' } });
    expect(last().fields).toEqual([
      { column: 1, as: 'in' },
      { column: 2, as: 'words' },
    ]);
    fireEvent.change(screen.getByLabelText('Remark is'), { target: { value: '' } });
    expect(last().fields).toEqual([{ column: 1, as: 'in' }]);
    fireEvent.change(screen.getByLabelText('Rows of each search'), { target: { value: '40' } });
    fireEvent.change(screen.getByLabelText('Searches a run'), { target: { value: 'none' } });
    expect([last().rowsEach, last().searchesEach]).toEqual([40, undefined]);
    await user.selectOptions(screen.getByLabelText('into'), 'a CSV file');
    expect(last().into).toBe('file');
    expect(screen.queryByLabelText('Name of the list')).toBeNull();
    await user.selectOptions(screen.getByLabelText('into'), 'one list');
    fireEvent.change(screen.getByLabelText('Name of the list'), { target: { value: 'All of them' } });
    expect(last()).toMatchObject({ into: 'one-list', results: 'All of them' });
    await waitFor(() =>
      expect(sent('POST /batches/b1/preview').at(-1)).toEqual({
        target: { batch: 'b1', fields: [{ column: 1, as: 'in' }], rowsEach: 40 },
      }),
    );
    // Words for a gatherer are not tried, and are put into no list of their own.
    await user.selectOptions(screen.getByLabelText('for'), 'the gatherer Workshop Guide');
    expect(last().gatherer).toBe('g1');
    expect(screen.queryByLabelText('into')).toBeNull();
    expect(screen.queryByRole('list', { name: 'Preview' })).toBeNull();
  });
});

test('what came of each search is a row, the refused with why', async () => {
  show(<SearchesSheet run={runView('r2')} />, {
    'GET /runs/r2/searches': {
      searches: [
        {
          row: 0,
          search: 'oak',
          state: 'done',
          said: 'words oak',
          found: 1200,
          taken: 40,
          added: 12,
          tape: null,
        },
        {
          row: 1,
          search: '?',
          state: 'refused',
          said: 'Nothing is asked.',
          found: null,
          taken: null,
          added: null,
          tape: null,
        },
      ],
    },
  });
  await screen.findByText('oak');
  const rows = screen.getAllByRole('row');
  expect(rows.slice(1).map((row) => row.textContent)).toEqual([
    '2oakwords oak1,2004012',
    '3?Nothing is asked.–––',
  ]);
});

describe('the next month', () => {
  const month = { next: '2026-11' };
  test('is no button where the universe is one’s own', () => {
    const { container } = show(<NextMonth month={null} onDone={() => {}} />);
    expect(container.textContent).toBe('');
  });

  test('shows how far it is, can be left, and says when it is there', async () => {
    let state: object = {
      job: job('m1', { kind: 'demo', state: 'running', done: 1, total: 4, message: 'the survey' }),
    };
    const done = jest.fn();
    const { user, sent } = show(<NextMonth month={month} onDone={done} />, {
      'POST /demo/month': { job: job('m1', { kind: 'demo', state: 'running' }) },
      'GET /jobs/m1': () => state,
      'POST /jobs/m1/cancel': { cancelling: true },
    });
    await user.click(screen.getByRole('button', { name: 'Next month: 2026-11' }));
    expect((await screen.findByRole('progressbar')).getAttribute('aria-valuenow')).toBe('25');
    expect(screen.queryByRole('button', { name: 'Next month: 2026-11' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(sent('POST /jobs/m1/cancel')).toHaveLength(1);
    state = { job: job('m1', { kind: 'demo', state: 'done' }) };
    await waitFor(() => expect(done).toHaveBeenCalledTimes(1));
    expect(screen.getByRole('button', { name: 'Next month: 2026-11' })).toBeTruthy();
  });

  test('that fails says why, and can be begun again', async () => {
    const { user } = show(<NextMonth month={month} onDone={() => {}} />, {
      'POST /demo/month': { job: job('m1', { kind: 'demo', state: 'running' }) },
      'GET /jobs/m1': { job: job('m1', { kind: 'demo', state: 'failed', message: 'The disk is full.' }) },
    });
    await user.click(screen.getByRole('button', { name: 'Next month: 2026-11' }));
    expect((await screen.findByRole('alert')).textContent).toContain('The disk is full.');
    expect(screen.getByRole('button', { name: 'Next month: 2026-11' })).toBeTruthy();
  });
});
