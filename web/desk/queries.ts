import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type {
  AlternativesAnswer,
  HealthAnswer,
  PointsAnswer,
  WordedTally,
} from '../../contract/responses.ts';
import { isBlock, type Tape, type Test } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useDesk } from './store.ts';

/** What counts do not depend on: name, order and limit of the tape. */
export function countedPart(tape: Tape): Tape {
  return { format: tape.format, version: tape.version, subject: tape.subject, lines: tape.lines };
}

export function useHealth() {
  return useQuery({
    queryKey: ['health'],
    queryFn: ({ signal }) => call<HealthAnswer>('GET', '/health', undefined, signal),
    staleTime: 5000,
  });
}

/** The figures of the tape at hand; those of the tape before until they come. */
export function useTally() {
  const tape = countedPart(useDesk((state) => state.tape));
  return useQuery({
    queryKey: ['tally', tape],
    queryFn: ({ signal }) => call<WordedTally>('POST', '/tally', { tape }, signal),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** Counts for a picker: in the context of all lines but its own. */
export function useCounts<T>(wish: { field: string; at?: string } & Record<string, unknown>, enabled = true) {
  const tape = countedPart(useDesk((state) => state.tape));
  // The line's own test is left out by the server, so its edits need no new counts.
  const context = { ...tape, lines: tape.lines.filter((line) => line.id !== wish.at) };
  const { at: _, ...rest } = wish;
  return useQuery({
    queryKey: ['counts', context, rest],
    queryFn: ({ signal }) => call<T>('POST', '/counts', { tape: context, ...rest }, signal),
    placeholderData: keepPreviousData,
    enabled,
    retry: false,
  });
}

/** Points for a map: companies that the other lines let through. */
export function usePoints(at: string | undefined) {
  const tape = countedPart(useDesk((state) => state.tape));
  const context = { ...tape, lines: tape.lines.filter((line) => line.id !== at) };
  return useQuery({
    queryKey: ['points', context],
    queryFn: ({ signal }) => call<PointsAnswer>('POST', '/points', { tape: context }, signal),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** Whether an id is that of an either-block, so that what is picked is one of its branches. */
export function useInBlock(at: string | undefined): boolean {
  return useDesk((state) => state.tape.lines.some((line) => line.id === at && isBlock(line)));
}

/**
 * What the tape would leave if a line asked each of some tests instead of its own. A field without a line is asked as a
 * line at the end; a branch, as a line in place of its block, as pickers count it.
 */
export function useAlternatives(
  field: string,
  at: string | undefined,
  tests: readonly Test[],
  more: { estimates?: true } = {},
) {
  const tape = countedPart(useDesk((state) => state.tape));
  const known = at !== undefined && tape.lines.some((line) => line.id === at && !isBlock(line));
  const draft = { id: 'draft', field, test: tests[0]!, ...more };
  const asked = known ? tape : { ...tape, lines: [...tape.lines.filter((line) => line.id !== at), draft] };
  return useQuery({
    queryKey: ['alternatives', asked, tests],
    queryFn: ({ signal }) =>
      call<AlternativesAnswer>(
        'POST',
        '/alternatives',
        { tape: asked, at: known ? at : 'draft', tests },
        signal,
      ),
    enabled: tests.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
}
