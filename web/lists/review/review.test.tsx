/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { undo, useHistory } from '../../app/history.ts';
import { useDesk } from '../../desk/store.ts';
import { aList } from '../../testing/lists.ts';
import { freshDesk, settled, show, type Answers } from '../../testing/render.tsx';
import { NO_PICKS } from '../../desk/picks.ts';
import { LastVerdictRow } from './ReasonRow.tsx';
import { useSheetVerdicts } from './sheet-verdicts.ts';
import { tapeOfList } from '../use-lists.ts';
import { paces, ReviewRoll } from './ReviewRoll.tsx';
import { useListAtHand, useReview } from './reviewing.ts';
import { VerdictBar } from './VerdictBar.tsx';
import { DescribeDialog } from './DescribeDialog.tsx';
import type { Acted } from '../../desk/acted.ts';

const rivals = aList({ members: 5, judgedIn: 1, judgedOut: 1 });
const member = (verdict: string, more: object = {}) => ({
  list: 'rivals',
  name: 'Rivals',
  verdict,
  reason: null,
  judgedBy: null,
  judgedAt: null,
  note: null,
  assigned: null,
  tags: ['stairs'],
  origins: [],
  history: [],
  ...more,
});
const answers: Answers = {
  'GET /lists': { lists: [rivals], removed: [], reasons: ['closed'] },
  'GET /memberships/companies/a': { memberships: [member('not-judged')] },
  'GET /memberships/companies/b': { memberships: [member('not-judged')] },
  'POST /position': { position: { at: 0, total: 5, previous: null, next: 'b' } },
  'POST /lists/rivals/verdicts': { judged: 1, batch: 9, list: rivals, earlier: null },
  'DELETE /lists/rivals/verdicts/9': { back: 1, list: rivals },
  'POST /lists/rivals/details': { described: 1, undo: 4 },
  'DELETE /lists/rivals/details/4': { back: 1 },
};
beforeEach(() => {
  freshDesk();
  useReview.setState({ last: null, reasonsOpen: false, reason: null });
  useDesk.setState({ tape: tapeOfList(rivals), company: 'a' });
});
const bar = (more: Answers = {}) =>
  show(<VerdictBar subject="companies" recordKey="a" name="Oak Ltd" />, { ...answers, ...more });
const ready = () => screen.findByRole('region', { name: 'Verdict on Rivals' });
const keyed = (key: string) => fireEvent.keyDown(document.body, { key });

describe('the verdict bar', () => {
  test('judges by a key and goes on to the next, who is left again by undo', async () => {
    const { sent } = bar();
    await ready();
    keyed('+');
    await waitFor(() => expect(useDesk.getState().company).toBe('b'));
    expect(sent('POST /lists/rivals/verdicts')).toEqual([{ members: ['a'], verdict: 'in', seen: null }]);
    await settled(undo);
    expect([useDesk.getState().company, useHistory.getState().past]).toEqual(['a', []]);
  });
  test('takes the reason last used for out, and a digit gives another to the same company', async () => {
    useReview.setState({ reason: 'too small' });
    const { sent } = bar();
    await ready();
    keyed('-');
    await waitFor(() => expect(useReview.getState().reasonsOpen).toBe(true));
    keyed('1');
    await waitFor(() => expect(sent('POST /lists/rivals/verdicts')).toHaveLength(2));
    expect(sent('POST /lists/rivals/verdicts')).toMatchObject([
      { members: ['a'], verdict: 'out', reason: 'too small' },
      { members: ['a'], verdict: 'out', reason: 'closed' },
    ]);
    expect(useReview.getState().reason).toBe('closed');
  });
  test('says what another window said meanwhile, and stands by its own', async () => {
    bar({
      'POST /lists/rivals/verdicts': {
        judged: 1,
        batch: 9,
        list: rivals,
        earlier: { verdict: 'in', person: 'Hana', at: '2026-11-01T10:00:00Z' },
      },
    });
    await ready();
    keyed('0');
    await waitFor(() => expect(useReview.getState().last?.verdict).toBe('unsure'));
  });
  test('stays where the verdict was refused', async () => {
    bar({ 'POST /lists/rivals/verdicts': new Error('There is no list "rivals".') });
    await ready();
    keyed('+');
    await waitFor(() =>
      expect(screen.getByRole('button', { name: /^In/ })).toHaveProperty('disabled', false),
    );
    expect([useDesk.getState().company, useHistory.getState().past]).toEqual(['a', []]);
  });
  test('notes and tags by keys, without quotation marks, and takes a tag off', async () => {
    const { user, sent } = bar();
    await ready();
    keyed('t');
    await user.type(screen.getByLabelText('New tag'), 'spray "room"{Enter}');
    await waitFor(() => expect(screen.queryByLabelText('New tag')).toBeNull());
    keyed('e');
    await user.type(screen.getByLabelText('Note on the list'), 'call first{Enter}');
    await user.click(screen.getByRole('button', { name: 'Take the tag stairs off' }));
    expect(sent('POST /lists/rivals/details')).toEqual([
      { members: ['a'], tag: ['spray room'] },
      { members: ['a'], note: 'call first' },
      { members: ['a'], untag: ['stairs'] },
    ]);
  });
  test('assigns it by a key, and says to whom it is assigned', async () => {
    const { user, sent } = bar({
      'GET /memberships/companies/a': { memberships: [member('in', { assigned: 'Hana' })] },
    });
    await ready();
    expect(screen.getByText(/assigned to Hana/)).toBeTruthy();
    keyed('a');
    const box = screen.getByLabelText<HTMLInputElement>('Assigned to');
    expect(box.value).toBe('Hana');
    await user.clear(box);
    await user.type(box, 'Jonas{Enter}');
    expect(sent('POST /lists/rivals/details')).toEqual([{ members: ['a'], assigned: 'Jonas' }]);
  });
  test('is not there on a tape without a list, or of somebody not on it', async () => {
    useDesk.setState({ tape: { ...tapeOfList(rivals), lines: [] } });
    const { unmount } = bar();
    expect(screen.queryByRole('region')).toBeNull();
    unmount();
    useDesk.setState({ tape: tapeOfList(rivals) });
    const { asked } = bar({ 'GET /memberships/companies/a': { memberships: [] } });
    await waitFor(() => expect(asked.some(({ path }) => path.startsWith('/memberships'))).toBe(true));
    expect(screen.queryByRole('region')).toBeNull();
  });
});

