/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { undo } from '../app/history.ts';
import { aCampaign, aMessage, anAddressee, anOutreach, aReply, aWriting } from '../testing/outreach.ts';
import { freshDesk, settled, show, type Answers } from '../testing/render.tsx';
import { Outreach } from './Outreach.tsx';

beforeEach(freshDesk);

const people = [
  anAddressee(),
  anAddressee({
    person: 'person-2',
    name: 'Petr Hladina',
    companyName: 'Birch',
    certainty: 97,
    address: 'recorded',
  }),
  anAddressee({ person: 'person-3', name: 'Anna Kos', certainty: 41, address: 'guess', step: 'uncertain' }),
];
const counts = { answered: 1, 'out-of-office': 1, bounced: 0, 'opted-out': 0 };
const answers: Answers = {
  'GET /outreach': anOutreach(),
  'GET /campaigns/c1': aCampaign(),
  'GET /campaigns/c1/people': { total: 3, people },
  'GET /campaigns/c1/messages/person-1': aWriting(),
  'GET /campaigns/c1/messages/person-2': aWriting({
    message: aMessage({ id: 8, person: 'person-2', name: 'Petr Hladina', seen: false }),
  }),
  'GET /memberships/people/person-1': { memberships: [] },
  'GET /memberships/people/person-2': { memberships: [] },
  'PUT /campaigns/c1/messages/person-1': ({ proof, body }: { proof?: string; body?: string }) => ({
    message: aMessage({ version: 4, ...(proof ? { proof } : {}), ...(body ? { body, edited: true } : {}) }),
  }),
  'POST /campaigns/c1/seen': {},
  'POST /campaigns/c1/left-out': { changed: 1, ...aCampaign() },
  'PATCH /campaigns/c1': aCampaign(),
  'POST /campaigns/c1/outbox': { put: [7], campaign: aCampaign() },
  'POST /outreach/outbox/cancel': { taken: [7], state: anOutreach().outbox, messages: [] },
  'GET /outreach/outbox': {
    state: { ...anOutreach().outbox, waiting: 1 },
    messages: [aMessage({ state: 'outbox' })],
  },
  'POST /outreach/outbox/pause': { state: anOutreach().outbox, messages: [] },
  'GET /outreach/replies': {
    total: 2,
    counts,
    replies: [aReply(), aReply({ id: 2, kind: 'out-of-office', backOn: '2026-12-14', body: 'I am away.' })],
  },
  'PATCH /outreach/replies/1': { reply: aReply({ done: true }) },
  'GET /outreach/figures': {
    by: 'template',
    figures: [
      {
        key: 'Short',
        label: 'Short',
        sent: 20,
        answered: 4,
        meetings: 1,
        share: { share: 0.2, low: 0.08, high: 0.42 },
      },
    ],
  },
  'PUT /outreach/settings': { settings: anOutreach().settings, outbox: anOutreach().outbox },
  'POST /outreach/proofs': { proof: anOutreach().proofs[0] },
  'PUT /outreach/templates/t1': { template: anOutreach().templates[0] },
};
async function open(part = 'People', more: Answers = {}) {
  const shown = show(<Outreach />, { ...answers, ...more });
  await shown.user.click(await screen.findByRole('button', { name: 'Autumn' }));
  await screen.findByRole('heading', { name: 'Autumn' });
  if (part !== 'People') await shown.user.click(screen.getByRole('button', { name: new RegExp(`^${part}`) }));
  return shown;
}
const key = (name: string, more: object = {}) =>
  settled(() => fireEvent.keyDown(document.body, { key: name, ...more }));

test('without a campaign the paper says how the day goes; without any there is a word on how to begin', async () => {
  show(<Outreach />, answers);
  expect(await screen.findByLabelText('can go out today: 37')).toBeTruthy();
  freshDesk();
  show(<Outreach />, { ...answers, 'GET /outreach': anOutreach({ campaigns: [] }) });
  expect(await screen.findByText(/Nobody is written to yet/)).toBeTruthy();
});

