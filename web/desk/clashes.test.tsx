/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import { emptyTape } from '../../core/tape/nodes.ts';
import { NoteBox } from '../profile/NoteBox.tsx';
import { clash, freshDesk, show } from '../testing/render.tsx';
import { useDesk } from './store.ts';
import { SaveTapeDialog } from './tape/SaveTapeDialog.tsx';

beforeEach(freshDesk);

/** What was seen, as a write says it. */
const seen = (headers: unknown) => (headers as Record<string, string>)['if-match'];

describe('a note that another window changed', () => {
  const mine = { text: 'Mine', changedAt: 'T1' };
  const theirs = { text: 'Theirs', changedAt: 'T2' };
  /** A workspace where the other window wrote after the note was shown here. */
  function box() {
    const written: string[] = [];
    const shown = show(<NoteBox subject="companies" recordKey="a" open onOpen={() => {}} />, {
      'GET /notes/companies/a': { text: 'Before', changedAt: 'T0' },
      'PUT /notes/companies/a': ({ text }: { text: string }, headers: unknown) => {
        if (seen(headers) === '"T0"') return clash(theirs);
        written.push(`${text} over ${seen(headers)}`);
        return { ...mine, text };
      },
    });
    return { ...shown, written };
  }
  test('is not written over in silence: both are shown, and one’s own goes over it when that is said', async () => {
    const { user, written } = box();
    const text: HTMLTextAreaElement = await screen.findByRole('textbox', { name: 'Note' });
    await waitFor(() => expect(text.value).toBe('Before'));
    await user.clear(text);
    await user.type(text, 'My own');
    await user.click(screen.getByRole('button', { name: 'Keep the note' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/It reads there:Theirs/);
    // Neither is lost, and the key for keeping does not decide it.
    expect(text.value).toBe('My own');
    await user.type(text, '{Control>}{Enter}{/Control}');
    expect(written).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Keep mine instead' }));
    await waitFor(() => expect(written).toEqual(['My own over "T2"']));
  });
  test('stays as the other window has it when that is chosen', async () => {
    const { user, written } = box();
    const text: HTMLTextAreaElement = await screen.findByRole('textbox', { name: 'Note' });
    await waitFor(() => expect(text.value).toBe('Before'));
    await user.type(text, ' and more');
    await user.click(screen.getByRole('button', { name: 'Keep the note' }));
    await user.click(await screen.findByRole('button', { name: 'Keep theirs' }));
    await waitFor(() => expect(text.value).toBe('Theirs'));
    expect([written, screen.queryByRole('alert')]).toEqual([[], null]);
  });
  test('that is not there yet is written as new', async () => {
    const versions: (string | undefined)[] = [];
    const { user } = show(<NoteBox subject="companies" recordKey="a" open onOpen={() => {}} />, {
      'GET /notes/companies/a': { text: '', changedAt: null },
      'PUT /notes/companies/a': (_: unknown, headers: unknown) => {
        versions.push(seen(headers));
        return mine;
      },
    });
    await user.type(await screen.findByRole('textbox', { name: 'Note' }), 'New');
    await user.click(screen.getByRole('button', { name: 'Keep the note' }));
    await waitFor(() => expect(versions).toEqual(['"none"']));
  });
});

test('a saved tape that another window changed is replaced only when that is said', async () => {
  useDesk.setState({
    tape: { ...emptyTape(), lines: [{ id: 'l1', field: 'status', test: { any: ['active'] } }] },
  });
  const saved = { id: 't1', kind: 'tape', name: 'Rivals', savedAt: 'T0', tape: emptyTape(), trouble: null };
  const versions: (string | undefined)[] = [];
  const { user } = show(<SaveTapeDialog onClose={() => {}} />, {
    'GET /tapes': { tapes: [saved] },
    'PUT /tapes/t1': (_: unknown, headers: unknown) => {
      versions.push(seen(headers));
      return seen(headers) === undefined ? { tape: { ...saved, savedAt: 'T9' } } : clash(emptyTape());
    },
  });
  await user.type(screen.getByLabelText('Name'), 'Rivals');
  await user.click(await screen.findByRole('button', { name: 'Replace the one of this name' }));
  expect(await screen.findByText('It was changed in another window.')).toBeTruthy();
  // Under another name there is no clash.
  await user.type(screen.getByLabelText('Name'), '!');
  expect(screen.getByRole('button', { name: 'Save' })).toBeTruthy();
  await user.type(screen.getByLabelText('Name'), '{Backspace}');
  await user.click(screen.getByRole('button', { name: 'Replace the one of this name' }));
  await user.click(await screen.findByRole('button', { name: 'Replace what the other window saved' }));
  await waitFor(() => expect(versions).toEqual(['"T0"', '"T0"', undefined]));
  expect(useDesk.getState().tape.name).toBe('Rivals');
});
