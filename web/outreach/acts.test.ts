/** @jest-environment jsdom */
import { beforeEach, expect, jest, test } from '@jest/globals';
import { QueryClient } from '@tanstack/react-query';
import { waitFor } from '@testing-library/react';
import { redo, undo, useHistory } from '../app/history.ts';
import { freshDesk } from '../testing/render.tsx';
import { asStep } from './acts.ts';

beforeEach(freshDesk);

/** A client that reads anew only when it is told to. */
function slowClient() {
  const client = new QueryClient();
  const waiting: (() => void)[] = [];
  jest
    .spyOn(client, 'invalidateQueries')
    .mockImplementation(() => new Promise<void>((done) => void waiting.push(done)));
  const read = async () => {
    await waitFor(() => expect(waiting).toHaveLength(1));
    waiting.pop()!();
  };
  return { client, read };
}
const past = () => useHistory.getState().past.map(({ name }) => name);

test('what was done can be taken back before anything was read anew', async () => {
  const { client, read } = slowClient();
  const calls: string[] = [];
  const act = (word: string) => () => Promise.resolve(calls.push(word));
  const doing = asStep(client, { name: 'marking a reply' }, act('to'), act('back'));
  await waitFor(() => expect(past()).toEqual(['marking a reply']));
  expect(calls).toEqual(['to']);
  await read();
  expect(await doing).toBe(1);
  await Promise.all([undo(), read()]);
  await Promise.all([redo(), read()]);
  expect(calls).toEqual(['to', 'back', 'to']);
});

test('what was refused is no step, and says why', async () => {
  const { client } = slowClient();
  const refused = () => Promise.reject(new Error('The limit is a whole number.'));
  await expect(asStep(client, { name: 'changing the daily limit' }, refused, refused)).rejects.toThrow(
    'The limit is a whole number.',
  );
  expect(past()).toEqual([]);
});
