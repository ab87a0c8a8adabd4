import type { ListView } from '../../contract/lists.ts';

/** A list of companies with nobody on it, for tests of what shows lists. */
export function aList(more: Partial<ListView> = {}): ListView {
  const list = {
    key: 'rivals',
    name: 'Rivals',
    subject: 'companies',
    purpose: '',
    folder: '',
    owner: '',
    suppression: null,
    stays: null,
    frozen: false,
    madeAt: '2026-10-01T09:00:00Z',
    changedAt: '2026-10-02T09:00:00Z',
    removedAt: null,
    revision: 1,
    members: 0,
    judgedIn: 0,
    judgedOut: 0,
    unsure: 0,
    origins: 'tape 1',
    addresses: 0,
    carried: [],
    ...more,
  };
  return { ...list, notJudged: list.members - list.judgedIn - list.judgedOut - list.unsure };
}
