import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { CodeAnswer, CodeCount } from '../../../contract/responses.ts';
import { SCHEMES, type Scheme } from '../../../core/codes/tree.ts';
import { shortTitle } from '../../../core/tape/wording.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';

const KINDS = {
  exact: 'the same',
  'part-of': 'part of it',
  covers: 'wider, in part',
  partial: 'in part',
  unproved: 'not proved',
  chain: 'by a chain',
} as const;

/** Longest note shown before it is opened. */
const NOTE_AT_ONCE = 260;

/** What is known of a code: its note, where it stands, its kin in other schemes and what is often filed together with it. */
export function CodeNotes({
  scheme,
  code,
  path,
  onCodes,
}: {
  scheme: Scheme;
  code: string;
  path: readonly CodeCount[];
  onCodes(scheme: Scheme, codes: string[]): void;
}) {
  const format = useFormat();
  const { data } = useQuery({
    queryKey: ['code', scheme, code],
    queryFn: ({ signal }) =>
      call<CodeAnswer>('GET', `/codes/${scheme}/${encodeURIComponent(code)}`, undefined, signal),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
  const here = path.at(-1);
  const heading = 'title mt-4 border-t border-rule pt-3 text-[15px]';
  return (
    <>
      <h2 className="title text-base">
        {code} {here && shortTitle(here.title)}
      </h2>
      <p className="mt-1 text-soft">{here?.title}</p>
      {data?.note && data.code === code && (
        <details className="mt-1">
          <summary className="cursor-pointer">
            {data.note.text.slice(0, NOTE_AT_ONCE)}
            {data.note.text.length > NOTE_AT_ONCE ? ' …' : ''}
          </summary>
          <p>{data.note.text.slice(NOTE_AT_ONCE)}</p>
          <p className="text-soft">Note of its exact kin {data.note.from}.</p>
        </details>
      )}
      <h3 className={heading}>Where it stands</h3>
      <ol className="mt-1">
        {path.map((one) => (
          <li key={one.code} className="flex gap-2 py-0.5">
            <span className="figure">{one.code}</span>{' '}
            <span className="min-w-0 flex-1">{shortTitle(one.title)}</span>{' '}
            <span className="figure">{format.number(one.count)}</span>
          </li>
        ))}
      </ol>
      {data?.code === code && data.kin.length > 0 && (
        <>
          <h3 className={heading}>In the other schemes</h3>
          <ul className="mt-1">
            {data.kin.slice(0, 14).map((kin) => (
              <li key={`${kin.scheme} ${kin.code}`}>
                <button
                  type="button"
                  className="w-full py-0.5 text-left hover:bg-picked"
                  title={`${kin.title}: look for it instead`}
                  onClick={() => onCodes(kin.scheme, [kin.code])}
                >
                  {SCHEMES[kin.scheme]} <span className="figure">{kin.code}</span>{' '}
                  <span className={kin.sure ? 'font-semibold' : 'text-soft'}>
                    {kin.sure ? 'sure' : 'possible'}
                  </span>
                  <span className="text-soft">
                    , {KINDS[kin.kind]}: {shortTitle(kin.title)}
                  </span>
                </button>
              </li>
            ))}
            {data.kin.length > 14 && <li className="text-soft">and {data.kin.length - 14} more</li>}
          </ul>
        </>
      )}
      {data?.code === code && data.together.length > 0 && (
        <>
          <h3 className={heading}>Often filed together with</h3>
          <ul className="mt-1">
            {data.together.map((one) => (
              <li key={one.code} className="flex gap-2 py-0.5" title={one.title}>
                <span className="figure">{one.code}</span>
                <span className="min-w-0 flex-1 truncate">{shortTitle(one.title)}</span>
                <span className="figure">{format.number(one.count)}</span>
                <span className="figure w-10 text-right text-soft">{Math.round(100 * one.share)} %</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
