/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { useLocation } from 'react-router';
import { usePutting } from '../desk/putting.ts';
import { useDesk } from '../desk/store.ts';
import { tapeOfList } from '../lists/use-lists.ts';
import { freshDesk, settled, show, type Answers } from '../testing/render.tsx';
import { undo, useHistory } from './history.ts';
import { JumpBox } from './JumpBox.tsx';

let closed: number;
beforeEach(() => {
  freshDesk();
  closed = 0;
});

const NOTHING = { companies: [], more: false, related: [], tapes: [], lists: [] };

function Where() {
  const { pathname, search } = useLocation();
  return <output>{pathname + search}</output>;
}

function jump(answers: Answers) {
  return show(
    <>
      <JumpBox onClose={() => closed++} />
      <Where />
    </>,
    { 'GET /jump': NOTHING, 'POST /complete': { completions: [] }, ...answers },
  );
}
const where = () => document.querySelector('output')!.textContent;
const selected = () => document.querySelector('[data-selected=true]')?.textContent ?? null;
const groups = () =>
  [...document.querySelectorAll('[cmdk-group-heading]')].map(({ textContent }) => textContent);

describe('the jump box', () => {
  test('does a command that is typed in full, whatever else is spelled like it', async () => {
    const alike = { typed: 'nace 17.12', meaning: 'Industry 17.12 paper', count: 9, alike: true };
    useDesk.setState({ tape: { ...useDesk.getState().tape, name: 'before' } });
    const { user } = jump({ 'POST /complete': { completions: [alike] } });
    await user.keyboard('new tape');
    await screen.findByText('Industry 17.12 paper');
    expect(groups()[0]).toBe('Called just that');
    expect(selected()).toContain('New tape');
    await user.keyboard('{Enter}');
    expect([closed, where()]).toEqual([1, '/desk']);
  });

  test('selects nothing where all is only spelled alike, until a hand does', async () => {
    const alike = { typed: 'nace 42', meaning: 'Industry 42 civil engineering', count: 3, alike: true };
    const { user } = jump({
      'POST /complete': { completions: [alike] },
      'POST /typed': { lines: [{ id: 't1', field: 'industry', test: { scheme: 'nace-2.1', any: ['42'] } }] },
    });
    await user.keyboard('qqqq');
    await screen.findByText('Industry 42 civil engineering');
    expect([groups(), selected()]).toEqual([['Spelled alike'], null]);
    await user.keyboard('{Enter}');
    expect(closed).toBe(0);
    await user.keyboard('{ArrowDown}');
    expect(selected()).toContain('Industry 42');
    await user.keyboard('{Enter}');
    await waitFor(() => expect(where()).toMatch(/^\/desk\?t=/));
  });

  test('selects what comes after only what was alike had come', async () => {
    const alike = { typed: 'nace 42', meaning: 'Industry 42', count: 3, alike: true };
    const late = { typed: 'nace 43', meaning: 'Industry 43', count: 3 };
    const { user } = jump({
      'POST /complete': ({ text }: { text: string }) => ({
        completions: text === 'qq' ? [alike] : [late, alike],
      }),
    });
    await user.keyboard('qq');
    await screen.findByText('Industry 42');
    expect(selected()).toBeNull();
    await user.keyboard('q');
    await screen.findByText('Industry 43');
    await waitFor(() => expect(selected()).toContain('Industry 43'));
  });

  test('never takes by Enter what was found of an earlier text, but what comes of the one that was typed', async () => {
    const late: (() => void)[] = [];
    const line = (typed: string) => ({ typed, meaning: `Line ${typed}`, count: 9 });
    const { user, sent } = jump({
      'POST /complete': ({ text }: { text: string }) =>
        text === 'q'
          ? { completions: [line('quoted')] }
          : new Promise((come) => late.push(() => come({ completions: [line(text)] }))),
      'POST /typed': { lines: [{ id: 't1', field: 'words', test: { text: 'qx' } }] },
    });
    await user.keyboard('q');
    await waitFor(() => expect(selected()).toContain('Line quoted'));
    await user.keyboard('x');
    // What was found of "q" is still in sight, and Enter does not mean it.
    expect([screen.queryByText('Line quoted') !== null, selected()]).toEqual([true, null]);
    await user.keyboard('{Enter}');
    expect([closed, sent('POST /typed')]).toEqual([0, []]);
    for (const come of late) come();
    await waitFor(() => expect(closed).toBe(1));
    await waitFor(() => expect(sent('POST /typed')).toMatchObject([{ text: 'qx' }]));
  });

  test('does a command at once, whatever else is on its way', async () => {
    const { user } = jump({ 'POST /complete': () => new Promise(() => undefined) });
    await user.keyboard('round to people');
    await waitFor(() => expect(selected()).toContain('Turn the tape round to people'));
    await user.keyboard('{Enter}');
    expect(useDesk.getState().tape.subject).toBe('people');
  });

  test('puts a list that is named on the tape, and opens a saved tape', async () => {
    const tape = {
      format: 'just-tally.tape',
      version: 1,
      subject: 'companies',
      lines: [],
      name: 'Rivals of ours',
    };
    const { user } = jump({
      'GET /jump': {
        ...NOTHING,
        lists: [{ key: 'our-customers', name: 'Our customers', subject: 'companies', members: 90 }],
        tapes: [{ id: 'a', kind: 'tape', name: 'Rivals of ours', tape }],
      },
    });
    await user.keyboard('our customers');
    const list = await screen.findByRole('option', { name: /^Our customers/ });
    await user.click(list);
    const text = atob(new URLSearchParams(where().split('?')[1]).get('t')!);
    expect(JSON.parse(text)).toMatchObject({ lines: [{ field: 'list', test: { any: ['our-customers'] } }] });
  });

  test('says that more companies have such a name, and makes a line of it', async () => {
    const { user } = jump({
      'GET /jump': {
        ...NOTHING,
        companies: [{ key: 'CZ-1', name: 'Lakovna', town: 'Brno', country: 'CZ' }],
        more: true,
      },
    });
    await user.keyboard('lak br');
    await user.click(await screen.findByRole('option', { name: /^More with such a name/ }));
    const text = atob(new URLSearchParams(where().split('?')[1]).get('t')!);
    expect(JSON.parse(text)).toMatchObject({
      lines: [{ field: 'words', test: { text: 'lak* br*', in: 'name' } }],
    });
  });

  test('opens a condition by its name, and companies and people by theirs', async () => {
    const { user } = jump({
      'GET /jump': {
        ...NOTHING,
        companies: [{ key: 'CZ-1', name: 'Headway', town: null, country: null }],
        related: [{ subject: 'people', key: 'person-3', name: 'Heada', about: 'Headway' }],
      },
    });
    await user.keyboard('headcount');
    const exact = (await screen.findByText('Called just that')).closest<HTMLElement>('[cmdk-group]')!;
    await user.click(within(exact).getByText('Headcount'));
    expect(where()).toBe('/desk?line=new%3Aheadcount');
  });

  test('puts all that is at hand on a list by its name, which is taken back', async () => {
    useDesk.setState({ tape: tapeOfList({ key: 'rivals', name: 'Rivals', subject: 'companies' }) });
    const { user, sent, asked } = jump({
      'GET /jump': {
        ...NOTHING,
        lists: [
          { key: 'targets', name: 'Targets', subject: 'companies', members: 9 },
          { key: 'buyers', name: 'Targets to buy', subject: 'people', members: 9 },
        ],
      },
      'POST /lists/targets/members': { added: 7, of: 9, origins: [4], list: {} },
      'DELETE /lists/targets/origins/4': {},
    });
    await user.keyboard('put on targets');
    await screen.findByText('Put these on Targets');
    // Lists of other records take none of these.
    expect(screen.queryByText('Put these on Targets to buy')).toBeNull();
    expect(selected()).toContain('Put these on Targets');
    await user.keyboard('{Enter}');
    expect(closed).toBe(1);
    await waitFor(() =>
      expect(sent('POST /lists/targets/members')).toMatchObject([
        { tape: { lines: [{ field: 'list' }] }, sort: [] },
      ]),
    );
    expect(asked.filter(({ path }) => path === '/jump?text=targets').length).toBeGreaterThan(0);
    await waitFor(() => expect(useHistory.getState().past).toHaveLength(1));
    await settled(undo);
    expect(asked.map(({ method, path }) => `${method} ${path}`)).toContain('DELETE /lists/targets/origins/4');
  });

  test('says where it is the open record alone that would go on a list', async () => {
    useDesk.setState({ company: 'CZ-1' });
    const { user } = jump({
      'GET /jump': { ...NOTHING, lists: [{ key: 't', name: 'Targets', subject: 'companies', members: 9 }] },
    });
    await user.keyboard('put on targets');
    const put = (await screen.findByText('Put these on Targets')).closest('[cmdk-item]')!;
    expect(put.textContent).toContain('the record that is open');
  });

  test('asks with Alt and Enter which list a company goes on', async () => {
    const { user } = jump({
      'GET /jump': {
        ...NOTHING,
        companies: [{ key: 'CZ-1', name: 'Lakovna', town: 'Brno', country: 'CZ' }],
      },
    });
    await user.keyboard('lakovna');
    await screen.findByText('Alt Enter');
    await user.keyboard('{Alt>}{Enter}{/Alt}');
    expect(usePutting.getState().acted).toMatchObject({ one: true, picks: { keys: new Map([['CZ-1', 0]]) } });
    expect([closed, useDesk.getState().company]).toEqual([1, null]);
  });

  test('turns the tape round', async () => {
    const { user } = jump({});
    await user.keyboard('round to people{Enter}');
    expect(useDesk.getState().tape.subject).toBe('people');
  });
});
