/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { createRef } from 'react';
import { Toaster } from 'sonner';
import { emptyTape, type SortKey } from '../../../core/tape/nodes.ts';
import { undo } from '../../app/history.ts';
import { freshDesk, settled, show, type Answers } from '../../testing/render.tsx';
import { NO_PICKS } from '../picks.ts';
import { useDesk } from '../store.ts';
import { ColumnMenu } from './ColumnMenu.tsx';
import { Sheet, type SheetActions } from './Sheet.tsx';

/** Ten rows of 38 high fit between head and foot. */
const HEIGHT = 33 + 36 + 380;
const heights = { clientHeight: HEIGHT, clientWidth: 1200 };
for (const [name, value] of Object.entries(heights))
  Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => value });
Object.defineProperty(HTMLElement.prototype, 'offsetHeight', {
  configurable: true,
  get(this: HTMLElement) {
    return this.hasAttribute('data-head') ? 33 : this.hasAttribute('data-foot') ? 36 : 0;
  },
});
HTMLElement.prototype.scrollTo = function (this: HTMLElement, to: unknown) {
  this.scrollTop = (to as { top?: number }).top ?? this.scrollTop;
  this.dispatchEvent(new Event('scroll'));
};

beforeEach(() => {
  freshDesk();
  useDesk.setState({
    columns: { ...useDesk.getState().columns, companies: ['name', 'headcount', 'status'] },
  });
});

interface RowsWish {
  offset: number;
  limit: number;
  sort: SortKey[];
}
const rowsOf =
  (total: number) =>
  ({ offset, limit }: RowsWish) => ({
    total,
    rows: Array.from({ length: Math.max(0, Math.min(limit, total - offset)) }, (_, i) => ({
      key: `CZ:${offset + i}`,
      cells: {
        name: `Company ${offset + i}`,
        headcount: { basis: 'reported', low: 7, high: 7, amount: 7, year: 2025 },
        status: 'active',
        place: { town: 'Brno', countryName: 'Czechia' },
      },
    })),
  });
const answers = (total: number, more: Answers = {}): Answers => ({
  'POST /tally': { universe: 1000, tally: total, lines: [{ id: 'l1', without: 5 }] },
  'POST /rows': rowsOf(total),
  'POST /summary': { columns: {} },
  'GET /column-sets': { sets: [] },
  ...more,
});
function sheet(total: number, more: Answers = {}) {
  const actions = createRef<SheetActions>();
  const shown = show(
    <>
      <ColumnMenu />
      <Sheet ref={actions} />
      <Toaster />
    </>,
    answers(total, more),
  );
  const act = (work: (sheet: SheetActions) => void) => settled(() => work(actions.current!));
  return { ...shown, act };
}
const desk = () => useDesk.getState();
const drawn = () => screen.getAllByRole('link').map((link) => link.querySelector('strong')!.textContent);
const footer = () => screen.getByText(/^rows/).textContent;
const picked = () => screen.getByText(/picked$/).textContent;
const box = (at: number) => screen.getByRole('checkbox', { name: `Pick Company ${at}` });

