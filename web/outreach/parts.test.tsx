/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { AddressStanding } from '../../core/people/standing.ts';
import { undo } from '../app/history.ts';
import { Career, WrittenTo } from '../profile/PersonSections.tsx';
import { aCampaign, aMessage, anOutreach, aWriting } from '../testing/outreach.ts';
import { freshDesk, settled, show } from '../testing/render.tsx';
import { AllMessages } from './AllMessages.tsx';
import { CampaignChoices } from './CampaignChoices.tsx';
import { Campaigns } from './Campaigns.tsx';
import { Certainty } from './Certainty.tsx';
import { InlineNumber } from './InlineNumber.tsx';
import { WordMeter } from './WordMeter.tsx';

beforeEach(freshDesk);

describe('an address says how far it is to be trusted', () => {
  test.each([
    ['likely', 93, 'text-unsure'],
    ['guess', 41, 'text-unsure'],
    ['general', 97, 'text-unsure'],
    ['recorded', 97, 'text-kept'],
    ['confirmed', 99, 'text-kept'],
    ['refuted', 0, 'text-cut'],
  ] as const)('%s', (address: AddressStanding, certainty, tone) => {
    const { container } = show(
      <Certainty mail="a@b.example" certainty={certainty} address={address} madeBy="last" />,
    );
    expect(container.textContent).toBe(`a@b.example${certainty} %${address} last`);
    expect(screen.getByText(address).className).toBe(tone);
  });
  test('where there is none, that is said', () => {
    show(<Certainty mail={null} certainty={null} address={null} />);
    expect(screen.getByText('none known, and none to be made')).toBeTruthy();
  });
});

describe('words are counted against the limit', () => {
  test.each([
    [37, 40, '3 to spare'],
    [40, 40, '0 to spare'],
    [43, 40, '3 too many'],
    [900, 600, '300 too many'],
  ])('%d of %d', (words, limit, says) => {
    show(<WordMeter words={words} limit={limit} />);
    expect(screen.getByText(says)).toBeTruthy();
  });
});

test('a figure is typed over with Enter, given up with Esc, and refused where it is none', async () => {
  const kept = jest.fn();
  const { user } = show(<InlineNumber label="Days" value={90} least={1} most={100} onKeep={kept} />);
  const box = screen.getByLabelText<HTMLInputElement>('Days');
  for (const [text, shows] of [
    ['abc', '90'],
    ['0', '90'],
    ['101', '90'],
    ['1.5', '90'],
  ] as const) {
    await user.clear(box);
    await user.type(box, `${text}{Enter}`);
    expect(box.value).toBe(shows);
  }
  await user.clear(box);
  await user.type(box, '30{Escape}');
  expect(box.value).toBe('90');
  expect(kept).not.toHaveBeenCalled();
  await user.clear(box);
  await user.type(box, '30{Enter}');
  expect(kept).toHaveBeenCalledWith(30);
});

describe('campaigns', () => {
  const of = (id: string, name: string, sent: number) => ({ ...aCampaign().campaign, id, name, sent });
  test('are sorted, gone through by keys, and removed while nothing went out', async () => {
    const { user, sent } = show(<Campaigns campaigns={[of('a', 'Spring', 3), of('b', 'Autumn', 0)]} />, {
      'DELETE /campaigns/b': {},
    });
    const names = () =>
      screen
        .getAllByRole('row')
        .slice(1)
        .map((row) => row.querySelector('button')!.textContent);
    await user.click(screen.getByRole('button', { name: 'Campaign' }));
    expect(names()).toEqual(['Autumn', 'Spring']);
    expect(screen.queryByRole('button', { name: 'Remove Spring' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Remove Autumn' }));
    await waitFor(() => expect(sent('DELETE /campaigns/b')).toHaveLength(1));
    fireEvent.keyDown(document.body, { key: 'j' });
    expect(screen.getAllByRole('row')[2]!.getAttribute('aria-selected')).toBe('true');
  });
  test('ask what one says, and it can be taken back', async () => {
    const { user, sent } = show(<CampaignChoices campaign={aCampaign().campaign} outreach={anOutreach()} />, {
      'PATCH /campaigns/c1': aCampaign(),
    });
    await user.click(screen.getByRole('button', { name: 'What it asks' }));
    await user.selectOptions(await screen.findByLabelText('Template'), 'Loan');
    await user.selectOptions(screen.getByLabelText('What set it off'), 'out');
    await user.click(screen.getByLabelText('each message names one'));
    expect(sent('PATCH /campaigns/c1')).toEqual([
      { template: 'Loan' },
      { trigger: 'out' },
      { askProof: true },
    ]);
    await settled(undo);
    expect(sent('PATCH /campaigns/c1').at(-1)).toEqual({ askProof: false });
  });
});

test('of all messages below each other those that were on the screen count as looked at', async () => {
  const seen: ((entries: { isIntersecting: boolean }[]) => void)[] = [];
  globalThis.IntersectionObserver = class {
    constructor(tell: (entries: { isIntersecting: boolean }[]) => void) {
      seen.push(tell);
    }
    observe() {}
    disconnect() {}
  } as unknown as typeof IntersectionObserver;
  const message = (nth: number) =>
    aWriting({ message: aMessage({ id: nth, person: `person-${nth}`, seen: false }) });
  const { sent } = show(<AllMessages data={aCampaign()} outreach={anOutreach()} />, {
    'GET /campaigns/c1/messages/person-1': message(1),
    'GET /campaigns/c1/messages/person-2': message(2),
    'POST /campaigns/c1/seen': {},
  });
  await waitFor(() => expect(seen).toHaveLength(2));
  await settled(() => seen[1]!([{ isIntersecting: false }]));
  expect(sent('POST /campaigns/c1/seen')).toEqual([]);
  await settled(() => seen[1]!([{ isIntersecting: true }]));
  expect(sent('POST /campaigns/c1/seen')).toHaveLength(1);
});

describe('on the page of somebody', () => {
  test('stand the posts before, the latest first', () => {
    const { container } = show(<Career earlier="Buyer, Kostava Okna, 2014-2019; Clerk, 2012; Odd" />);
    expect([...container.querySelectorAll('li')].map((li) => li.textContent)).toEqual([
      '2014–2019BuyerKostava Okna',
      '2012Clerk',
      'when unknownOdd',
    ]);
    show(<Career earlier={null} />);
    expect(screen.getByText('none recorded')).toBeTruthy();
  });
  test('stands what was written to them, and that they opted out', async () => {
    show(<WrittenTo person="person-1" />, {
      'GET /people/person-1/written': {
        written: [
          {
            message: 1,
            campaign: 'Spring',
            by: 'Hana',
            at: '2026-05-04T08:00:00Z',
            state: 'sent',
            answer: 'opted-out',
          },
          { message: 2, campaign: 'Autumn', by: '', at: null, state: 'outbox', answer: null },
        ],
        ...{ optedOut: true, outcome: 'somebody answered from it' },
      },
    });
    expect(await screen.findByText('Spring, by Hana, 4 May 2026: opted out')).toBeTruthy();
    expect(screen.getByText('Autumn: in the outbox')).toBeTruthy();
    expect(screen.getByText(/nobody of us writes to them again/)).toBeTruthy();
    expect(screen.getByText('somebody answered from it')).toBeTruthy();
  });
});