describe('people', () => {
  test('say how they stand; a figure of the roll opens those of its step', async () => {
    const { asked, user } = await open();
    const row = (await screen.findByText('Anna Kos')).closest('tr')!;
    expect(within(row).getByText('address too unsure')).toBeTruthy();
    expect(row.textContent).toContain('guess 41 %');
    await user.click(screen.getByRole('button', { name: '−1' }));
    await waitFor(() => expect(asked.at(-1)!.path).toContain('step=uncertain'));
    expect(screen.getByText('Address below 80 %')).toBeTruthy();
  });
  test('are left out by a key, one or those picked, and taken in again by undo', async () => {
    const { sent } = await open();
    await screen.findByText('Anna Kos');
    await key('j');
    await key(' ');
    await key('0');
    await waitFor(() =>
      expect(sent('POST /campaigns/c1/left-out')).toEqual([{ people: ['person-2'], leftOut: true }]),
    );
    await settled(undo);
    expect(sent('POST /campaigns/c1/left-out').at(-1)).toEqual({ people: ['person-2'], leftOut: false });
  });
  test('have their mail hosts asked: those picked, or all', async () => {
    const { sent, user } = await open('People', {
      'POST /campaigns/c1/check': { job: { id: 'j1' } },
      'GET /jobs/j1': {
        refusals: false,
        job: {
          ...{ id: 'j1', kind: 'check', title: 'Ask', state: 'done', done: 1, total: 1, message: null },
          ...{
            result: { asked: 1, accepts: 1, refuses: 0 },
            startedAt: '2026-10-01T08:00:00Z',
            endedAt: null,
          },
        },
      },
    });
    await user.click(await screen.findByRole('checkbox', { name: 'Pick Anna Kos' }));
    await user.click(screen.getByRole('button', { name: 'Ask their mail hosts' }));
    await waitFor(() => expect(sent('POST /campaigns/c1/check')).toEqual([{ people: ['person-3'] }]));
    expect(await screen.findByRole('button', { name: 'Ask their mail hosts' })).toBeTruthy();
  });
  test('what a campaign asks is typed over on the roll', async () => {
    const { sent, user } = await open();
    const box = await screen.findByLabelText('Least certainty of an address, in percent');
    await user.clear(box);
    await user.type(box, '101{Enter}');
    expect((box as HTMLInputElement).value).toBe('80');
    await user.clear(box);
    await user.type(box, '90{Enter}');
    await waitFor(() => expect(sent('PATCH /campaigns/c1')).toEqual([{ certainty: 90 }]));
    await settled(undo);
    expect(sent('PATCH /campaigns/c1').at(-1)).toEqual({ certainty: 80 });
  });
});

describe('messages', () => {
  test('stand beside what we know, with what sets them off marked', async () => {
    await open('Messages');
    const facts = await screen.findByRole('region', { name: 'What we know' });
    expect(facts.textContent).toContain('first, 7 of 7 known there');
    expect(facts.textContent).toContain('before: Planner, Tissovec Okna');
    expect(facts.textContent).toContain('Petr Hladina, Buyer');
    expect(within(facts).getByTitle('What sets the message off').textContent).toContain('Second spray line');
    expect(screen.getByText('36 to spare')).toBeTruthy();
  });
  test('are gone through by j and k, and each that is opened counts as looked at', async () => {
    const { sent } = await open('Messages');
    await screen.findByRole('region', { name: 'Message to Monika Planik' });
    await key('j');
    await screen.findByRole('region', { name: 'Message to Petr Hladina' });
    await waitFor(() => expect(sent('POST /campaigns/c1/seen')).toEqual([{ people: ['person-2'] }]));
    await key('k');
    await screen.findByRole('region', { name: 'Message to Monika Planik' });
  });
  test('take a proof by its digit', async () => {
    const { sent } = await open('Messages');
    await screen.findByRole('region', { name: 'Message to Monika Planik' });
    await key('1');
    await waitFor(() => expect(sent('PUT /campaigns/c1/messages/person-1')).toEqual([{ proof: 'wood' }]));
  });
  test('keep what is typed before they go out, and say when it is too long', async () => {
    const { sent, asked, user } = await open('Messages', {
      'GET /campaigns/c1': aCampaign({ campaign: { ...aCampaign().campaign, words: 5 } }),
    });
    const box = await screen.findByLabelText('Text of the message');
    await user.type(box, ' Shall we look at {{when}?');
    expect(screen.getByText('4 too many')).toBeTruthy();
    expect(screen.getByText(/Nothing is known for \{when\}/)).toBeTruthy();
    await settled(() => fireEvent.keyDown(box, { key: 'Enter', ctrlKey: true }));
    await waitFor(() => expect(sent('POST /campaigns/c1/outbox')).toEqual([{}]));
    expect(sent('PUT /campaigns/c1/messages/person-1')).toEqual([
      { body: 'Dear Monika, clean air. Shall we look at {when}?' },
    ]);
    const order = asked.map(({ method, path }) => `${method} ${path}`);
    expect(order.indexOf('PUT /campaigns/c1/messages/person-1')).toBeLessThan(
      order.indexOf('POST /campaigns/c1/outbox'),
    );
    await settled(undo);
    expect(sent('POST /outreach/outbox/cancel')).toEqual([{ messages: [7] }]);
  });
  test('that another window changed keep what was typed here, and say so', async () => {
    const { user } = await open('Messages', {
      'PUT /campaigns/c1/messages/person-1': Object.assign(new Error('It was changed in another window.'), {
        code: 'changed-meanwhile',
      }),
    });
    const box = await screen.findByLabelText('Text of the message');
    await user.type(box, ' More.');
    await settled(() => fireEvent.blur(box));
    expect((box as HTMLTextAreaElement).value).toBe('Dear Monika, clean air. More.');
  });
  test('on their way are read, not written', async () => {
    await open('Messages', {
      'GET /campaigns/c1/messages/person-1': aWriting({
        message: aMessage({ state: 'sent', sentAt: '2026-10-02T08:00:00Z' }),
      }),
    });
    const box = await screen.findByLabelText('Text of the message');
    expect((box as HTMLTextAreaElement).readOnly).toBe(true);
    expect(screen.getByText(/^sent, 2 Oct 2026/)).toBeTruthy();
  });
});