describe('rows', () => {
  test('in view are drawn and no more, with their place among all', async () => {
    const { sent } = sheet(1000);
    await waitFor(() => expect(drawn()[0]).toBe('Company 0'));
    expect(drawn().length).toBeLessThan(40);
    expect(footer()).toBe('rows 1 to 10 of 1,000');
    expect(sent('POST /rows')).toHaveLength(1);
    fireEvent.scroll(screen.getByRole('grid'), { target: { scrollTop: 38 * 500 } });
    await waitFor(() => expect(drawn()).toContain('Company 500'));
    expect(drawn()).not.toContain('Company 0');
    expect(footer()).toBe('rows 501 to 510 of 1,000');
    expect((sent('POST /rows').at(-1) as RowsWish).offset).toBe(500);
  });
  test('follow the keyboard: the current row is never under the head or the foot', async () => {
    const { act } = sheet(1000);
    await waitFor(() => expect(drawn()[0]).toBe('Company 0'));
    await act((sheet) => sheet.move(10));
    expect(footer()).toBe('rows 2 to 11 of 1,000');
    await act((sheet) => sheet.move(5000));
    expect([desk().cursor, footer()]).toEqual([999, 'rows 991 to 1,000 of 1,000']);
    await act((sheet) => sheet.move(-5000));
    expect([desk().cursor, footer()]).toEqual([0, 'rows 1 to 10 of 1,000']);
  });
  test('open by name, by a double press and by key; a new tab keeps this one as it is', async () => {
    const opened = jest.spyOn(window, 'open').mockReturnValue(null);
    const { user, act } = sheet(20);
    await waitFor(() => expect(drawn()).toContain('Company 3'));
    await user.click(screen.getByRole('link', { name: /Company 3/ }));
    expect([desk().company, desk().cursor]).toEqual(['CZ:3', 3]);
    await user.dblClick(screen.getByRole('link', { name: /Company 5/ }).closest('[role=row]')!);
    expect(desk().company).toBe('CZ:5');
    await settled(() => desk().set({ company: null }));
    await act((sheet) => sheet.open(true));
    expect(opened.mock.calls[0]![0]).toMatch(/CZ:5|CZ%3A5/);
    expect(desk().company).toBeNull();
    await act((sheet) => sheet.open(false));
    expect(desk().company).toBe('CZ:5');
  });
  test('none left say so and what to do; a failure says why', async () => {
    const { unmount } = sheet(0);
    expect(await screen.findByText('Nobody is left')).toBeTruthy();
    expect(screen.getByText(/Some lines hold back/)).toBeTruthy();
    unmount();
    const none = sheet(0, { 'POST /tally': { universe: 9, tally: 0, lines: [{ id: 'l1', without: 0 }] } });
    expect(await screen.findByText(/No single line is to blame/)).toBeTruthy();
    none.unmount();
    sheet(5, { 'POST /rows': new Error('The universe is being written.') });
    expect(await screen.findByText('The universe is being written.')).toBeTruthy();
  });
  test('say the place under the name unless it is a column itself', async () => {
    sheet(3);
    await waitFor(() => expect(drawn()).toContain('Company 1'));
    expect(screen.getAllByText('Brno, Czechia')).toHaveLength(3);
    await settled(() => desk().setColumns(['name', 'place']));
    await waitFor(() => expect(screen.getByRole('link', { name: 'Company 1' })).toBeTruthy());
  });
});

describe('picks', () => {
  test('are one by one, a run with shift, all, all but some, and let go', async () => {
    const { user, sent } = sheet(1000);
    await waitFor(() => expect(drawn()).toContain('Company 2'));
    await user.click(box(2));
    expect(picked()).toBe('1 picked');
    fireEvent.click(box(6), { shiftKey: true });
    await waitFor(() => expect(picked()).toBe('5 picked'));
    expect(sent('POST /rows').at(-1)).toMatchObject({ offset: 2, limit: 5, columns: [] });
    await user.click(screen.getByRole('button', { name: /Pick all 1,000/ }));
    expect([picked(), desk().picks]).toEqual(['1,000 picked', { mode: 'all', except: new Set() }]);
    await user.click(box(4));
    expect(picked()).toBe('999 picked');
    await user.click(screen.getByRole('button', { name: 'Let go' }));
    expect(desk().picks).toEqual(NO_PICKS);
  });
  test('of a long run are kept as what it is, and nothing is asked for it', async () => {
    const { user, sent, act } = sheet(1000);
    await waitFor(() => expect(drawn()).toContain('Company 0'));
    await user.click(box(0));
    await act((sheet) => sheet.move(900));
    await waitFor(() => expect(drawn()).toContain('Company 900'));
    const asked = sent('POST /rows').length;
    fireEvent.click(box(900), { shiftKey: true });
    expect(picked()).toBe('901 picked');
    expect(sent('POST /rows')).toHaveLength(asked);
    // Runs are of an order, and end with it.
    await settled(() => desk().set({ sort: [{ by: 'name' }] }));
    expect(picked()).toBe('0 picked');
  });
  test('by key are of the current row, and all of it twice is none', async () => {
    const { act } = sheet(30);
    await waitFor(() => expect(drawn()).toContain('Company 1'));
    await act((sheet) => sheet.move(1));
    await act((sheet) => sheet.pick());
    expect([...(desk().picks as typeof NO_PICKS).keys.keys()]).toEqual(['CZ:1']);
    await act((sheet) => sheet.pickAll());
    expect(picked()).toBe('30 picked');
    await act((sheet) => sheet.pickAll());
    expect(picked()).toBe('0 picked');
  });
});