describe('verdicts on the sheet', () => {
  let moved: number[];
  const Keys = () => {
    const sheet = {
      current: {
        move: (step: number) => moved.push(step),
        pick: () => undefined,
        pickAll: () => undefined,
        open: () => undefined,
        current: () => ({ key: 'a', name: 'Oak Ltd' }),
      },
    };
    useSheetVerdicts(sheet, true);
    const list = useListAtHand();
    return (
      <>
        {list && <p>at hand</p>}
        <LastVerdictRow />
      </>
    );
  };
  beforeEach(() => {
    moved = [];
    useDesk.setState({ company: null, picks: NO_PICKS });
  });
  const shown = async () => {
    const all = show(<Keys />, answers);
    await screen.findByText('at hand');
    return all;
  };
  test('are on the row at hand, which goes on, and its reason can be changed above the rows', async () => {
    const { sent, user } = await shown();
    keyed('-');
    await waitFor(() => expect(moved).toEqual([1]));
    await user.click(await screen.findByRole('button', { name: /too small/ }));
    expect(sent('POST /lists/rivals/verdicts')).toEqual([
      { members: ['a'], verdict: 'out' },
      { members: ['a'], verdict: 'out', reason: 'too small' },
    ]);
  });
  test('stay on the place where the row leaves the tape', async () => {
    useDesk.setState({ tape: tapeOfList(rivals, { verdict: ['not-judged'] }) });
    const { sent } = await shown();
    keyed('+');
    await waitFor(() => expect(sent('POST /lists/rivals/verdicts')).toHaveLength(1));
    expect(moved).toEqual([]);
  });
  test('are on all that are picked, in one act', async () => {
    useDesk.setState({ picks: { mode: 'all', except: new Set(['b']) } });
    const { sent } = await shown();
    keyed('0');
    await waitFor(() => expect(useHistory.getState().past).toHaveLength(1));
    expect(sent('POST /lists/rivals/verdicts')).toMatchObject([
      { picks: { except: ['b'], tape: { lines: [{ field: 'list' }] } }, verdict: 'unsure' },
    ]);
  });
});

