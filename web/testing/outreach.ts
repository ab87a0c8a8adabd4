import { OutreachSettingsBody } from '../../contract/outreach.ts';
import type {
  AddresseeView,
  CampaignAnswer,
  MessageView,
  OutreachAnswer,
  ProofView,
  ReplyView,
  WritingAnswer,
} from '../../contract/outreach-views.ts';

/** Campaigns, people, messages and replies as the API answers them. For tests only. */

export function aProof(more: Partial<ProofView> = {}): ProofView {
  return {
    ...{
      id: 'wood',
      text: 'Less dust in a joinery',
      industries: ['16'],
      technologies: [],
      from: 10,
      to: null,
    },
    ...{ source: 'our report', since: '2025-03-01', named: 20, answered: 5 },
    ...more,
  };
}

export function anOutreach(more: Partial<OutreachAnswer> = {}): OutreachAnswer {
  return {
    settings: Object.assign(new OutreachSettingsBody(), { sender: 'Ilona', mail: 'ilona@t.example' }),
    templates: [
      { id: 't1', name: 'Short', language: 'en', subject: 'Air', body: 'Dear {name}' },
      { id: 't2', name: 'Loan', language: 'en', subject: 'Air', body: 'Dear {name}, a loan' },
    ],
    proofs: [aProof()],
    campaigns: [aCampaign().campaign],
    outbox: {
      ...{ paused: false, waiting: 0, today: 3, daily: 40, next: null, trouble: null },
      through: { own: false },
    },
    replies: { open: 2, all: 5 },
    outcomes: 0,
    ...more,
  };
}

export function aCampaign(more: Partial<CampaignAnswer> = {}): CampaignAnswer {
  return {
    campaign: {
      ...{
        id: 'c1',
        name: 'Autumn',
        person: 'Ilona',
        madeAt: '2026-10-01T08:00:00Z',
        what: 'Works managers',
      },
      ...{ functions: null, without: 0, template: 'Short', trigger: 'named', certainty: 80, words: 40 },
      ...{ quietDays: 90, askProof: false, people: 3, outbox: 0, sent: 0, replies: 0 },
    },
    roll: {
      steps: [
        { step: 'chosen', label: 'People chosen', note: 'Works managers', delta: 3, total: 3 },
        { step: 'no-address', label: 'No address', note: '', delta: 0, total: 3 },
        { step: 'uncertain', label: 'Address below 80 %', note: 'guesses, 30 to 41 %', delta: -1, total: 2 },
        { step: 'written-lately', label: 'Written to', note: '', delta: 0, total: 2 },
        { step: 'over-limit', label: 'Over today’s limit of 40', note: '', delta: 0, total: 2 },
      ],
      foot: 2,
    },
    seen: 1,
    today: ['person-1', 'person-2'],
    ...more,
  };
}

export function anAddressee(more: Partial<AddresseeView> = {}): AddresseeView {
  return {
    ...{
      person: 'person-1',
      company: 'cz-1',
      name: 'Monika Planik',
      title: 'Works manager',
      companyName: 'Alder',
    },
    ...{
      country: 'CZ',
      mail: 'm@alder.example',
      certainty: 93,
      address: 'likely',
      step: null,
      state: 'draft',
    },
    ...{ words: 30, seen: false, edited: false },
    ...more,
  };
}

export function aMessage(more: Partial<MessageView> = {}): MessageView {
  return {
    ...{ id: 7, campaign: 'c1', campaignName: 'Autumn', person: 'person-1', name: 'Monika Planik' },
    ...{ companyName: 'Alder', mail: null, certainty: null, state: 'draft', subject: 'Air for Alder' },
    ...{ body: 'Dear Monika, clean air.', words: 4, unfilled: [], template: 'Short', language: 'en' },
    ...{ trigger: 'named', proof: null, proofText: null, edited: false, seen: true, version: 3 },
    ...{ putBy: null, putAt: null, sentAt: null, trouble: null },
    ...more,
  };
}

export function aWriting(more: Partial<WritingAnswer> = {}): WritingAnswer {
  return {
    message: aMessage(),
    facts: {
      ...{
        key: 'person-1',
        name: 'Monika Planik',
        title: 'Works manager',
        department: 'production',
        level: 'head',
      },
      ...{
        since: '2024-03-01',
        earlier: 'Planner, Tissovec Okna, 2019-2024',
        phone: null,
        mail: 'm@alder.example',
      },
      ...{
        certainty: 93,
        address: 'likely',
        madeBy: 'first, 7 of 7 known there',
        source: 'Directory',
        checked: null,
      },
      company: {
        ...{
          key: 'cz-1',
          name: 'Alder s.r.o.',
          legalForm: 's.r.o.',
          town: 'Brno',
          region: null,
          country: 'CZ',
        },
        ...{ headcount: 46, revenue: null, industry: 'Joinery', codes: ['16.23'] },
        technologies: [{ key: 'lakonta', label: 'Lakonta' }],
        event: { name: 'Second spray line', kind: 'new-line', date: '2026-07-03' },
        deal: null,
        trigger: { name: 'Second spray line', kind: 'new-line', date: '2026-07-03' },
      },
    },
    step: null,
    proofs: [
      { ...aProof(), fits: true, by: ['its industry'] },
      { ...aProof({ id: 'boats', text: 'Boats need less', named: 0, answered: 0 }), fits: false, by: [] },
    ],
    written: [],
    known: [{ name: 'Petr Hladina', title: 'Buyer' }],
    optedOut: false,
    ...more,
  };
}

export function aReply(more: Partial<ReplyView> = {}): ReplyView {
  return {
    ...{ id: 1, message: aMessage({ state: 'sent', sentAt: '2026-10-02T08:00:00Z', putBy: 'Ilona' }) },
    ...{ sender: 'm@alder.example', subject: 'Re: Air', body: 'Come on Thursday.', kind: 'answered' },
    ...{ backOn: null, at: '2026-10-03T08:00:00Z', done: false, meeting: false },
    ...more,
  };
}
