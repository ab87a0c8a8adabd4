/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { emptyTape } from '../../core/tape/nodes.ts';
import { spellFunctions, type PersonFunction } from '../../core/people/functions.ts';
import { undo } from '../app/history.ts';
import { NO_PICKS } from '../desk/picks.ts';
import { aCampaign, anOutreach } from '../testing/outreach.ts';
import { freshDesk, settled, show } from '../testing/render.tsx';
import { askedFunctions, FunctionsEditor } from '../people/FunctionsEditor.tsx';
import { WriteToDialog } from './WriteToDialog.tsx';

beforeEach(freshDesk);

const acted = (subject: string) => ({
  tape: { ...emptyTape(subject), name: 'Joineries' },
  ...{ sort: [], picks: NO_PICKS, one: false, count: 12, gone: 0, total: 12 },
});
const answers = {
  'GET /outreach': anOutreach(),
  'POST /campaigns': aCampaign(),
  'POST /campaigns/c1/people': { added: 2, after: 7, without: ['cz-3'], ...aCampaign() },
  'DELETE /campaigns/c1/people': { removed: 2, ...aCampaign() },
  'DELETE /campaigns/c1': {},
};

test('companies are written to at the right person, the choice of whom is remembered', async () => {
  const { user, sent } = show(<WriteToDialog acted={acted('companies')} onClose={() => {}} />, answers);
  await user.selectOptions(await screen.findByLabelText('Department 3'), 'sales');
  await user.type(screen.getByLabelText('Words of the title 1'), 'works, plant');
  await user.click(screen.getByRole('button', { name: 'Make the drafts' }));
  await waitFor(() =>
    expect(sent('POST /campaigns')).toMatchObject([
      {
        name: 'Joineries',
        functions: [
          { department: 'production', levels: ['head'], title: ['works', 'plant'] },
          { department: 'production', levels: ['director'] },
          { department: 'sales', levels: ['owner'] },
        ],
      },
    ]),
  );
  await settled(undo);
  expect(sent('DELETE /campaigns/c1')).toHaveLength(1);
  freshDesk();
});

test('people are written to themselves, in a new campaign or one there is', async () => {
  const { user, sent } = show(<WriteToDialog acted={acted('people')} onClose={() => {}} />, answers);
  expect(screen.queryByLabelText('Department 1')).toBeNull();
  await screen.findByRole('option', { name: 'Autumn' });
  await user.selectOptions(screen.getByLabelText('Campaign'), 'Autumn');
  await user.click(screen.getByRole('button', { name: 'Make the drafts' }));
  await waitFor(() => expect(sent('POST /campaigns/c1/people')).toHaveLength(1));
  expect(sent('POST /campaigns/c1/people')[0]).not.toHaveProperty('functions');
  await settled(undo);
  expect(sent('DELETE /campaigns/c1/people')).toEqual([{ after: 7, added: 2, without: ['cz-3'] }]);
  freshDesk();
});

test('of people, too, one a company is written to where that is asked for', async () => {
  const { user, sent } = show(<WriteToDialog acted={acted('people')} onClose={() => {}} />, answers);
  await screen.findByRole('option', { name: 'Autumn' });
  await user.click(screen.getByRole('radio', { name: 'one a company' }));
  await user.click(screen.getByRole('button', { name: 'Make the drafts' }));
  await waitFor(() =>
    expect(sent('POST /campaigns')).toMatchObject([{ functions: [{ department: 'production' }, {}, {}] }]),
  );
});

test('without a template there is none to draft from', async () => {
  show(<WriteToDialog acted={acted('people')} onClose={() => {}} />, {
    'GET /outreach': anOutreach({ templates: [] }),
  });
  expect(await screen.findByText(/There is no template yet/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Make the drafts' }).disabled).toBe(true);
});

test('functions are put in their order, and said in words', async () => {
  let now: readonly PersonFunction[] = [];
  function Edited() {
    const [functions, setFunctions] = useState<PersonFunction[]>([
      { department: 'production' },
      { levels: ['owner'] },
    ]);
    now = functions;
    return <FunctionsEditor functions={functions} onChange={setFunctions} />;
  }
  const { user } = show(<Edited />);
  await user.click(screen.getByRole('button', { name: 'Before the one above, 2' }));
  expect(now).toEqual([{ levels: ['owner'] }, { department: 'production' }]);
  await user.click(screen.getByRole('button', { name: 'or else …' }));
  await user.type(screen.getByLabelText('Words of the title 3'), 'plant, ');
  expect(spellFunctions(askedFunctions(now))).toBe('owner, else production, else "plant"');
  await user.click(screen.getByRole('button', { name: 'Without function 1' }));
  expect(askedFunctions(now)).toEqual([{ department: 'production' }, { title: ['plant'] }]);
});
