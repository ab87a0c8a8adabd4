import { useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate, useNavigationType } from 'react-router';
import { emptyTape, type SortKey, type Tape } from '../../core/tape/nodes.ts';
import { ApiError, call } from '../api.ts';
import { useDesk, type DeskAddress, type View } from './store.ts';

const VIEWS: readonly View[] = ['sheet', 'breakdown', 'map', 'check'];

/** Longest tape that is written into an address; a longer one is stored and named by its id. */
export const LONGEST_ADDRESS = 1800;

/** The address of a state of the Desk, such as `/desk?t=…&sort=revenue-&line=l3&company=CZ-123`. */
export function addressOf(
  state: Omit<DeskAddress, 'view'> & { view?: View },
  tapeText = encodeTape(state.tape),
): string {
  const query = new URLSearchParams();
  if (tapeText !== '') query.set('t', tapeText);
  if (state.sort.length)
    query.set('sort', state.sort.map(({ by, descending }) => masked(by) + (descending ? '-' : '')).join(','));
  if (state.openLine) query.set('line', state.openLine);
  if (state.company) query.set('company', state.company);
  if (state.view && state.view !== 'sheet') query.set('view', state.view);
  const text = query.toString();
  return text === '' ? '/desk' : `/desk?${text}`;
}

/** A tape as text for an address: base64url of its lines and name. Empty for the empty tape. */
export function encodeTape(tape: Tape): string {
  if (tape.lines.length === 0 && tape.name === undefined && tape.subject === 'companies') return '';
  const bytes = new TextEncoder().encode(JSON.stringify({ ...tape, format: undefined, version: undefined }));
  return btoa(String.fromCharCode(...bytes))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replaceAll('=', '');
}

/** @throws ApiError or Error where the text is no tape of ours */
async function decodeTape(text: string | null): Promise<Tape> {
  if (text === null || text === '') return emptyTape();
  if (text.startsWith('~'))
    return (await call<{ tape: Tape }>('GET', `/addresses/${encodeURIComponent(text.slice(1))}`)).tape;
  const bytes = Uint8Array.from(atob(text.replaceAll('-', '+').replaceAll('_', '/')), (char) =>
    char.charCodeAt(0),
  );
  const tape = JSON.parse(new TextDecoder().decode(bytes)) as Partial<Tape>;
  if (!Array.isArray(tape.lines)) throw new Error('no lines');
  return { ...emptyTape(), ...tape };
}

/** Keeps the address and the Desk in step both ways. Returns what is wrong with the address, if anything. */
export function useDeskAddress(): string | null {
  const location = useLocation();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  const shown = useRef<string | null>(null);
  // Addresses that the Desk itself wrote: seen again they say nothing new, and an older one must not undo a newer edit.
  const written = useRef(new Set<string>());
  const navigationType = useNavigationType();
  const ready = useRef(false);

  useEffect(() => {
    if (location.pathname !== '/desk') return;
    const own = navigationType !== 'POP' && written.current.has(location.search);
    if (shown.current === location.search) written.current.clear();
    if (own || shown.current === location.search) return;
    let current = true;
    const query = new URLSearchParams(location.search);
    decodeTape(query.get('t'))
      .then((tape) => {
        if (!current) return;
        shown.current = location.search;
        useDesk.getState().show({
          tape,
          sort: readSort(query.get('sort')),
          openLine: query.get('line'),
          company: query.get('company'),
          view: VIEWS.find((one) => one === query.get('view')) ?? 'sheet',
        });
        ready.current = true;
        setProblem(null);
      })
      .catch((error: unknown) => {
        if (!current) return;
        ready.current = true;
        setProblem(
          error instanceof ApiError
            ? error.message
            : 'The tape in this address cannot be read; it may have been cut when it was copied.',
        );
      });
    return () => {
      current = false;
    };
  }, [location, navigationType]);

  useEffect(() => {
    let last = useDesk.getState();
    let before: typeof last | null = null;
    /** Says the state at hand, once for all that was changed in one act. */
    const write = async () => {
      const state = useDesk.getState();
      const from = before!;
      before = null;
      const same =
        state.tape === from.tape &&
        state.sort === from.sort &&
        state.openLine === from.openLine &&
        state.company === from.company &&
        state.view === from.view;
      if (!ready.current || same) return;
      const turned =
        state.openLine !== from.openLine || state.company !== from.company || state.view !== from.view;
      let text = encodeTape(state.tape);
      if (text.length > LONGEST_ADDRESS)
        text = `~${(await call<{ id: string }>('POST', '/addresses', { tape: state.tape })).id}`;
      if (useDesk.getState() !== state && useDesk.getState().tape !== state.tape) return;
      const address = addressOf(state, text);
      const search = address.slice('/desk'.length);
      if (search === shown.current) return;
      shown.current = search;
      written.current.add(search);
      void navigate(address, { replace: !turned && state.lastTag !== null });
    };
    return useDesk.subscribe((state) => {
      if (before === null) {
        before = last;
        queueMicrotask(() => void write());
      }
      last = state;
    });
  }, [navigate]);

  return problem;
}

/** The name of a column without the marks that stand between columns and behind them: headings and functions may have commas. */
function masked(column: string): string {
  return column.replaceAll('%', '%25').replaceAll(',', '%2C').replace(/-$/, '%2D');
}

function unmasked(text: string): string {
  return text.replaceAll('%2D', '-').replaceAll('%2C', ',').replaceAll('%25', '%');
}

function readSort(text: string | null): SortKey[] {
  return (text ?? '')
    .split(',')
    .filter(Boolean)
    .map((part) =>
      part.endsWith('-')
        ? { by: unmasked(part.slice(0, -1)), descending: true as const }
        : { by: unmasked(part) },
    );
}
