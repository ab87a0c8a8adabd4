/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import type { Joint } from '../../../core/tape/also.ts';
import { emptyTape, type Line, type Tape } from '../../../core/tape/nodes.ts';
import { freshDesk, show, type Answers } from '../../testing/render.tsx';
import { Entry } from './Entry.tsx';

const line = (id: string): Line => ({ id, field: 'status', test: { any: ['active'] } });
let put: { lines: readonly Line[]; joint: Joint }[];
let fields: string[];
beforeEach(() => {
  freshDesk();
  put = [];
  fields = [];
});

function entry(answers: Answers, tape: Tape = emptyTape()) {
  const shown = show(
    <Entry
      tape={tape}
      onLines={(lines, joint) => put.push({ lines, joint })}
      onField={(field) => fields.push(field)}
      placeholder="type"
      main
    />,
    { 'POST /typed': { lines: [line('t1')] }, 'POST /complete': { completions: [] }, ...answers },
  );
  return { ...shown, input: screen.getByRole('combobox') };
}

const completion = (typed: string, more: object = {}) => ({
  typed,
  meaning: `means ${typed}`,
  count: 12,
  ...more,
});

describe('the entry', () => {
  test('sends what reads by itself as it was typed, and is empty after it', async () => {
    const { user, input, sent } = entry({ 'POST /complete': { completions: [completion('headcount 50+')] } });
    await user.type(input, 'headcount 50+{Enter}');
    await waitFor(() => expect(put).toHaveLength(1));
    expect(sent('POST /typed')).toMatchObject([{ text: 'headcount 50+', subject: 'companies' }]);
    expect(put[0]!.joint).toBe('and');
    expect((input as HTMLInputElement).value).toBe('');
  });

  test('takes the likeliest meaning of what opens no line', async () => {
    const { user, input, sent } = entry({
      'POST /complete': { completions: [completion('listing listed')] },
    });
    await user.type(input, 'listed');
    await screen.findByText('means listing listed');
    expect(screen.getByRole('option').getAttribute('aria-selected')).toBe('true');
    await user.keyboard('{Enter}');
    await waitFor(() => expect(sent('POST /typed')).toMatchObject([{ text: 'listing listed' }]));
  });

  test('never takes by Enter what is only spelled alike', async () => {
    const { user, input, sent } = entry({
      'POST /complete': { completions: [completion('nace 17.12', { alike: true })] },
      'POST /typed': new Error('Nothing understood in “new tape”.'),
    });
    await user.type(input, 'new tape');
    await screen.findByText('spelled alike:');
    expect(screen.getByRole('option').getAttribute('aria-selected')).toBe('false');
    await user.keyboard('{Enter}');
    expect((await screen.findByRole('alert')).textContent).toContain('Nothing understood');
    expect(sent('POST /typed')).toMatchObject([{ text: 'new tape' }]);
    expect((input as HTMLInputElement).value).toBe('new tape');
    // By arrow it can be had.
    await user.keyboard('{ArrowDown}{Enter}');
    await waitFor(() => expect(sent('POST /typed')).toHaveLength(2));
    expect(sent('POST /typed')[1]).toMatchObject({ text: 'nace 17.12' });
  });

  test('joins by “or” with the last line, and by “also” with the one on the same field', async () => {
    const tape = { ...emptyTape(), lines: [line('l1')] };
    const { user, input, sent } = entry({}, tape);
    await user.type(input, 'or headcount 50+{Enter}');
    await waitFor(() => expect(put).toHaveLength(1));
    await user.type(input, 'also status dormant{Enter}');
    await waitFor(() => expect(put).toHaveLength(2));
    expect(put.map(({ joint }) => joint)).toEqual(['or', 'also']);
    expect(sent('POST /typed')).toMatchObject([{ text: 'headcount 50+' }, { text: 'status dormant' }]);
  });

  test('offers further choices of a line beside a line of their own, and puts them there', async () => {
    const tape = { ...emptyTape(), lines: [line('l1')] };
    const { user, input } = entry(
      {
        'POST /complete': {
          completions: [completion('nace 43.32'), completion('nace 43.32', { also: true })],
        },
      },
      tape,
    );
    await user.type(input, '43.32');
    const [, also] = await screen.findAllByRole('option');
    expect(also!.textContent).toContain('also nace 43.32');
    await user.click(also!);
    await waitFor(() => expect(put.map(({ joint }) => joint)).toEqual(['also']));
  });

  test('forgives a slash, and gives lines ids that are free', async () => {
    const tape = { ...emptyTape(), lines: [line('l1'), line('l2')] };
    const { user, input, sent } = entry({ 'POST /typed': { lines: [line('a'), line('b')] } }, tape);
    await user.type(input, '/ headcount 50+; status active{Enter}');
    await waitFor(() => expect(put).toHaveLength(1));
    expect(sent('POST /typed')).toMatchObject([{ text: 'headcount 50+; status active' }]);
    const ids = put[0]!.lines.map(({ id }) => id);
    expect(new Set(ids).size).toBe(2);
  });

  test('asks for completions of what stands after the last semicolon alone', async () => {
    const { user, input, sent } = entry({
      'POST /complete': { completions: [completion('near Brno 40 km')] },
    });
    await user.type(input, 'headcount 50+; near br');
    await screen.findByText('means near Brno 40 km');
    expect(sent('POST /complete').at(-1)).toMatchObject({ text: 'near br' });
    await user.keyboard('{Tab}');
    expect((input as HTMLInputElement).value).toBe('headcount 50+; near Brno 40 km');
  });

  test('is left by one Escape after it refused something', async () => {
    const { user, input } = entry({ 'POST /typed': new Error('no') });
    await user.type(input, 'x{Enter}');
    await screen.findByRole('alert');
    await user.keyboard('{Escape}');
    expect(screen.queryByRole('alert')).toBeNull();
    expect(document.activeElement).not.toBe(input);
    expect((input as HTMLInputElement).value).toBe('');
  });

  test('has every condition of the subject by name', async () => {
    jest.spyOn(window, 'scrollTo').mockImplementation(() => {});
    const { user } = entry({});
    await user.click(screen.getByRole('button', { name: 'Pick a condition' }));
    await user.click(await screen.findByRole('menuitem', { name: /^Headcount/ }));
    expect(fields).toEqual(['headcount']);
  });
});
