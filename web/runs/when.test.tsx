/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import type { PlanView, ScheduleBody } from '../../contract/runs.ts';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import { WhenField } from './WhenField.tsx';

beforeEach(freshDesk);

const others = [
  { key: 'p1', name: 'Rivals weekly' },
  { key: 'p2', name: 'Register' },
] as unknown as PlanView[];

function when(start: ScheduleBody, answers: Answers = {}, plans = others) {
  const said: ScheduleBody[] = [];
  const Held = () => {
    const [value, setValue] = useState(start);
    return (
      <WhenField
        value={value}
        others={plans}
        onChange={(next) => {
          said.push(next);
          setValue(next);
        }}
      />
    );
  };
  const shown = show(<Held />, {
    'POST /runs/when': {
      words: 'every Monday at 7:00',
      next: ['2026-10-05T05:00:00Z', '2026-10-12T05:00:00Z'],
    },
    ...answers,
  });
  return { ...shown, last: () => said.at(-1)! };
}
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;

describe('when something runs', () => {
  test('is said in words, which say that it repeats; without any it is by hand again', async () => {
    const { user, last, sent } = when({ how: 'hand' });
    const words = screen.getByLabelText('When, in words');
    await user.type(words, 'every Monday at 7');
    expect(last()).toEqual({ how: 'repeats', words: 'every Monday at 7', zone, cron: undefined });
    expect((await screen.findByText('every Monday at 7:00')).parentElement!.textContent).toMatch(
      /: next 5 Oct 2026 .*, 12 Oct 2026 /,
    );
    // Asked once it was written, and not at each letter.
    expect(sent('POST /runs/when').length).toBeLessThan('every Monday at 7'.length);
    await user.clear(screen.getByLabelText('When, in words'));
    expect(last().how).toBe('hand');
  });
  test('is a pattern of cron behind “more”, which the words give way to, and back', async () => {
    const { user, last } = when({ how: 'repeats', words: 'every day' });
    await user.click(screen.getByRole('button', { name: 'more' }));
    await user.type(screen.getByLabelText(/^cron/), '0 7 * * 1');
    expect(last()).toMatchObject({ how: 'repeats', cron: '0 7 * * 1', words: undefined });
    expect(screen.getByLabelText<HTMLInputElement>('When, in words').disabled).toBe(true);
    await user.click(screen.getByRole('button', { name: 'words again' }));
    expect(last().cron).toBeUndefined();
    expect(screen.queryByLabelText(/^cron/)).toBeNull();
  });
  test('is once at a day and time, with what happens if the program was off, by a clock', async () => {
    const { user, last } = when({ how: 'hand' }, { 'POST /runs/when': { words: 'once', next: [] } });
    await user.click(screen.getByRole('radio', { name: 'once' }));
    fireEvent.change(screen.getByLabelText('Day and time'), { target: { value: '2026-12-01T07:30' } });
    await user.selectOptions(screen.getByLabelText(/^if the program was off/), 'leave it out');
    const clock = screen.getByLabelText('Time zone');
    await user.clear(clock);
    await user.type(clock, 'Europe/Prague');
    expect(last()).toMatchObject({
      how: 'once',
      at: '2026-12-01T07:30',
      missed: 'skip',
      zone: 'Europe/Prague',
    });
    expect((await screen.findByText('once', { selector: 'span' })).parentElement!.textContent).toBe(
      'once: never again',
    );
  });
  test('is after another, the first of them until chosen, by what came of it', async () => {
    const { user, last } = when({ how: 'hand' });
    await user.click(screen.getByRole('radio', { name: 'after another' }));
    expect(last()).toMatchObject({ how: 'after', plan: 'p1' });
    await user.selectOptions(screen.getByLabelText('After which'), 'Register');
    await user.selectOptions(screen.getByLabelText('After what came of it'), 'where it changed something');
    expect(last()).toMatchObject({ plan: 'p2', outcome: 'changed' });
  });
  test('cannot be after another where there is none, and what is no time says why', async () => {
    when(
      { how: 'repeats', words: 'every moonday' },
      { 'POST /runs/when': new Error('“moonday” is no day.') },
      [],
    );
    expect(screen.queryByRole('radio', { name: 'after another' })).toBeNull();
    await waitFor(() => expect(screen.getByRole('alert').textContent).toContain('“moonday” is no day.'));
  });
});