describe('outbox, replies and figures', () => {
  test('what waits can be taken back, one or all, and the outbox stopped', async () => {
    const { sent, user } = await open('Outbox');
    await user.click(await screen.findByRole('button', { name: 'Take back the message to Monika Planik' }));
    expect(sent('POST /outreach/outbox/cancel')).toEqual([{ messages: [7] }]);
    await user.click(screen.getByRole('button', { name: 'Stop' }));
    expect(sent('POST /outreach/outbox/pause')).toEqual([{ paused: true }]);
    await settled(undo);
    expect(sent('POST /outreach/outbox/pause').at(-1)).toEqual({ paused: false });
  });
  test('replies say what they are and what they answer, and are marked by keys', async () => {
    const { sent } = await open('Replies');
    const reply = await screen.findByRole('article', { name: 'Reply of Monika Planik' });
    expect(within(reply).getByText('Come on Thursday.')).toBeTruthy();
    expect(within(reply).getByRole('region', { name: 'What it answers' }).textContent).toContain(
      'Autumn, 2 Oct 2026, by Ilona',
    );
    await key('d');
    await waitFor(() => expect(sent('PATCH /outreach/replies/1')).toEqual([{ done: true }]));
    await key('v');
    await waitFor(() => expect(sent('PATCH /outreach/replies/1').at(-1)).toEqual({ meeting: true }));
    await key('j');
    expect(await screen.findByText('back on 14 Dec 2026')).toBeTruthy();
  });
  test('figures say their interval, and that few are few', async () => {
    await open('Figures');
    const row = (await screen.findByRole('table', { name: 'Figures by template' })).querySelector(
      'tbody tr',
    )!;
    expect(row.textContent).toContain('20 %');
    expect(row.textContent).toContain('8 % to 42 %, a small number');
  });
});

describe('library and settings', () => {
  test('a template is written beside the fields it can name', async () => {
    const { sent, user } = await open();
    await user.click(screen.getByRole('button', { name: 'Templates' }));
    const body = await screen.findByLabelText('Text');
    await user.clear(body);
    await user.type(body, 'Dear ');
    await user.click(screen.getByRole('button', { name: '{first name}' }));
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() =>
      expect(sent('PUT /outreach/templates/t1')).toMatchObject([
        { name: 'Short', body: 'Dear {first name}' },
      ]),
    );
  });
  test('a proof says whom it fits', async () => {
    const { sent, user } = await open('Messages');
    await user.click(await screen.findByRole('button', { name: 'New proof' }));
    await user.type(screen.getByLabelText('Fact'), 'Less noise');
    await user.type(screen.getByLabelText('Industries'), '16, 25.51');
    await user.type(screen.getByLabelText('People from'), '20');
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() =>
      expect(sent('POST /outreach/proofs')).toEqual([
        {
          text: 'Less noise',
          industries: ['16', '25.51'],
          technologies: [],
          from: 20,
          to: null,
          source: '',
          since: null,
        },
      ]),
    );
  });
  test('settings are kept whole, and what is wrong is said in the dialog', async () => {
    const { sent, user } = await open('People', {
      'PUT /outreach/settings': new Error('Working hours end before they begin.'),
    });
    await user.click(screen.getByRole('button', { name: 'Settings' }));
    const dialog = await screen.findByRole('dialog');
    const hours = within(dialog).getByLabelText('Hours to');
    await user.clear(hours);
    await user.type(hours, '7');
    await user.click(within(dialog).getByLabelText('Sat'));
    await user.click(within(dialog).getByRole('button', { name: 'Keep' }));
    expect((await within(dialog).findByRole('alert')).textContent).toContain('end before they begin');
    expect(sent('PUT /outreach/settings')).toMatchObject([
      { to: 7, days: [1, 2, 3, 4, 5, 6], mail: 'ilona@t.example' },
    ]);
  });
});
