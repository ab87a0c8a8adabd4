/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { undo } from '../app/history.ts';
import { freshDesk, show } from '../testing/render.tsx';
import { changeRow, planView, runView } from '../testing/runs.ts';
import { shortMoney } from './ChangesSheet.tsx';
import { Runs } from './Runs.tsx';
import { dayHere, timeWords, tookWords } from './words.ts';

beforeEach(freshDesk);

const ANSWERS = {
  'GET /runs': {
    plans: [
      planView('targets', { name: 'Targets' }),
      planView('clusters', {
        ...{
          name: 'Clusters',
          kind: 'batch',
          when: 'by hand',
          next: [],
          last: null,
          schedule: { how: 'hand' },
        },
        target: { batch: 'b1', into: 'file' },
      }),
      planView('broken', {
        name: 'Broken',
        trouble: 'target.tape names nothing',
        last: runView('r9', {
          state: 'failed',
          message: 'The tape is gone',
          startedAt: '2026-10-01T06:00:00Z',
        }),
      }),
    ],
    past: [
      {
        ...{
          id: 'r2',
          kind: 'tape',
          name: 'Targets',
          state: 'done',
          startedAt: '2026-11-02T06:00:00Z',
          took: 2100,
        },
        ...{ outcome: '12 companies', progress: null, job: null, link: '/runs?plan=targets&run=r2' },
      },
      {
        ...{
          id: 'r9',
          kind: 'tape',
          name: 'Broken',
          state: 'failed',
          startedAt: '2026-10-01T06:00:00Z',
          took: 10,
        },
        ...{ outcome: 'The tape is gone', progress: null, job: null, link: '/runs?plan=broken&run=r9' },
      },
      {
        ...{
          id: 'j1',
          kind: 'load',
          name: 'Load firms.csv',
          state: 'done',
          startedAt: '2026-11-01T06:00:00Z',
          took: 900,
        },
        ...{ outcome: '70 rows', progress: null, job: 'j1', link: '/sources' },
      },
    ],
    month: { next: '2026-10' },
  },
  'GET /plans/targets': {
    plan: planView('targets', { name: 'Targets' }),
    runs: [runView('r2'), runView('r1', { nth: 1, comparedTo: null })],
  },
  'GET /runs/r2/changes': {
    run: runView('r2'),
    changes: [changeRow('a'), changeRow('b'), changeRow('c')],
    total: 3,
  },
  'GET /runs/r2/tape': { tape: { subject: 'companies', lines: [] }, why: null },
};

describe('what runs', () => {
  test('is listed with what changed, sorted, searched and told apart by kind', async () => {
    const { user } = show(<Runs />, ANSWERS, '/runs');
    const table = await screen.findByRole('table', { name: 'What runs' });
    const rows = () =>
      within(table)
        .getAllByRole('row')
        .slice(1)
        .map((row) => row.querySelector('button')!.textContent);
    expect(rows()).toEqual(['Targets', 'Broken', 'Clusters']);
    expect(within(table).getByText('+3')).toBeTruthy();
    expect(within(table).getByText('failed')).toBeTruthy();
    await user.click(within(table).getByRole('button', { name: 'What runs' }));
    expect(rows()).toEqual(['Broken', 'Clusters', 'Targets']);
    await user.type(screen.getByRole('textbox', { name: 'Find a run' }), 'clus');
    expect(rows()).toEqual(['Clusters']);
    await user.clear(screen.getByRole('textbox', { name: 'Find a run' }));
    await user.selectOptions(screen.getByRole('combobox', { name: 'Kind' }), 'gatherer');
    expect(screen.getByText(/Nothing that runs has these words/)).toBeTruthy();
  });

  test('shows the roll of the newest run, whose figures open what they count, but for what is gone', async () => {
    const { user, asked } = show(<Runs />, ANSWERS, '/runs');
    const roll = await screen.findByRole('complementary', { name: 'Targets' });
    expect(await within(roll).findByLabelText('companies now: 12')).toBeTruthy();
    expect(within(roll).queryByRole('button', { name: '−1' })).toBeNull();
    await user.click(within(roll).getByRole('button', { name: '+2' }));
    await waitFor(() =>
      expect(asked.some(({ path }) => path === '/runs/r2/tape?what=joined&reason=line%20l2')).toBe(true),
    );
  });

  test('puts old and new values side by side, and those who joined on a list that can be taken back', async () => {
    const { user, sent, asked } = show(
      <Runs />,
      {
        ...ANSWERS,
        'POST /runs/r2/list': { list: { key: 'l9', name: 'Targets, joined', members: 3 } },
        'DELETE /lists/l9': null,
      },
      '/runs',
    );
    const sheet = await screen.findByRole('table', { name: 'What changed' });
    const row = (await within(sheet).findAllByRole('row', { name: /Firm a/ }))[0]!;
    expect(
      within(row)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent),
    ).toEqual([...['', 'Firm a Hranice, CZ', 'Headcount 20 to 249', '19', '22']]);
    await user.click(within(sheet).getByRole('button', { name: /^is, / }));
    await waitFor(() =>
      expect(
        asked.some(({ path }) => path.endsWith('changes?what=joined&limit=8&sort=now&descending=true')),
      ).toBe(true),
    );
    await user.click(screen.getByRole('button', { name: /The 3 to a list/ }));
    await waitFor(() =>
      expect(sent('POST /runs/r2/list')).toEqual([{ what: 'joined', name: 'Targets, joined 2026-10-31' }]),
    );
    await undo();
    expect(asked.some(({ method, path }) => method === 'DELETE' && path === '/lists/l9')).toBe(true);
  });

  test('any earlier run is set beside', async () => {
    const compared = {
      run: runView('r2', { joined: 1, left: 0, moved: 0 }),
      changes: [changeRow('z')],
      total: 1,
    };
    const { user, sent } = show(<Runs />, { ...ANSWERS, 'POST /runs/compare': compared }, '/runs');
    await screen.findByRole('table', { name: 'What changed' });
    const beside = screen.getByRole('combobox', { name: /beside/ });
    expect(within(beside).getAllByRole('option')).toHaveLength(1);
    // The run before is what is shown; with three runs the first could be chosen.
    expect(sent('POST /runs/compare')).toEqual([]);
    await user.keyboard('k');
    await waitFor(() => expect(screen.getByText(/The first run: from the next one on/)).toBeTruthy());
  });

  test('runs now, and is taken away with a way back', async () => {
    const { user, sent, asked } = show(
      <Runs />,
      {
        ...ANSWERS,
        'POST /plans/targets/run': { run: runView('r3', { state: 'waits' }) },
        'DELETE /plans/targets': null,
        'POST /plans/targets/restore': {},
      },
      '/runs',
    );
    await screen.findByRole('complementary', { name: 'Targets' });
    await user.click(await screen.findByRole('button', { name: /Run now/ }));
    await waitFor(() => expect(sent('POST /plans/targets/run')).toHaveLength(1));
    await user.keyboard('{Delete}');
    await waitFor(() =>
      expect(asked.some(({ method, path }) => method === 'DELETE' && path === '/plans/targets')).toBe(true),
    );
    await undo();
    expect(sent('POST /plans/targets/restore')).toHaveLength(1);
  });
});

