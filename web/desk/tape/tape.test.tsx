/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Toaster } from 'sonner';
import { emptyTape, type HasLine, type Line, type Tape } from '../../../core/tape/nodes.ts';
import { undo } from '../../app/history.ts';
import { freshDesk, settled, show, type Answers } from '../../testing/render.tsx';
import type { Acted } from '../acted.ts';
import { NO_PICKS } from '../picks.ts';
import { useDesk } from '../store.ts';
import { TapePanel } from './TapePanel.tsx';

beforeEach(freshDesk);

const LINES: readonly Line[] = [
  { id: 'l1', field: 'status', test: { any: ['active'] } },
  { id: 'l2', field: 'headcount', test: { from: 50 }, must: true },
  { id: 'l3', field: 'technology', test: { any: ['crm'] }, not: true },
];

/** Figures of a line: left, cut, without, unknown. */
const figures = (id: string, label: string, subtotal: number, cut: number, more: object = {}) => ({
  id,
  words: { label, text: `text of ${id}` },
  typed: `typed ${id}`,
  subtotal,
  cut,
  alone: subtotal + 5,
  without: 30,
  unknown: 0,
  ...more,
});
const tally = (more: object = {}) => ({
  universe: 1000,
  tally: 30,
  estimated: 0,
  holdsBackMost: 'l2',
  lines: [
    figures('l1', 'Status', 900, 100),
    figures('l2', 'Headcount', 40, 860, { without: 418, unknown: 6, reasons: { 'not collected': 6 } }),
    figures('l3', 'Technology', 30, 10, { without: 40 }),
  ],
  reads: 'the whole',
  generation: 1,
  ...more,
});

const acts = {
  onExport: jest.fn(),
  onList: jest.fn(),
  onWrite: jest.fn(),
  onVisit: jest.fn(),
  onDescribe: jest.fn(),
  onCurrentLine: jest.fn(),
};
const acted: Acted = {
  tape: emptyTape(),
  sort: [],
  picks: NO_PICKS,
  one: false,
  count: 30,
  gone: 0,
  total: 30,
};
function panel(lines: readonly Line[], answers: Answers = {}, more: { one?: boolean; gone?: true } = {}) {
  useDesk.setState({ tape: { ...emptyTape(), lines } });
  return show(
    <>
      <TapePanel
        currentLine={null}
        acted={more.gone ? null : { ...acted, one: more.one ?? false }}
        {...acts}
      />
      <Toaster />
    </>,
    { 'POST /tally': tally(), ...answers },
  );
}
const lines = () => useDesk.getState().tape.lines;
const row = async (label: string) =>
  (await screen.findByRole('button', { name: `Move ${label}` })).closest('li')!;

