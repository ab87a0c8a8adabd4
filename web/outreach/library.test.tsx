/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { ProofView, TemplateView } from '../../contract/outreach-views.ts';
import { redo, undo } from '../app/history.ts';
import { anOutreach } from '../testing/outreach.ts';
import { freshDesk, settled, show, type Answers } from '../testing/render.tsx';
import { ProofDialog } from './ProofDialog.tsx';
import { TemplatesDialog } from './TemplatesDialog.tsx';

/** What messages are made of: templates and proofs, each kept, changed, removed and had back. */

beforeEach(freshDesk);

const said = {
  name: 'First letter',
  language: 'en',
  subject: 'Air at {company}',
  body: 'Dear {name}, hello',
};
const first: TemplateView = { id: 't1', ...said };
const german: TemplateView = {
  id: 't2',
  name: 'First letter',
  language: 'de',
  subject: 'Luft',
  body: 'Guten Tag',
};
const value = (label: string | RegExp) => screen.getByLabelText<HTMLInputElement>(label).value;
const keep = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Keep' });

describe('templates', () => {
  const opened = (templates: TemplateView[], answers: Answers = {}) =>
    show(<TemplatesDialog outreach={anOutreach({ templates })} onClose={() => {}} />, {
      'GET /outreach': anOutreach(),
      ...answers,
    });
  test('open with the first, one is chosen, and a field is put where the hand is', async () => {
    const { user } = opened([first, german]);
    expect([value('Name'), value('Language'), value('Subject')]).toEqual([
      'First letter',
      'en',
      'Air at {company}',
    ]);
    await user.click(screen.getByRole('button', { name: 'First letter de' }));
    const text = screen.getByLabelText<HTMLTextAreaElement>('Text');
    expect(text.value).toBe('Guten Tag');
    text.setSelectionRange(6, 9);
    await user.click(screen.getByRole('button', { name: '{company}' }));
    expect(value('Text')).toBe('Guten {company}');
    // Counted as typed.
    expect(screen.getByText(/words as it stands/).textContent).toMatch(/back\. 2 words/);
  });
  test('a new one needs a name and a text; taken back it goes, done again it is there by its new number', async () => {
    let made = 0;
    const { user, sent, asked } = opened([], {
      'POST /outreach/templates': (body: object) => ({ template: { ...body, id: `n${++made}` } }),
      'DELETE /outreach/templates/n1': {},
      'DELETE /outreach/templates/n2': {},
    });
    expect(keep().disabled).toBe(true);
    await user.type(screen.getByLabelText('Name'), ' Short note ');
    await user.clear(screen.getByLabelText('Language'));
    await user.type(screen.getByLabelText('Language'), 'CS');
    await user.clear(screen.getByLabelText('Text'));
    expect(keep().disabled).toBe(true);
    await user.type(screen.getByLabelText('Text'), 'Dobry den');
    await user.click(keep());
    const wish = { name: 'Short note', language: 'cs', subject: '', body: 'Dobry den' };
    await waitFor(() => expect(sent('POST /outreach/templates')).toEqual([wish]));
    await settled(undo);
    await settled(redo);
    await settled(undo);
    const changes = asked
      .filter(({ method }) => method !== 'GET')
      .map(({ method, path }) => `${method} ${path}`);
    expect(changes).toEqual([
      'POST /outreach/templates',
      'DELETE /outreach/templates/n1',
      'POST /outreach/templates',
      'DELETE /outreach/templates/n2',
    ]);
  });
  test('a change is taken back to what was there; what is refused stays typed', async () => {
    let refused = true;
    const { user, sent } = opened([first], {
      'PUT /outreach/templates/t1': (body: object) =>
        refused ? new Error('language must be two small letters.') : { template: { id: 't1', ...body } },
    });
    await user.type(screen.getByLabelText('Subject'), ' again');
    await user.click(keep());
    expect((await screen.findByRole('alert')).textContent).toMatch(/two small letters/);
    expect(value('Subject')).toBe('Air at {company} again');
    refused = false;
    await user.click(keep());
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
    await settled(undo);
    expect(sent('PUT /outreach/templates/t1').slice(1)).toEqual([
      { ...said, subject: 'Air at {company} again' },
      said,
    ]);
  });
  test('a removed one gives way to another, and is had back', async () => {
    const { user, sent } = opened([first, german], {
      'DELETE /outreach/templates/t1': {},
      'POST /outreach/templates': (body: object) => ({ template: { ...body, id: 't9' } }),
    });
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(value('Language')).toBe('de'));
    await settled(undo);
    expect(sent('POST /outreach/templates')).toEqual([said]);
  });
});

describe('a proof', () => {
  const fact = { text: 'Solvent in the air down by 71 %', source: 'own measurement', since: '2025-05-01' };
  const proof: ProofView = {
    ...{ id: 'p1', ...fact, industries: ['16', '25.51'], technologies: ['rutavel'] },
    ...{ from: 10, to: null, named: 4, answered: 1 },
  };
  const opened = (one: ProofView | null, answers: Answers = {}) => {
    let closed = 0;
    const shown = show(<ProofDialog proof={one} onClose={() => closed++} />, {
      'GET /outreach': anOutreach(),
      ...answers,
    });
    return { ...shown, closed: () => closed };
  };
  test('is kept with whom it fits, however codes are parted, and taken back', async () => {
    const { user, sent, asked, closed } = opened(null, {
      'POST /outreach/proofs': (body: object) => ({ proof: { ...body, id: 'p7' } }),
      'DELETE /outreach/proofs/p7': {},
    });
    const dialog = within(screen.getByRole('dialog', { name: 'New proof' }));
    expect(keep().disabled).toBe(true);
    await user.type(dialog.getByLabelText('Fact'), ' Half the dust. ');
    await user.type(dialog.getByLabelText('Industries'), '16; 25.51 31');
    await user.type(dialog.getByLabelText('People to'), '49');
    await user.click(keep());
    await waitFor(() => expect(closed()).toBe(1));
    expect(sent('POST /outreach/proofs')).toEqual([
      {
        ...{ text: 'Half the dust.', industries: ['16', '25.51', '31'], technologies: [] },
        ...{ from: null, to: 49, source: '', since: null },
      },
    ]);
    await settled(undo);
    expect(asked.some(({ method, path }) => method === 'DELETE' && path === '/outreach/proofs/p7')).toBe(
      true,
    );
  });
  test('is changed, and by undo what it was, without what came of naming it', async () => {
    const { user, sent, closed } = opened(proof, { 'PUT /outreach/proofs/p1': {} });
    expect([value('Industries'), value('People from'), value('People to'), value('Since')]).toEqual([
      '16, 25.51',
      '10',
      '',
      '2025-05-01',
    ]);
    await user.clear(screen.getByLabelText('Technologies'));
    await user.click(keep());
    await waitFor(() => expect(closed()).toBe(1));
    await settled(undo);
    const { id: _, named: _named, answered: _answered, ...before } = proof;
    expect(sent('PUT /outreach/proofs/p1')).toEqual([{ ...before, technologies: [] }, before]);
  });
  test('is removed and had back; what fails is said, and nothing closes', async () => {
    let fails = true;
    const { user, sent, closed } = opened(proof, {
      'DELETE /outreach/proofs/p1': () => (fails ? new Error('It is named in a message that waits.') : {}),
      'POST /outreach/proofs': (body: object) => ({ proof: { ...body, id: 'p8' } }),
    });
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/named in a message/);
    expect(closed()).toBe(0);
    fails = false;
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(closed()).toBe(1));
    await settled(undo);
    expect(sent('POST /outreach/proofs')).toHaveLength(1);
  });
});
