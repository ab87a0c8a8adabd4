/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { record, redo, undo, useHistory, type Step } from './history.ts';

/** What the steps below have done, the latest last. */
let done: string[];
const step = (name: string, more: Partial<Step> = {}): Step => ({
  name,
  quiet: true,
  undo: () => done.push(`undo ${name}`),
  redo: () => done.push(`redo ${name}`),
  ...more,
});
const names = () => useHistory.getState().past.map(({ name }) => name);
beforeEach(() => {
  done = [];
  useHistory.setState({ past: [], future: [] });
});

test('steps of every place are taken back in the order they were done', async () => {
  record(step('tape'));
  record(step('list'));
  record(step('columns'));
  await undo();
  await undo();
  await redo();
  expect(done).toEqual(['undo columns', 'undo list', 'redo list']);
  expect(names()).toEqual(['tape', 'list']);
  record(step('note'));
  await redo();
  expect(done).toHaveLength(3);
});

test('steps of one tag in a row go back to before the first', async () => {
  record(step('typing 1', { tag: 'line' }));
  record(step('typing 2', { tag: 'line' }));
  record(step('typing 3', { tag: 'other' }));
  await undo();
  await undo();
  expect(done).toEqual(['undo typing 3', 'undo typing 1']);
  await redo();
  expect(done.at(-1)).toBe('redo typing 2');
});

test('a step that cannot be taken back stays, and the next try is a new one', async () => {
  let fails = true;
  record(
    step('list', {
      undo: () => {
        if (fails) throw new Error('no answer');
        done.push('undo list');
      },
    }),
  );
  await undo();
  expect(names()).toEqual(['list']);
  fails = false;
  await undo();
  expect([names(), done]).toEqual([[], ['undo list']]);
});

test('one after the other, also where a step has to wait', async () => {
  const slow = (name: string, ms: number) =>
    step(name, {
      undo: () => new Promise<void>((resolve) => setTimeout(() => (done.push(name), resolve()), ms)),
    });
  record(slow('first', 1));
  record(slow('second', 30));
  await Promise.all([undo(), undo()]);
  expect(done).toEqual(['second', 'first']);
});

test('only so many are kept', () => {
  for (let n = 0; n < 250; n++) record(step(`s${n}`));
  expect([names().length, names()[0]]).toEqual([200, 's50']);
});
