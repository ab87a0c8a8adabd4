/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { CheckAnswer } from '../../../contract/checks.ts';
import { emptyTape } from '../../../core/tape/nodes.ts';
import { undo, useHistory } from '../../app/history.ts';
import { aList } from '../../testing/lists.ts';
import { freshDesk, settled, show, type Answers } from '../../testing/render.tsx';
import { NearDialog } from '../tape/NearDialog.tsx';
import { useDesk } from '../store.ts';
import { SpotCheck } from './SpotCheck.tsx';

const tape = { ...emptyTape(), lines: [{ id: 'a', field: 'headcount', test: { from: 20 } }] };
beforeEach(() => {
  freshDesk();
  useDesk.setState({ tape });
});

const drawn: CheckAnswer = {
  check: {
    id: 'c1',
    tape,
    subject: 'companies',
    seed: 7,
    by: null,
    population: 400,
    atLeast: 75,
    asOf: '2026-09-30',
    person: 'Ilona',
    drawnAt: '2026-11-01T10:00:00Z',
    size: 3,
    fit: 1,
    misses: 0,
    unsure: 0,
  },
  members: [
    { key: 'x', stratum: '', verdict: 'in', note: null },
    { key: 'y', stratum: '', verdict: null, note: null },
    { key: 'z', stratum: '', verdict: null, note: null },
  ],
  strata: [{ key: '', label: 'all', size: 400 }],
  accuracy: { share: 0.83, low: 0.69, high: 0.92 },
  holding: 'not decided',
  more: 35,
  groups: [{ line: 'a', label: 'Headcount', how: 'in a band', judged: 9, misses: 3, without: 0.9 }],
};
const answers: Answers = {
  'POST /tally': {
    tally: 400,
    universe: 900,
    lines: [{ id: 'a', words: { label: 'Headcount', text: '20 or more' } }],
  },
  'POST /checks/of': { checks: [drawn.check] },
  'GET /checks/c1': drawn,
  'POST /checks/c1/verdicts': ({ key, verdict }: { key: string; verdict: 'in' | null }) => ({
    ...drawn,
    members: drawn.members.map((one) => (one.key === key ? { ...one, verdict } : one)),
  }),
  'POST /rows': ({ keys }: { keys: string[] }) => ({
    total: 1,
    rows: [{ key: keys[0], cells: { name: `Firm ${keys[0]}`, description: 'Stairs.', web: 'firm.example' } }],
  }),
};
const keyed = (key: string) => fireEvent.keyDown(document.body, { key });

describe('a spot check', () => {
  test('begins with the first that is not judged, and goes on by keys; undo takes the judgement back', async () => {
    const { sent } = show(<SpotCheck />, answers);
    expect(await screen.findByRole('heading', { name: 'Firm y' })).toBeTruthy();
    keyed('-');
    expect(await screen.findByRole('heading', { name: 'Firm z' })).toBeTruthy();
    await settled(undo);
    expect(sent('POST /checks/c1/verdicts')).toEqual([
      { key: 'y', verdict: 'out' },
      { key: 'y', verdict: null, note: null },
    ]);
  });
  test('says how many fit with its interval, whether that is enough, and where the misses come through', async () => {
    show(<SpotCheck />, answers);
    expect(await screen.findByLabelText('83 % fit')).toBeTruthy();
    expect(screen.getByText('not decided yet')).toBeTruthy();
    expect(screen.getByText(/about 332 of 400/)).toBeTruthy();
    expect(screen.getByTitle('Headcount in a band').closest('tr')!.textContent).toContain('33');
  });
  test('is asked for another share, and draws more by the same seed', async () => {
    const { user, sent } = show(<SpotCheck />, {
      ...answers,
      'PUT /checks/c1': { ...drawn, check: { ...drawn.check, atLeast: 60 } },
      'POST /checks/c1/more': drawn,
    });
    const least = await screen.findByLabelText('Percent that are asked to fit');
    await user.clear(least);
    await user.type(least, '60{Enter}');
    expect(sent('PUT /checks/c1')).toEqual([{ atLeast: 60 }]);
    await user.click(screen.getByRole('button', { name: 'Draw 20 more' }));
    expect(sent('POST /checks/c1/more')).toEqual([{ size: 23 }]);
  });
  test('is drawn first: so many for a margin, by country, with a seed', async () => {
    const { user, sent } = show(<SpotCheck />, {
      ...answers,
      'POST /checks/of': { checks: [] },
      'POST /checks': drawn,
    });
    await user.click(await screen.findByRole('button', { name: /78\s*for ±10 points/ }));
    await user.selectOptions(screen.getByLabelText('Shared out'), 'by country');
    await user.type(screen.getByLabelText('Seed'), '7');
    await user.click(screen.getByRole('button', { name: 'Draw 78' }));
    expect(sent('POST /checks')).toMatchObject([{ size: 78, by: 'place', seed: 7, atLeast: 75 }]);
  });
  test('of nothing cannot be drawn', async () => {
    show(<SpotCheck />, {
      ...answers,
      'POST /checks/of': { checks: [] },
      'POST /tally': { tally: 0, universe: 9, lines: [] },
    });
    expect(await screen.findByText(/Nothing passes the tape/)).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Draw' }).disabled).toBe(true);
  });
});