describe('a line of the tape', () => {
  test('says what it asks, left, cut, costs and does not know; the one that costs most says so', async () => {
    panel(LINES);
    await screen.findByText('388 more without it · holds back most');
    expect((await row('Status')).textContent).toMatch(/^Status text of l1900−100/);
    expect((await row('Headcount')).textContent).toMatch(/must.*40−860.*6 unknown, left out/);
    const third = await row('Technology');
    expect(third.textContent).toMatch(/^not Technology.*10 more without it/);
    expect(third.textContent).not.toMatch(/holds back most/);
  });
  test('keeps or leaves out its unknowns by a press on them, and says why they are unknown', async () => {
    const { user } = panel(LINES);
    const unknown = await screen.findByRole('button', { name: /6 unknown, left out/ });
    expect(unknown.title).toMatch(/Why: not collected 6\. Click to keep them/);
    await user.click(unknown);
    expect(lines()[1]).toMatchObject({ unknown: 'keep' });
    await settled(undo);
    expect(lines()).toEqual(LINES);
  });
  test('is turned, parked, made a must and taken off by its marks', async () => {
    const { user } = panel(LINES);
    const first = within(await row('Status'));
    await user.click(first.getByRole('button', { name: /Take out what matches/ }));
    await user.click(first.getByRole('button', { name: /Not up for discussion/ }));
    await user.click(first.getByRole('button', { name: /Park it/ }));
    expect(lines()[0]).toEqual({ ...LINES[0], not: true, must: true, parked: true });
    expect((await row('Status')).textContent).toMatch(/parked/);
    expect((await row('Status')).textContent).not.toMatch(/900/);
    await user.click(first.getByRole('button', { name: /Keep what matches/ }));
    await user.click(first.getByRole('button', { name: /Count it again/ }));
    await user.click(first.getByRole('button', { name: /Up for discussion again/ }));
    expect(lines()[0]).toEqual(LINES[0]);
    await user.click(first.getByRole('button', { name: /Take the line off/ }));
    expect(lines().map(({ id }) => id)).toEqual(['l2', 'l3']);
    await settled(undo);
    expect(lines().map(({ id }) => id)).toEqual(['l1', 'l2', 'l3']);
  });
  test('joins the one above by or and is taken apart again', async () => {
    const { user } = panel(LINES);
    expect(within(await row('Status')).queryByRole('button', { name: /Either this or/ })).toBeNull();
    await user.click(within(await row('Headcount')).getByRole('button', { name: /Either this or/ }));
    expect(lines()).toHaveLength(2);
    expect(lines()[0]).toMatchObject({ either: [{ field: 'status' }, { field: 'headcount' }] });
    await user.click(within(await row('Either')).getByRole('button', { name: 'Take the block apart' }));
    expect(lines().map((line) => 'field' in line && line.field)).toEqual([
      'status',
      'headcount',
      'technology',
    ]);
  });
  test('opens with what passes it alone, branch by branch, and closes by the same press', async () => {
    const block: Line = { id: 'l1', either: [LINES[0] as never, { ...LINES[1], id: 'l9' } as never] };
    const { user } = panel([block], {
      'POST /tally': tally({
        lines: [
          figures('l1', 'Either', 700, 300, {
            branches: [
              { id: 'l1', alone: 600 },
              { id: 'l9', alone: 250 },
            ],
          }),
        ],
      }),
    });
    const opener = await screen.findByRole('button', { name: /^Either text of l1/ });
    await user.click(opener);
    expect(useDesk.getState().openLine).toBe('l1');
    expect((await row('Either')).textContent).toMatch(/705 pass this line alone; branches 600, 250/);
    await user.click(screen.getByRole('button', { name: /^Either text of l1/ }));
    expect(useDesk.getState().openLine).toBeNull();
  });
  test('of related records shows its own lines with what passes each', async () => {
    const has: HasLine = {
      id: 'l1',
      has: 'deals',
      as: 'target',
      lines: [{ id: 'l2', field: 'date', test: { past: '18 months' } }],
    };
    const { user } = panel([has], {
      'POST /tally': tally({
        lines: [
          figures('l1', 'Has deal', 70, 930, {
            inner: [{ id: 'l2', words: { label: 'Date', text: 'past 18 months' }, typed: 'past 18 months' }],
            related: [{ id: 'l1', all: 200, sure: 80, possible: 9, lines: [{ id: 'l2', alone: 81 }] }],
          }),
        ],
      }),
    });
    const whole = await row('Has deal');
    expect(whole.textContent).toMatch(/as target/);
    expect(whole.textContent).toMatch(/80 of 200 deals pass, 9 more may/);
    await user.click(within(whole).getByRole('button', { name: /^Date past 18 months/ }));
    expect(useDesk.getState().openLine).toBe('l2');
  });
});

describe('the tape', () => {
  test('shows the tally large, of what, and whether estimates are in it', async () => {
    panel(LINES);
    const out = await screen.findByRole('status', { name: 'Tally' });
    await waitFor(() => expect(out.textContent).toBe('30'));
    expect(screen.getByText('counted exactly')).toBeTruthy();
  });
  test('says how much of the tally rests on estimates', async () => {
    panel(LINES, { 'POST /tally': tally({ estimated: 12 }) });
    expect(await screen.findByText('12 on an estimate')).toBeTruthy();
  });
  test('says what to type while it is empty, and what went wrong where it did', async () => {
    const { unmount } = panel([]);
    expect(screen.getByText('nace 25.51; in Czechia, Poland; 20-249 staff')).toBeTruthy();
    unmount();
    panel(LINES, { 'POST /tally': new Error('There is no list “lost”.') });
    expect(await screen.findByText('There is no list “lost”.')).toBeTruthy();
  });
  test('acts on one record where one is open, and on nothing where it is not known', () => {
    const { unmount } = panel(LINES, {}, { one: true });
    fireEvent.click(screen.getByRole('button', { name: /^Export this/ }));
    fireEvent.click(screen.getByRole('button', { name: /^To list/ }));
    expect([acts.onExport.mock.calls.length, acts.onList.mock.calls.length]).toEqual([1, 1]);
    unmount();
    panel(LINES, {}, { gone: true });
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /^Export/ }).disabled).toBe(true);
  });
  test('has its lines as one row each from four on, and folds to its tally', async () => {
    const { user } = panel([...LINES, { id: 'l4', field: 'founded', test: { from: 1990 } }]);
    await user.click(screen.getByRole('button', { name: 'one row a line' }));
    expect(useDesk.getState().compact).toBe(true);
    expect(screen.queryByText(/holds back most/)).toBeNull();
    await user.click(screen.getByRole('button', { name: 'open all lines' }));
    await user.click(screen.getByRole('button', { name: 'Fold the tape' }));
    expect(await screen.findByText('companies · 4 lines')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: /Open the tape/ }));
    expect(screen.getByRole('list', { name: 'Lines' })).toBeTruthy();
    await settled(() => useDesk.setState({ folded: false }));
  });
  test('that exports only its first says so, and all again by a press', async () => {
    useDesk.setState({});
    const { user } = panel(LINES);
    await settled(() => useDesk.setState({ tape: { ...emptyTape(), lines: LINES, first: 500 } }));
    expect(screen.getByText(/exports take the first/).textContent).toMatch(/500/);
    await user.click(screen.getByRole('button', { name: 'Export all again' }));
    expect(useDesk.getState().tape.first).toBeUndefined();
  });
});

