import { useEffect, useLayoutEffect, useRef } from 'react';
import { useSettings } from './settings.ts';

/** Every key of the program, as the list of keys shows them. */
export const KEYS: readonly { keys: string[]; does: string }[] = [
  { keys: ['/'], does: 'type a line' },
  { keys: ['j', 'k', '↓', '↑'], does: 'next or previous row' },
  { keys: ['Space'], does: 'pick the row' },
  { keys: ['Shift', 'click'], does: 'pick all rows between' },
  { keys: ['Ctrl A'], does: 'pick all, whatever the number' },
  { keys: ['Enter'], does: 'open the row' },
  { keys: ['Shift Enter'], does: 'open the row in a new tab' },
  { keys: ['Esc'], does: 'back to the sheet' },
  { keys: ['f'], does: 'find a name in the sheet' },
  { keys: ['Ctrl C'], does: 'copy the picked rows, or this one, as a table' },
  { keys: ['s', 'Shift S'], does: 'put the picked, or all, on a list; on the one used last' },
  { keys: ['x'], does: 'export' },
  { keys: ['l'], does: 'write to the people left, or to the right person of each company' },
  { keys: ['1', '9', '0'], does: 'in Outreach: name a proof, leave somebody out' },
  { keys: ['Ctrl Enter'], does: 'in Outreach: put what was looked at in the outbox' },
  { keys: ['d', 'v'], does: 'on a reply: done, leads to a meeting' },
  { keys: ['+', '-', '0'], does: 'on a list: in, out, unsure; digits then choose the reason for out' },
  {
    keys: ['t', 'e', 'a'],
    does: 'on a list: tag, note, assign; on the sheet T says all three of those picked',
  },
  { keys: ['Alt click', 'Alt Enter'], does: 'put a dot, or a hit of the jump box, on a list' },
  {
    keys: ['s', 'p', 'x', 'i'],
    does: 'on a match: a list, their people, the file with columns, fill in what it knows',
  },
  { keys: ['1', '6', '0'], does: 'on a call sheet: what came of the call; not called yet' },
  { keys: ['w'], does: 'open the web page of the company in a new tab' },
  { keys: ['[', ']'], does: 'previous or next line of the tape' },
  { keys: ['o'], does: 'open the line' },
  { keys: ['p'], does: 'park the line, or count it again' },
  { keys: ['n'], does: 'not: take out what the line matches' },
  { keys: ['r'], does: 'either this line or the one above' },
  { keys: ['m'], does: 'must: the line is not up for discussion' },
  { keys: ['u'], does: 'keep the line’s unknowns, or leave them out' },
  { keys: ['Delete'], does: 'take the line off' },
  { keys: ['Alt ↑', 'Alt ↓'], does: 'move the line up or down' },
  {
    keys: ['r', 'f', 'a', 'n', 'd'],
    does: 'in Gather, point at: a row, a field of it, an advert, the way to the next page; fill what comes before',
  },
  { keys: ['w', 'g'], does: 'in Gather: words and places; run it' },
  { keys: ['1', '2', '3', '4'], does: 'Sheet, Breakdown, Map, Spot check' },
  { keys: ['c'], does: 'new chart, on Breakdown' },
  { keys: ['Ctrl Z', 'Ctrl Shift Z'], does: 'undo, redo' },
  { keys: ['Ctrl K'], does: 'find a company, code, town, tape, list or command' },
  { keys: ['?'], does: 'all keys' },
];

interface Options {
  /** Also while something is typed. */
  everywhere?: boolean;
  off?: boolean;
}

/** Calls `act` on a key such as "x", "shift+enter" or "ctrl+k". Single keys do nothing while something is typed, or when they are turned off. */
export function useKey(
  key: string,
  act: (event: KeyboardEvent) => void,
  { everywhere = false, off = false }: Options = {},
): void {
  const { keys } = useSettings();
  const latest = useRef(act);
  // Before anything is painted: a key pressed at what is seen means that, however quick.
  useLayoutEffect(() => {
    latest.current = act;
  });
  useEffect(() => {
    const parts = key === '+' ? ['+'] : key.split('+');
    const name = parts.at(-1)!;
    const wants = (modifier: string) => parts.slice(0, -1).includes(modifier);
    // A capital is a single key, too.
    const single = name.length === 1 && parts.slice(0, -1).every((one) => one === 'shift');
    if (off || (single && !keys)) return;
    const listen = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const typing =
        target.closest(
          'input:not([type=checkbox]):not([type=radio]), textarea, select, [contenteditable]',
        ) !== null;
      const within = target.closest('[role=dialog], [role=menu], [role=listbox]') !== null;
      if (within || (typing && !everywhere)) return;
      if (event.defaultPrevented || event.key.toLowerCase() !== (name === 'space' ? ' ' : name)) return;
      // Many keyboards have [, ] or / on a key with AltGr, which some systems say as Ctrl and Alt together.
      const altGr =
        !/^[a-z0-9]$/i.test(name) && (event.getModifierState('AltGraph') || (event.ctrlKey && event.altKey));
      const [ctrl, alt] = altGr ? [false, false] : [event.ctrlKey || event.metaKey, event.altKey];
      if (ctrl !== wants('ctrl') || alt !== wants('alt')) return;
      // Signs need Shift on some keyboards and not on others.
      const isSign = name.length === 1 && !/[a-z]/.test(name);
      if (!isSign && event.shiftKey !== wants('shift')) return;
      // Enter and Space on a button or a link press it.
      const presses = (name === 'enter' || name === 'space') && parts.length === 1;
      if (presses && target.closest('button, a, summary, input') !== null) return;
      event.preventDefault();
      latest.current(event);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [key, keys, everywhere, off]);
}
