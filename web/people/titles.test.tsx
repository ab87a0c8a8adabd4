/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { PersonAboutAnswer, TitleView } from '../../contract/people.ts';
import { undo } from '../app/history.ts';
import { CompanyFacts, PersonAbout } from '../profile/PersonAbout.tsx';
import { freshDesk, settled, show } from '../testing/render.tsx';
import { Titles } from './Titles.tsx';

beforeEach(freshDesk);

const own = { department: 'production', level: 'head', person: 'Ilona', at: '2026-09-30T10:00:00.000Z' };
const title = (more: Partial<TitleView> = {}): TitleView => ({
  ...{ title: 'Obermeister', department: null, level: 'head', people: 12, readings: 1, own: null },
  ...more,
});
const job = { id: 'j1', state: 'done', kind: 'titles', title: '', message: null };
const reading = {
  'POST /people/titles': { job },
  'GET /jobs/j1': { job, refusals: false },
};

describe('how titles are read', () => {
  test('is put right for everybody who has one, and taken back', async () => {
    const { user, sent } = show(<Titles />, {
      ...reading,
      'GET /people/titles': { titles: [title()], total: 1 },
    });
    await user.selectOptions(await screen.findByLabelText('Department of “Obermeister”'), 'production');
    await waitFor(() =>
      expect(sent('POST /people/titles')).toEqual([
        { title: 'Obermeister', department: 'production', level: 'head' },
      ]),
    );
    await settled(undo);
    // Nothing was said of it before: it is read as it was loaded.
    expect(sent('POST /people/titles')[1]).toEqual({ title: 'Obermeister' });
  });

  test('says who read it so, and where sources say otherwise', async () => {
    const { user, sent } = show(<Titles />, {
      ...reading,
      'GET /people/titles': {
        titles: [title({ own }), title({ title: 'Clerk', readings: 3 })],
        total: 700,
      },
    });
    const mine = within(await screen.findByRole('row', { name: /^Obermeister/ }));
    expect(mine.getByText(/^Ilona, /)).toBeTruthy();
    expect(
      within(screen.getByRole('row', { name: /^Clerk/ })).getByText(/sources say otherwise/),
    ).toBeTruthy();
    expect(screen.getByText(/find the others by their words/).textContent).toContain('700');
    await user.click(mine.getByRole('button', { name: 'As before' }));
    await waitFor(() => expect(sent('POST /people/titles')).toEqual([{ title: 'Obermeister' }]));
    await settled(undo);
    expect(sent('POST /people/titles')[1]).toEqual({
      title: 'Obermeister',
      department: 'production',
      level: 'head',
    });
  });

  test('is found by words, and sorted by the server', async () => {
    const { user, asked } = show(<Titles />, { 'GET /people/titles': { titles: [title()], total: 1 } });
    await user.type(await screen.findByLabelText('Find a title'), 'ober');
    await waitFor(() => expect(asked.at(-1)!.path).toContain('text=ober'));
    await user.click(screen.getByRole('button', { name: 'Level' }));
    await waitFor(() => expect(asked.at(-1)!.path).toContain('by=level&descending=no'));
  });

  test('without any there is a word on it', async () => {
    show(<Titles />, { 'GET /people/titles': { titles: [], total: 0 } });
    expect(await screen.findByText('Nobody here has a title yet.')).toBeTruthy();
  });
});

describe('the page of a person', () => {
  const about = (more: Partial<PersonAboutAnswer> = {}) => ({
    'GET /people/person-1/about': { happenings: [], known: [], reading: null, ...more },
  });
  const page = <PersonAbout person="person-1" title="Obermeister" department={null} level="head" />;

  test('says what happened, whom we know there, and how the title is read', async () => {
    show(
      page,
      about({
        happenings: [
          { on: '2026-09-02', what: 'Moved from Alder Works to Birch Coatings', kind: null },
          { on: '2026-09-01', what: 'Iva Test leaves', kind: 'departure' },
        ],
        known: [
          { name: 'Iva Test', title: null, book: 'contacts.csv', same: true },
          { name: 'Oto Other', title: 'Buyer', book: 'contacts.csv', same: false },
        ],
        reading: own,
      }),
    );
    expect(await screen.findByText('Moved from Alder Works to Birch Coatings')).toBeTruthy();
    expect(screen.getByText('departure')).toBeTruthy();
    expect(screen.getByText('Iva Test, whom we know ourselves')).toBeTruthy();
    expect(screen.getByText(/^Chosen here by Ilona on/)).toBeTruthy();
  });

  test('says where nothing is known', async () => {
    show(page, about());
    expect(await screen.findByText('nothing recorded')).toBeTruthy();
    expect(screen.getByText('nobody')).toBeTruthy();
    expect(screen.getByText(/^As the source says/)).toBeTruthy();
  });

  test('has of the company what matters', async () => {
    const { sent } = show(<CompanyFacts company="cz-1" />, {
      'POST /rows': {
        total: 1,
        rows: [{ key: 'cz-1', cells: { status: 'active', technology: ['Rutavel'], web: null } }],
      },
    });
    expect(await screen.findByText('active')).toBeTruthy();
    expect(sent('POST /rows')[0]).toMatchObject({ keys: ['cz-1'], limit: 1 });
  });
});