describe('the head', () => {
  const head = (name: RegExp) => screen.getByRole('columnheader', { name });
  const press = (name: RegExp, shiftKey = false) =>
    fireEvent.click(within(head(name)).getByRole('button'), { shiftKey });

  test('sorts figures the largest first and names from A, turns, and lets the order go', async () => {
    const { sent } = sheet(30);
    await waitFor(() => expect(drawn()).toContain('Company 1'));
    press(/Headcount/);
    expect(desk().sort).toEqual([{ by: 'headcount', descending: true }]);
    expect(head(/Headcount/).getAttribute('aria-sort')).toBe('descending');
    press(/Headcount/);
    expect(desk().sort).toEqual([{ by: 'headcount' }]);
    press(/Headcount/);
    expect(desk().sort).toEqual([]);
    press(/Company|Name/);
    expect(desk().sort).toEqual([{ by: 'name' }]);
    press(/Company|Name/);
    expect(desk().sort).toEqual([{ by: 'name', descending: true }]);
    await waitFor(() =>
      expect(sent('POST /rows').at(-1)).toMatchObject({ sort: [{ by: 'name', descending: true }] }),
    );
  });
  test('sorts by more with shift, each with its rank', async () => {
    sheet(30);
    await waitFor(() => expect(drawn()).toContain('Company 1'));
    press(/Status/);
    press(/Headcount/, true);
    expect(desk().sort).toEqual([{ by: 'status' }, { by: 'headcount', descending: true }]);
    expect(head(/Headcount/).textContent).toMatch(/2$/);
    await settled(undo);
    expect(desk().sort).toEqual([{ by: 'status' }]);
  });
});

describe('the foot', () => {
  test('says of each column how many are known, of figures the median and the sum', async () => {
    sheet(30, {
      'POST /summary': {
        columns: { headcount: { known: 24, exact: 20, median: 40, sum: 1_200_000 }, status: { known: 27 } },
      },
    });
    const foot = within(await screen.findByRole('row', { name: 'Summary' }));
    const cells = await waitFor(() => {
      const texts = foot.getAllByRole('gridcell').map((cell) => cell.textContent);
      expect(texts.join()).toMatch(/known/);
      return texts;
    });
    expect(cells.slice(2)).toEqual(['median 40Σ 1.2m', '90 % known']);
  });
});

