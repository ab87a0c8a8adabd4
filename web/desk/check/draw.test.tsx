/** @jest-environment jsdom */
import { describe, expect, test } from '@jest/globals';
import { fireEvent, screen } from '@testing-library/react';
import { sizeFor } from '../../../core/stats/accuracy.ts';
import { show } from '../../testing/render.tsx';
import { DrawForm, wordBy } from './DrawForm.tsx';

function open(total = 4000, more: Partial<Parameters<typeof DrawForm>[0]> = {}) {
  const drawn: object[] = [];
  const onDraw = (wish: object) => {
    drawn.push(wish);
    return Promise.resolve();
  };
  const shown = show(
    <DrawForm total={total} subject="companies" onDraw={onDraw} onCancel={undefined} {...more} />,
  );
  return { ...shown, drawn };
}
const draw = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Draw/ });
const fill = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe('a sample', () => {
  test('is sixty, plainly at random and good from three in four, unless something else is said', async () => {
    const { user, drawn } = open();
    await user.click(draw());
    expect(drawn).toEqual([{ size: 60, atLeast: 75 }]);
  });

  test('is shared out, of a size and a seed that are chosen', async () => {
    const { user, drawn } = open();
    fill('How many', '1a20');
    fill('It is good if at least', '90');
    fill('Seed', '7');
    await user.selectOptions(screen.getByLabelText('Shared out'), 'place');
    await user.click(draw());
    expect(drawn).toEqual([{ size: 120, atLeast: 90, by: 'place', seed: 7 }]);
  });

  test('has the size that a margin needs, which is smaller for a smaller list', async () => {
    const { user } = open();
    await user.click(screen.getByRole('button', { name: /for ±10 points/ }));
    expect(draw().textContent).toBe(`Draw ${sizeFor(0.1, 4000)}`);
    expect(sizeFor(0.1, 50)).toBeLessThan(sizeFor(0.1, 4000));
  });

  test('is never larger than the list', () => {
    open(40);
    expect(draw().textContent).toBe('Draw 40');
  });

  test.each([
    ['How many', '0'],
    ['How many', ''],
    ['How many', '99999999'],
    ['It is good if at least', '0'],
    ['It is good if at least', '100'],
  ])('%s of %j is not drawn', (label, value) => {
    const { drawn } = open();
    fill(label, value);
    expect(draw().disabled).toBe(true);
    fireEvent.submit(draw().closest('form')!);
    expect(drawn).toEqual([]);
  });

  test('of nobody says why there is none', () => {
    open(0);
    expect(screen.getByText('Nothing passes the tape, so nothing can be drawn.')).toBeTruthy();
    expect(draw().disabled).toBe(true);
  });

  test('is drawn once however often it is asked for while it is being drawn', async () => {
    let asked = 0;
    const { user } = open(100, { onDraw: () => new Promise(() => asked++) });
    await user.click(draw());
    await user.click(draw());
    expect(asked).toBe(1);
  });

  test('may be given up where there was one before', async () => {
    let left = 0;
    const { user } = open(100, { onCancel: () => left++ });
    await user.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(left).toBe(1);
  });
});

test('fields it may be shared out by are those of the subject, in its words', () => {
  expect(wordBy('companies', 'place')).toBe('country');
  expect(wordBy('companies', 'status')).toBe('status');
  open(100, { subject: 'people' });
  const options = screen.getAllByRole('option').map((option) => option.textContent);
  expect(options).toContain('by department');
  expect(options).not.toContain('by ownership');
});