describe('what was judged of a sample', () => {
  test('becomes verdicts on a list that is chosen, taken back together', async () => {
    const list = aList({ key: 'targets', name: 'Targets' });
    const { user, asked } = show(<SpotCheck />, {
      ...answers,
      'GET /lists': {
        lists: [list, aList({ key: 'people', name: 'People', subject: 'people' })],
        removed: [],
        reasons: [],
      },
      'POST /checks/c1/to-list': { judged: 1, batches: [4, 5] },
      'DELETE /lists/targets/verdicts/4': { back: 1, list },
      'DELETE /lists/targets/verdicts/5': { back: 0, list },
    });
    await user.click(await screen.findByRole('button', { name: 'As verdicts on a list' }));
    expect(screen.getAllByRole('menuitem').map(({ textContent }) => textContent)).toEqual(['Targets']);
    await user.click(screen.getByRole('menuitem', { name: 'Targets' }));
    await waitFor(() => expect(useHistory.getState().past).toHaveLength(1));
    await settled(undo);
    expect(asked.filter(({ method }) => method === 'DELETE').map(({ path }) => path)).toEqual([
      '/lists/targets/verdicts/4',
      '/lists/targets/verdicts/5',
    ]);
  });
});

describe('about so many, please', () => {
  const way = {
    count: 301,
    lines: [
      {
        line: { ...tape.lines[0]!, test: { from: 25 } },
        words: 'Headcount 25 or more',
        was: 'Headcount 20 or more',
      },
    ],
  };
  test('shows the nearest ways, and takes one as an edit that undo takes back', async () => {
    const { user, sent } = show(<NearDialog onClose={() => undefined} />, {
      'POST /near': { now: 400, ways: [way] },
    });
    await user.type(screen.getByLabelText('About how many companies'), '300');
    await user.click(await screen.findByRole('button', { name: /^301/ }));
    expect(sent('POST /near').at(-1)).toMatchObject({ target: 300 });
    expect(useDesk.getState().tape.lines).toEqual([way.lines[0]!.line]);
    await settled(undo);
    expect(useDesk.getState().tape).toEqual(tape);
  });
  test('says where no line may be turned', async () => {
    useDesk.setState({
      tape: { ...tape, lines: tape.lines.map((line) => ({ ...line, must: true as const })) },
    });
    const { user } = show(<NearDialog onClose={() => undefined} />, { 'POST /near': { now: 400, ways: [] } });
    await user.type(screen.getByLabelText('About how many companies'), '300');
    expect(await screen.findByText(/No line can be turned/)).toBeTruthy();
    await waitFor(() => expect(screen.getByText(/Every line is marked must/)).toBeTruthy());
  });
});