describe('the menu of the tape', () => {
  const more = async (user: ReturnType<typeof show>['user'], item: string) => {
    await user.click(screen.getByRole('button', { name: 'More for the tape' }));
    await user.click(await screen.findByRole('menuitem', { name: item }));
  };
  const file = (name: string, text: string) => {
    const made = new File([text], name, { type: 'application/json' });
    Object.defineProperty(made, 'text', { value: () => Promise.resolve(text) });
    return made;
  };
  const opened: Tape = {
    ...emptyTape('people'),
    name: 'Buyers',
    lines: [{ id: 'l7', field: 'department', test: { any: ['purchasing'] } }],
    sort: [{ by: 'name' }],
  };

  test('opens a tape file, with its order, in place of the tape at hand; undo brings that back', async () => {
    const { user } = panel(LINES);
    await user.upload(screen.getByLabelText('Tape file'), file('buyers.tape.json', JSON.stringify(opened)));
    await waitFor(() => expect(useDesk.getState().tape.name).toBe('Buyers'));
    expect(useDesk.getState().sort).toEqual([{ by: 'name' }]);
    await settled(undo);
    expect([lines(), useDesk.getState().sort]).toEqual([LINES, []]);
  });
  test('refuses what is no tape file by name, and leaves the tape as it was', async () => {
    const { user } = panel(LINES, {
      'POST /tally': ({ tape }: { tape: Tape }) =>
        tape.name === 'Bad' ? new Error('“lines” is missing.') : tally(),
    });
    await user.upload(screen.getByLabelText('Tape file'), file('torn.json', '{"format": '));
    expect(await screen.findByText(/torn\.json is no tape file: it is not JSON/)).toBeTruthy();
    await user.upload(screen.getByLabelText('Tape file'), file('bad.json', '{"name":"Bad"}'));
    expect(await screen.findByText('“lines” is missing.')).toBeTruthy();
    const large = file('large.json', '{}');
    Object.defineProperty(large, 'size', { value: 3_000_000 });
    await user.upload(screen.getByLabelText('Tape file'), large);
    expect(await screen.findByText(/large\.json has 3 MB; a tape file has at most 1\.5 MB/)).toBeTruthy();
    expect(lines()).toEqual(LINES);
  });
  test('opens the tape that an exported file carries', async () => {
    const { user } = panel(LINES, { 'POST /tape-files': { tape: opened } });
    await user.upload(screen.getByLabelText('Tape file'), file('buyers.xlsx', 'PK'));
    await waitFor(() => expect(useDesk.getState().tape.name).toBe('Buyers'));
  });
  test('copies the lines as they would be typed', async () => {
    const { user } = panel(LINES);
    await screen.findByText('388 more without it · holds back most');
    await more(user, 'Copy as typed lines');
    expect(await navigator.clipboard.readText()).toBe('typed l1; typed l2; typed l3');
  });
  test('shows the count as SQL of each database, or why there is none', async () => {
    const { user, sent } = panel(LINES, {
      'POST /sql': ({ dialect }: { dialect: string }) =>
        dialect === 'duckdb' ? new Error('Peers have no SQL.') : { statement: `select 1 -- ${dialect}` },
    });
    await more(user, 'This count as SQL');
    expect(await screen.findByText('select 1 -- sqlite')).toBeTruthy();
    await user.click(screen.getByRole('radio', { name: 'PostgreSQL' }));
    expect(await screen.findByText('select 1 -- postgresql')).toBeTruthy();
    await user.click(screen.getByRole('radio', { name: 'DuckDB' }));
    expect(await screen.findByText('Peers have no SQL.')).toBeTruthy();
    expect(sent('POST /sql')[0]).toMatchObject({ tape: { lines: LINES } });
  });
  test('starts a new tape, which undo takes back', async () => {
    const { user } = panel(LINES);
    await more(user, 'New tape');
    expect(lines()).toEqual([]);
    await settled(undo);
    expect(lines()).toEqual(LINES);
  });
});