describe('what is said of many', () => {
  const acted: Acted = {
    ...{ tape: tapeOfList(rivals), sort: [], picks: NO_PICKS },
    ...{ one: false, count: 5, gone: 0, total: 5 },
  };
  const dialog = (more: Answers = {}) => {
    let closed = 0;
    const shown = show(
      <DescribeDialog list={{ key: 'rivals', name: 'Rivals' }} acted={acted} onClose={() => closed++} />,
      { ...answers, ...more },
    );
    return { ...shown, closed: () => closed };
  };
  test('is tags on and off, somebody and a note, each where it is written, and taken back at once', async () => {
    const { user, sent, closed } = dialog();
    expect(screen.getByText('Say of 5 companies')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Say it' })).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText('Tags to put on'), 'stairs, spray "room";');
    await user.type(screen.getByLabelText('Assigned to'), 'Hana{Enter}');
    await waitFor(() => expect(closed()).toBe(1));
    expect(sent('POST /lists/rivals/details')).toMatchObject([
      { picks: { tape: { lines: [{ field: 'list' }] } }, tag: ['stairs', 'spray room'], assigned: 'Hana' },
    ]);
    expect(sent('POST /lists/rivals/details')[0]).not.toHaveProperty('note');
    await settled(undo);
    expect(useHistory.getState().past).toEqual([]);
  });
  test('can be that nobody has them, and stays open with what was written where it is refused', async () => {
    const { user, sent, closed } = dialog({
      'POST /lists/rivals/details': new Error('There is no list "rivals".'),
    });
    await user.click(screen.getByLabelText('assigned to nobody'));
    await user.type(screen.getByLabelText('Note'), 'call first{Enter}');
    expect(await screen.findByText('There is no list "rivals".')).toBeTruthy();
    expect(sent('POST /lists/rivals/details')).toMatchObject([{ assigned: '', note: 'call first' }]);
    expect([closed(), screen.getByLabelText<HTMLInputElement>('Note').value]).toEqual([0, 'call first']);
  });
});

describe('the roll of a review', () => {
  const roll: Answers = {
    ...answers,
    'GET /lists/rivals': {
      list: rivals,
      roll: { steps: [], foot: 5 },
      reasons: [{ reason: 'closed', count: 1 }],
    },
    'GET /lists/rivals/pace': {
      verdicts: [40, 31, 20, 11, 0].map((s) => ({
        verdict: 'in',
        at: new Date(Date.UTC(2026, 10, 1, 9, 0, s)).toISOString(),
      })),
    },
    'GET /lists/rivals/parting': {
      judgedIn: 1,
      judgedOut: 1,
      tried: 30,
      lines: [
        {
          line: { id: 'parting', field: 'headcount', test: { from: 25 }, unknown: 'keep' },
          words: 'Headcount 25 or more',
          dropsOut: 1,
          dropsIn: 0,
          dropsNotJudged: 2,
          chance: 1,
        },
      ],
    },
  };
  test('says how many are left and how long that takes at the pace', async () => {
    show(<ReviewRoll />, roll);
    expect(await screen.findByText(/left to judge/)).toBeTruthy();
    expect(await screen.findByText('11 s')).toBeTruthy();
  });
  test('offers the line that parts in from out, says where little is to go by, and adds it in one act', async () => {
    const { user } = show(<ReviewRoll />, roll);
    await user.click(await screen.findByRole('button', { name: 'Which line would part in from out?' }));
    expect(await screen.findByText(/Only 2 are judged in or out/)).toBeTruthy();
    expect(screen.getByText(/may well be chance/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Add Headcount 25 or more' }));
    expect(useDesk.getState().tape.lines).toMatchObject([
      { field: 'list' },
      { field: 'headcount', test: { from: 25 }, unknown: 'keep' },
    ]);
  });
  test('orders the sheet by doubt or likeness with its columns, and goes back to names', async () => {
    useDesk.setState({ columns: { companies: ['name', 'headcount'] } });
    const { user } = show(<ReviewRoll />, roll);
    await user.click(await screen.findByRole('radio', { name: 'doubt' }));
    const state = () => [useDesk.getState().sort, useDesk.getState().columns.companies];
    expect(state()).toEqual([
      [{ by: 'review:doubt:*', descending: true }],
      ['name', 'review:doubt:*', 'review:doubts:*', 'headcount'],
    ]);
    await user.click(screen.getByRole('radio', { name: 'likeness' }));
    expect(useDesk.getState().columns.companies!.slice(0, 2)).toEqual(['name', 'review:likeness:*']);
    await user.click(screen.getByRole('radio', { name: 'name' }));
    expect(useDesk.getState().sort).toEqual([]);
    for (let i = 0; i < 3; i++) await settled(undo);
    expect(state()).toEqual([[], ['name', 'headcount']]);
  });
  test('has no order by likeness before somebody is in and somebody out', async () => {
    const fresh = { ...rivals, judgedIn: 2, judgedOut: 0 };
    show(<ReviewRoll />, {
      ...roll,
      'GET /lists/rivals': { list: fresh, roll: { steps: [], foot: 5 }, reasons: [] },
    });
    expect(await screen.findByRole('radio', { name: 'likeness' })).toHaveProperty('disabled', true);
  });
  test('narrows the tape to those not judged by their figure', async () => {
    const { user } = show(<ReviewRoll />, roll);
    await user.click(await screen.findByRole('button', { name: '3' }));
    expect(useDesk.getState().tape.lines).toMatchObject([
      { test: { any: ['rivals'], verdict: ['not-judged'] } },
    ]);
  });
});

test('the pace leaves out pauses, and goes from the earliest on', () => {
  const at = (minute: number, second: number) =>
    new Date(Date.UTC(2026, 10, 1, 9, minute, second)).toISOString();
  const verdicts = [at(30, 9), at(30, 0), at(0, 8), at(0, 0)].map((one, i) => ({ verdict: i, at: one }));
  expect(paces(verdicts)).toEqual([
    { verdict: 2, seconds: 8 },
    { verdict: 0, seconds: 9 },
  ]);
});
