/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { freshDesk, show } from '../testing/render.tsx';
import { useKey } from './keys.ts';

let pressed: string[];
beforeEach(() => {
  freshDesk();
  pressed = [];
});

function Keys({ keys, off = false }: { keys: readonly string[]; off?: boolean }) {
  return (
    <>
      {keys.map((key) => (
        <One key={key} name={key} off={off} />
      ))}
      <input aria-label="text" />
      <button type="button">press</button>
      <div role="dialog">
        <button type="button">within</button>
      </div>
    </>
  );
}
function One({ name, off }: { name: string; off: boolean }) {
  useKey(name, () => pressed.push(name), { off });
  return null;
}
const press = (key: string, more: object = {}, target: Element = document.body) =>
  fireEvent.keyDown(target, { key, ...more });

test('single keys, and keys with others held', () => {
  show(<Keys keys={['x', 'ctrl+z', 'ctrl+shift+z', 'shift+enter', 'enter', 'alt+arrowup']} />);
  press('x');
  press('X');
  press('z', { ctrlKey: true });
  press('Z', { ctrlKey: true, shiftKey: true });
  press('z', { metaKey: true });
  press('Enter', { shiftKey: true });
  press('ArrowUp', { altKey: true });
  press('z');
  expect(pressed).toEqual(['x', 'x', 'ctrl+z', 'ctrl+shift+z', 'ctrl+z', 'shift+enter', 'alt+arrowup']);
});

test('keys that are on AltGr on many keyboards, and AltGr that is none of ours', () => {
  show(<Keys keys={['[', ']', '/', 'x', 'ctrl+k']} />);
  // Some systems say AltGr as Ctrl and Alt together.
  press('[', { ctrlKey: true, altKey: true });
  press(']', { modifierAltGraph: true });
  press('/', { shiftKey: true });
  press('x', { ctrlKey: true, altKey: true });
  press('k', { ctrlKey: true, altKey: true });
  expect(pressed).toEqual(['[', ']', '/']);
});

test('nothing while something is typed, within a dialog, or where a key is turned off', () => {
  const { unmount } = show(<Keys keys={['x', 'enter']} />);
  press('x', {}, screen.getByLabelText('text'));
  press('x', {}, screen.getByRole('button', { name: 'within' }));
  // Enter on a button presses it.
  press('Enter', {}, screen.getByRole('button', { name: 'press' }));
  expect(pressed).toEqual([]);
  press('Enter');
  expect(pressed).toEqual(['enter']);
  unmount();
  show(<Keys keys={['x']} off />);
  press('x');
  expect(pressed).toEqual(['enter']);
});

test('single keys can be turned off in the settings, others cannot', async () => {
  const settings = { currency: 'EUR', numbers: 'comma', dates: 'iso', keys: false };
  const { asked } = show(<Keys keys={['x', 'ctrl+z']} />, { 'GET /settings': settings });
  for (let n = 0; n < 50 && asked.length === 0; n++) await Promise.resolve();
  await screen.findByRole('button', { name: 'press' });
  await new Promise((resolve) => setTimeout(resolve, 0));
  press('x');
  press('z', { ctrlKey: true });
  expect(pressed).toEqual(['ctrl+z']);
});

test('a capital is another key than its small letter, and off with the single ones', async () => {
  const { unmount } = show(<Keys keys={['s', 'shift+s', '?']} />);
  press('s');
  press('S', { shiftKey: true });
  // Whether a sign needs Shift is the keyboard's own.
  press('?', { shiftKey: true });
  press('?');
  expect(pressed).toEqual(['s', 'shift+s', '?', '?']);
  unmount();
  pressed = [];
  show(<Keys keys={['shift+s', 'ctrl+k']} />, { 'GET /settings': { keys: false } });
  await waitFor(() => {
    pressed = [];
    press('S', { shiftKey: true });
    expect(pressed).toEqual([]);
  });
  press('k', { ctrlKey: true });
  expect(pressed).toEqual(['ctrl+k']);
});