test('what ran without a plan stands beside what ran by one', async () => {
  const { user } = show(<Runs />, ANSWERS, '/runs?tab=past');
  const table = await screen.findByRole('table', { name: 'What ran' });
  expect(
    within(table)
      .getAllByRole('row')
      .slice(1)
      .map((row) => row.querySelector('td')!.textContent),
  ).toEqual([...['Targets', 'Load firms.csv', 'Broken']]);
  expect(within(table).getByText('The tape is gone')).toBeTruthy();
  await user.selectOptions(screen.getByRole('combobox', { name: 'Kind' }), 'match');
  expect(screen.getByText(/Nothing of that name or kind ran/)).toBeTruthy();
});

test('of searches that are asked again it shows what the run before had not found, and keeps that apart', async () => {
  const clusters = planView('clusters', { name: 'Clusters', kind: 'batch', target: { into: 'one-list' } });
  const run = runView('r9', {
    ...{ plan: 'clusters', count: 15, before: 14, joined: 3, left: 2, moves: [], asOf: null },
    roll: {
      steps: [
        { step: 'joined search 0', label: 'nace 16.23', note: '15 found', delta: 15, total: 15 },
        { step: 'joined search 1', label: 'nace 25.61', note: '0 found', delta: 0, total: 15 },
      ],
      foot: 15,
    },
  });
  const { user, asked, sent } = show(
    <Runs />,
    {
      'GET /runs': { plans: [{ ...clusters, last: run }], past: [], month: null },
      'GET /plans/clusters': { plan: clusters, runs: [run] },
      'GET /runs/r9/searches': { searches: [] },
      'GET /runs/r9/tape': { tape: null, why: 'Too many.' },
      'POST /runs/r9/list': { list: { key: 'new', name: 'Clusters, new', members: 3 } },
    },
    '/runs',
  );
  const roll = await screen.findByRole('complementary', { name: 'Clusters' });
  expect(await within(roll).findByText('+1 since the run before')).toBeTruthy();
  // A search that found nobody takes nobody away.
  expect(within(roll).queryByText('−')).toBeNull();
  expect(within(roll).getByText('not found at the run before').textContent).toContain('3');
  await user.click(within(within(roll).getByText('found then, and not now')).getByRole('button'));
  await waitFor(() => expect(asked.some(({ path }) => path === '/runs/r9/tape?what=left')).toBe(true));
  await user.click(within(roll).getByRole('button', { name: /^The 3 to a list/ }));
  await waitFor(() =>
    expect(sent('POST /runs/r9/list')).toEqual([{ what: 'new', name: 'Clusters, new 2026-11-02' }]),
  );
});

test('with nothing planned it says what to do', async () => {
  show(<Runs />, { 'GET /runs': { plans: [], past: [], month: null } }, '/runs');
  expect(await screen.findByText(/Nothing runs yet. “New run” lets/)).toBeTruthy();
  expect(screen.queryByRole('button', { name: /Next month/ })).toBeNull();
});

test('spans, days and money are said shortly', () => {
  expect([null, 40, 59_000, 41 * 60_000, 185 * 60_000].map(tookWords)).toEqual([
    ...['–', '0.0 s', '59.0 s', '41 min', '3 h 5 min'],
  ]);
  expect(shortMoney('224000000 HUF (2025)')).toBe('224m HUF');
  expect(shortMoney('about 1500 EUR (2025)')).toBe('≈1.5k EUR');
  expect([shortMoney(null), shortMoney('active')]).toEqual(['–', 'active']);
  const at = new Date(2026, 10, 2, 7, 5).toISOString();
  expect([dayHere(at), timeWords(at)]).toEqual(['2026-11-02', '7:05']);
});