describe('columns', () => {
  const open = async (user: ReturnType<typeof show>['user']) =>
    user.click(screen.getByRole('button', { name: /^Columns: / }));

  test('are taken out, put in by name, moved, and all that is undone', async () => {
    const { user } = sheet(3);
    await open(user);
    await user.click(screen.getByRole('button', { name: 'Status further left' }));
    expect(desk().columns.companies).toEqual(['name', 'status', 'headcount']);
    const shown = within(screen.getByRole('dialog'));
    await user.click(shown.getByRole('checkbox', { name: 'Status' }));
    expect(desk().columns.companies).toEqual(['name', 'headcount']);
    await user.type(shown.getByLabelText('Find a column'), 'founded');
    await user.click(shown.getByRole('checkbox', { name: /Founded/ }));
    expect(desk().columns.companies).toEqual(['name', 'headcount', 'founded']);
    await user.clear(shown.getByLabelText('Find a column'));
    await user.type(shown.getByLabelText('Find a column'), 'no such thing');
    expect(shown.getByText('No other column of that name.')).toBeTruthy();
    for (const _ of [1, 2, 3]) await settled(undo);
    expect(desk().columns.companies).toEqual(['name', 'headcount', 'status']);
  });
  test('stay in view as many as are asked, and no more than there are', async () => {
    const { user } = sheet(3);
    await open(user);
    fireEvent.change(screen.getByLabelText('Columns that stay in view'), { target: { value: '9' } });
    expect(desk().frozen).toBe(3);
    fireEvent.change(screen.getByLabelText('Columns that stay in view'), { target: { value: '-2' } });
    expect(desk().frozen).toBe(0);
  });
  test('are kept as sets: made, taken, opened with, removed, and all that is undone', async () => {
    const own = { id: 's1', subject: 'companies', name: 'Mine', columns: ['name', 'phone'], usual: false };
    const { user, asked, sent } = sheet(3, {
      'GET /column-sets': { sets: [own, { ...own, id: 's2', subject: 'people', name: 'Theirs' }] },
      'POST /column-sets': { set: { ...own, id: 's9' } },
      'PUT /column-sets/s1': { set: own },
      'DELETE /column-sets/s1': {},
      'DELETE /column-sets/s9': {},
    });
    await open(user);
    await user.click(await screen.findByRole('button', { name: /^Mine/ }));
    expect(desk().columns.companies).toEqual(['name', 'phone']);
    expect(screen.queryByText('Theirs')).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Open the workspace with Mine' }));
    await waitFor(() => expect(sent('PUT /column-sets/s1')).toHaveLength(1));
    expect(sent('PUT /column-sets/s1')[0]).toEqual({
      subject: 'companies',
      name: 'Mine',
      columns: ['name', 'phone'],
      usual: true,
    });
    await user.type(screen.getByLabelText('Name of a column set'), ' Calls ');
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(sent('POST /column-sets')).toHaveLength(1));
    expect(sent('POST /column-sets')[0]).toEqual({
      subject: 'companies',
      name: 'Calls',
      columns: ['name', 'phone'],
      usual: false,
    });
    await user.click(screen.getByRole('button', { name: 'Remove Mine' }));
    await waitFor(() => expect(sent('DELETE /column-sets/s1')).toHaveLength(1));
    await settled(undo);
    expect(sent('POST /column-sets').at(-1)).toMatchObject({ name: 'Mine' });
    await settled(undo);
    expect(asked.at(-2)).toMatchObject({ method: 'DELETE', path: '/column-sets/s9' });
  });
});

describe('a value of the sheet', () => {
  test('becomes a line that keeps its like or takes them out', async () => {
    const line = { id: 'v1', field: 'status', test: { any: ['active'] } };
    const { user, sent } = sheet(3, { 'POST /typed': { lines: [line] } });
    await waitFor(() => expect(drawn()).toContain('Company 1'));
    await user.click(screen.getAllByRole('button', { name: 'active' })[0]!);
    const menu = await screen.findByText(/Status, as a line/);
    await user.click(within(menu.parentElement!).getByRole('button', { name: 'take out' }));
    await waitFor(() => expect(desk().tape.lines).toMatchObject([{ field: 'status' }]));
    expect((sent('POST /typed')[0] as { text: string }).text).toMatch(/^not status/);
  });
});

describe('finding within the sheet', () => {
  const found = { 'POST /find': { total: 3, positions: [4, 120, 600] } };
  test('goes from one to the next and round, narrows nothing, and says how far it is', async () => {
    const { user } = sheet(1000, found);
    await waitFor(() => expect(drawn()).toContain('Company 1'));
    await user.click(screen.getByRole('button', { name: /Find in these/ }));
    await user.type(screen.getByLabelText('Find a name among these companies'), 'sever');
    await waitFor(() => expect(desk().cursor).toBe(4));
    expect(screen.getByText('1 of 3')).toBeTruthy();
    await user.keyboard('{Enter}');
    expect(desk().cursor).toBe(120);
    expect(footer()).toMatch(/121 of 1,000$|to \d+ of 1,000/);
    await user.click(screen.getByRole('button', { name: 'The next one' }));
    await user.click(screen.getByRole('button', { name: 'The next one' }));
    expect([desk().cursor, screen.getByText('1 of 3')]).toEqual([4, expect.anything()]);
    await user.keyboard('{Shift>}{Enter}{/Shift}');
    expect(desk().tape).toEqual(emptyTape());
  });
  test('says none, and goes away by Esc', async () => {
    const { user } = sheet(1000, { 'POST /find': { total: 0, positions: [] } });
    await user.click(screen.getByRole('button', { name: /Find in these/ }));
    await user.type(screen.getByLabelText('Find a name among these companies'), 'zzz');
    expect(await screen.findByText('none here')).toBeTruthy();
    await user.keyboard('{Escape}');
    expect(screen.queryByLabelText('Find a name among these companies')).toBeNull();
  });
});
