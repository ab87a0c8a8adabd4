/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import { gatherRun } from '../testing/gather.ts';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import { job } from '../testing/sources.tsx';
import { DeliverDialog, nameOf, useDeliver } from './DeliverDialog.tsx';
import { useEffect } from 'react';

beforeEach(freshDesk);

const run = gatherRun();

/** The dialog as the place opens it: what is asked for is under way. */
function Delivering({ to }: { to: 'source' | 'list' | 'more' }) {
  const deliver = useDeliver(run.id);
  const { mutate } = deliver;
  useEffect(() => {
    if (to !== 'more') mutate({ to, name: nameOf(run) });
  }, [to, mutate]);
  return <DeliverDialog run={run} to={to} deliver={deliver} onClose={() => {}} />;
}
const opened = (to: 'source' | 'list' | 'more', answers: Answers) => show(<Delivering to={to} />, answers);
const DELIVER = `POST /gather/runs/${run.id}/deliver`;

test('later runs of a gatherer are told apart by name', () => {
  expect(nameOf({ ...run, name: 'Guide', nth: 1 })).toBe('Guide');
  expect(nameOf({ ...run, name: 'Guide', nth: 3 })).toBe('Guide, run 3');
  expect(nameOf({ ...run, name: 'G'.repeat(200), nth: 2 })).toHaveLength(120);
});

describe('records of a run', () => {
  test('become a source in one act, which is shown as it runs and leads there', async () => {
    const { sent } = opened('source', {
      [DELIVER]: { job: 'j1', message: null, upload: null },
      'GET /jobs/j1': { job: job('j1', { state: 'done' }), refusals: false },
    });
    const link = await screen.findByRole('link', { name: 'See it under Sources' });
    expect(link.getAttribute('href')).toBe('/sources');
    expect(sent(DELIVER)).toEqual([{ to: 'source', name: nameOf(run) }]);
  });

  test('that were refused are asked for again under another name, and nothing typed is lost', async () => {
    let refused = true;
    const { user, sent } = opened('list', {
      [DELIVER]: () =>
        refused ? new Error('There is a list of that name.') : { job: 'j1', message: null, upload: null },
      'GET /jobs/j1': { job: job('j1', { state: 'done' }), refusals: false },
    });
    expect((await screen.findByRole('alert')).textContent).toContain('There is a list of that name.');
    const name = screen.getByLabelText<HTMLInputElement>('Name of the list');
    expect(name.value).toBe(nameOf(run));
    await user.clear(name);
    await user.type(name, 'Found in October');
    refused = false;
    await user.click(screen.getByRole('button', { name: 'Match them' }));
    expect(await screen.findByRole('link', { name: 'See it under Lists' })).toBeTruthy();
    expect(sent(DELIVER).at(-1)).toEqual({ to: 'list', name: 'Found in October' });
    expect(screen.getByText('Found in October')).toBeTruthy();
  });

  test('that no job can load are offered as a file, with why', async () => {
    opened('source', { [DELIVER]: { job: null, message: 'The columns are not understood.', upload: 'u1' } });
    expect(await screen.findByText(/The columns are not understood/)).toBeTruthy();
    const csv = screen.getByRole('link', { name: 'as CSV' });
    expect(csv.getAttribute('href')).toBe(`/api/gather/runs/${run.id}/file?format=csv`);
  });

  test('go out as files, and to a webhook by name', async () => {
    const { user, sent } = opened('more', {
      'GET /programs': { hooks: [{ id: 'h1', name: 'Our CRM feed' }] },
      [DELIVER]: { job: null, message: '60 records wait for Our CRM feed', upload: null },
    });
    expect(screen.getAllByRole('link').map((link) => link.textContent)).toEqual([
      'CSV',
      'XLSX',
      'JSON Lines',
    ]);
    await user.click(await screen.findByRole('button', { name: 'Our CRM feed' }));
    expect((await screen.findByRole('status')).textContent).toBe('60 records wait for Our CRM feed');
    expect(sent(DELIVER)).toEqual([{ to: 'webhook', name: 'h1' }]);
  });

  test('without any webhook it is said where one is made', async () => {
    opened('more', { 'GET /programs': { hooks: [] } });
    await waitFor(() => expect(screen.getByText(/There is none yet/)).toBeTruthy());
  });
});
