import { useQuery, type QueryClient } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import type {
  AddresseesAnswer,
  CampaignAnswer,
  FiguresAnswer,
  FiguresBy,
  OutboxAnswer,
  OutreachAnswer,
  RepliesAnswer,
  WritingAnswer,
} from '../../contract/outreach-views.ts';
import { call } from '../api.ts';

/** What the place of Outreach asks the server for, and where in it one is. */

export const TABS = ['people', 'messages', 'outbox', 'replies', 'figures'] as const;
export type Tab = (typeof TABS)[number];

/** While messages go out and answers come, it is asked again after so long. */
const LIVELY_MS = 1000;
const CALM_MS = 15_000;

export function useOutreach() {
  return useQuery({
    queryKey: ['outreach'],
    queryFn: ({ signal }) => call<OutreachAnswer>('GET', '/outreach', undefined, signal),
    refetchInterval: ({ state }) => (state.data?.outbox.waiting ? LIVELY_MS : CALM_MS),
  });
}

export function useCampaign(id: string | null) {
  return useQuery({
    queryKey: ['outreach', 'campaign', id],
    queryFn: ({ signal }) => call<CampaignAnswer>('GET', `/campaigns/${id}`, undefined, signal),
    enabled: id !== null,
    retry: false,
  });
}

export const PEOPLE_A_PAGE = 200;

export function useAddressees(id: string, step: string, offset: number) {
  return useQuery({
    queryKey: ['outreach', 'people', id, step, offset],
    queryFn: ({ signal }) =>
      call<AddresseesAnswer>(
        'GET',
        `/campaigns/${id}/people?step=${step}&offset=${offset}&limit=${PEOPLE_A_PAGE}`,
        undefined,
        signal,
      ),
    placeholderData: (before) => before,
    retry: false,
  });
}

export function useWriting(id: string, person: string | null) {
  return useQuery({
    queryKey: ['outreach', 'message', id, person],
    queryFn: ({ signal }) =>
      call<WritingAnswer>('GET', `/campaigns/${id}/messages/${person}`, undefined, signal),
    enabled: person !== null,
    retry: false,
  });
}

export function useOutbox() {
  return useQuery({
    queryKey: ['outreach', 'outbox'],
    queryFn: ({ signal }) => call<OutboxAnswer>('GET', '/outreach/outbox', undefined, signal),
    refetchInterval: ({ state }) => (state.data?.state.waiting ? LIVELY_MS : CALM_MS),
  });
}

export function useReplies(kind: string, campaign: string | null, open: boolean) {
  return useQuery({
    queryKey: ['outreach', 'replies', kind, campaign, open],
    queryFn: ({ signal }) =>
      call<RepliesAnswer>(
        'GET',
        `/outreach/replies?kind=${kind}&campaign=${campaign ?? ''}&open=${open}`,
        undefined,
        signal,
      ),
    placeholderData: (before) => before,
    refetchInterval: 3000,
    retry: false,
  });
}

export function useFigures(by: FiguresBy) {
  return useQuery({
    queryKey: ['outreach', 'figures', by],
    queryFn: ({ signal }) => call<FiguresAnswer>('GET', `/outreach/figures?by=${by}`, undefined, signal),
    placeholderData: (before) => before,
    retry: false,
  });
}

/** Asks anew for all that is written, after something of it changed. */
export function outreachChanged(client: QueryClient): Promise<void> {
  return client.invalidateQueries({ queryKey: ['outreach'] });
}

/** Where in the place one is, kept in the address: campaign, part, step of the roll, person. */
export function useWhere() {
  const [params, setParams] = useSearchParams();
  const tab = params.get('part') as Tab | null;
  return {
    campaign: params.get('campaign'),
    tab: tab !== null && TABS.includes(tab) ? tab : 'people',
    step: params.get('step') ?? 'chosen',
    person: params.get('person'),
    /** `replace` where it is no step that Back should find. */
    go(to: { campaign?: string | null; tab?: Tab; step?: string; person?: string | null }, replace = false) {
      const next = new URLSearchParams(params);
      const put = (name: string, value: string | null | undefined) => {
        if (value === undefined) return;
        if (value === null || value === '') next.delete(name);
        else next.set(name, value);
      };
      put('campaign', to.campaign);
      put('part', to.tab);
      put('step', to.step);
      put('person', to.person);
      setParams(next, { replace });
    },
  };
}
