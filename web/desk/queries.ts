import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type {
  AlternativesAnswer,
  HealthAnswer,
  PointsAnswer,
  WordedTally,
} from '../../contract/responses.ts';
import { createContext, useContext } from 'react';
import { subjectOf } from '../../core/fields/registry.ts';
import { subjectWithin } from '../../core/tape/turn.ts';
import { editLine, lineOf } from '../../core/tape/edit.ts';
import { isBlock, isHas, type Tape, type Test } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useDesk } from './store.ts';

/** What counts do not depend on: name, order and limit of the tape. */
export function countedPart(tape: Tape): Tape {
  return { format: tape.format, version: tape.version, subject: tape.subject, lines: tape.lines };
}

/** What a paper tells of a tape beside its counts: name and charts too. */
export function printedPart(tape: Tape): Tape {
  return {
    ...countedPart(tape),
    ...(tape.name === undefined ? {} : { name: tape.name }),
    ...(tape.charts === undefined ? {} : { charts: tape.charts }),
  };
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

/** The has-line whose related records a picker is of; null for pickers of the tape's own records. */
export const Holder = createContext<string | null>(null);

/**
 * The tape without a line, and the has-line that its counts are within, if any. Without the line's own test its edits need no
 * new counts.
 */
function useContextOf(at: string | undefined): { tape: Tape; at?: string } {
  const tape = countedPart(useDesk((state) => state.tape));
  const holder = useContext(Holder);
  const context = at === undefined ? tape : editLine(tape, at, () => null);
  return { tape: context, ...(holder === null ? {} : { at: holder }) };
}

/** The freshness that the line of a picker asks: what is older is among what its choices leave out. */
export const FreshWithin = createContext<string | undefined>(undefined);

/** Counts for a picker: in the context of all lines but its own. */
export function useCounts<T>(wish: { field: string; at?: string } & Record<string, unknown>, enabled = true) {
  const fresh = useContext(FreshWithin);
  const { at, ...asked } = wish;
  const rest = { ...asked, ...(fresh === undefined ? {} : { fresh }) };
  const context = useContextOf(at);
  return useQuery({
    queryKey: ['counts', context, rest],
    queryFn: ({ signal }) => call<T>('POST', '/counts', { ...context, ...rest }, signal),
    placeholderData: keepPreviousData,
    enabled,
    retry: false,
  });
}

/** Points for a map: companies that the other lines let through. */
export function usePoints(at: string | undefined) {
  const context = useContextOf(at);
  return useQuery({
    queryKey: ['points', context],
    queryFn: ({ signal }) => call<PointsAnswer>('POST', '/points', context, signal),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** What a picker counts, in the plural: the tape's records, or related ones within a has-line. */
export function useMany(): string {
  const holder = useContext(Holder);
  return useDesk(({ tape }) => subjectOf(holder === null ? tape.subject : subjectWithin(tape, holder)).many);
}

/** Whether an id is that of an either-block, so that what is picked is one of its branches. */
export function useInBlock(at: string | undefined): boolean {
  return useDesk((state) => {
    const line = lineOf(state.tape, at ?? null);
    return line !== undefined && isBlock(line);
  });
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
  const holder = useContext(Holder);
  const own = lineOf(tape, at ?? null);
  const known = own !== undefined && !isBlock(own);
  const draft = { id: 'draft', field, test: tests[0]!, ...more };
  const others = at === undefined ? tape : editLine(tape, at, () => null);
  const asked = known
    ? tape
    : holder === null
      ? { ...others, lines: [...others.lines, draft] }
      : editLine(others, holder, (line) => (isHas(line) ? { ...line, lines: [...line.lines, draft] } : line));
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
