/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { undo } from '../app/history.ts';
import { anOutreach } from '../testing/outreach.ts';
import { freshDesk, settled, show, type Answers } from '../testing/render.tsx';
import { SettingsDialog } from './SettingsDialog.tsx';

beforeEach(freshDesk);

const outreach = anOutreach();
const opened = (answers: Answers = {}, more: Parameters<typeof anOutreach>[0] = {}) => {
  let closed = 0;
  const shown = show(<SettingsDialog outreach={anOutreach(more)} onClose={() => closed++} />, {
    'PUT /outreach/settings': {},
    'GET /outreach': outreach,
    ...answers,
  });
  return { ...shown, closed: () => closed };
};

describe('settings of what is written', () => {
  test('are kept whole, and taken back in one step', async () => {
    const { user, sent, closed } = opened();
    const name = screen.getByLabelText('Your name');
    await user.clear(name);
    await user.type(name, 'Ilona Varga');
    await user.clear(screen.getByLabelText('Your mail address'));
    fireEvent.change(screen.getByLabelText('Messages a day'), { target: { value: '25' } });
    await user.click(screen.getByLabelText('Fri'));
    await user.click(screen.getByLabelText('Sat'));
    await user.click(screen.getByLabelText(/each message names a proof/));
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(closed()).toBe(1));
    const { days, askProof } = outreach.settings;
    expect(sent('PUT /outreach/settings')).toEqual([
      {
        ...outreach.settings,
        ...{ sender: 'Ilona Varga', mail: null, daily: 25, askProof: !askProof },
        days: [...days.filter((day) => day !== 5), 6],
      },
    ]);
    await settled(() => undo());
    expect(sent('PUT /outreach/settings').at(-1)).toEqual({ ...outreach.settings });
  });

  test('need a working day, and say what is wrong without losing what was entered', async () => {
    const { user, closed } = opened({ 'PUT /outreach/settings': new Error('from must be before to.') });
    for (const day of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri']) await user.click(screen.getByLabelText(day));
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep' }).disabled).toBe(true);
    await user.click(screen.getByLabelText('Mon'));
    await user.type(screen.getByLabelText('Signature'), 'Regards');
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    expect((await screen.findByRole('alert')).textContent).toContain('from must be before to.');
    expect(screen.getByLabelText<HTMLTextAreaElement>('Signature').value).toContain('Regards');
    expect(closed()).toBe(0);
  });
});

describe('the server that messages go through', () => {
  test('is the stand-in until one’s own is named, whose password is never shown', async () => {
    const { user, sent } = opened({ 'PUT /outreach/server': {} });
    expect(screen.getByText('the stand-in on this machine')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Back to the stand-in' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Your own server' }));
    await user.type(screen.getByLabelText('Host and port'), 'mail.ternhollow.example');
    fireEvent.change(screen.getByLabelText('Port'), { target: { value: '465' } });
    await user.click(screen.getByLabelText(/TLS from the start/));
    await user.type(screen.getByLabelText('User'), 'ilona');
    const password = screen.getByLabelText<HTMLInputElement>('Password');
    expect([password.type, password.autocomplete]).toEqual(['password', 'new-password']);
    await user.type(password, 'secret');
    await user.click(screen.getByRole('button', { name: 'Use this server' }));
    await waitFor(() =>
      expect(sent('PUT /outreach/server')).toEqual([
        { host: 'mail.ternhollow.example', port: 465, secure: true, user: 'ilona', password: 'secret' },
      ]),
    );
    await waitFor(() => expect(screen.queryByLabelText('Password')).toBeNull());
  });

  test('that cannot be reached is said, and stays open to be mended', async () => {
    const { user } = opened({
      'PUT /outreach/server': new Error('Nothing answers at mail.example, port 587.'),
    });
    await user.click(screen.getByRole('button', { name: 'Your own server' }));
    await user.type(screen.getByLabelText('Host and port'), 'mail.example');
    await user.click(screen.getByRole('button', { name: 'Use this server' }));
    expect((await screen.findByRole('alert')).textContent).toContain('Nothing answers at mail.example');
    expect(screen.getByLabelText<HTMLInputElement>('Host and port').value).toBe('mail.example');
  });

  test('goes back to the stand-in in one act', async () => {
    const through = { own: true, host: 'mail.example', port: 587, user: 'ilona' } as const;
    const { user, asked } = opened(
      { 'DELETE /outreach/server': {} },
      { outbox: { ...outreach.outbox, through } },
    );
    expect(screen.getByText('mail.example, port 587')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Back to the stand-in' }));
    await waitFor(() =>
      expect(asked.some(({ method, path }) => method === 'DELETE' && path === '/outreach/server')).toBe(true),
    );
  });
});
