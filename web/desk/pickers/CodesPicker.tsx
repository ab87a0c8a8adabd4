import clsx from 'clsx';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { CodeCount, CodesCounts } from '../../../contract/responses.ts';
import { SCHEMES, type Scheme } from '../../../core/codes/tree.ts';
import { shortTitle } from '../../../core/tape/wording.ts';
import type { CodesTest } from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Segments, Trouble, UnknownMark } from '../../ui/controls.tsx';
import { useCounts, useTally } from '../queries.ts';
import { CodeNotes } from './CodeNotes.tsx';
import { CountBar } from './CountBar.tsx';
import { codeState, toggleCode } from './code-picks.ts';
import { PasteCodes } from './PasteCodes.tsx';
import type { PickerProps } from './picker-props.ts';

/** The code tree of a scheme with counts at every level, searched by words. */
export function CodesPicker({ field, test, at, onTest }: PickerProps<CodesTest>) {
  const [scheme, setScheme] = useState<Scheme>(test?.scheme ?? 'nace-2.1');
  const [search, setSearch] = useState('');
  const [openCodes, setOpenCodes] = useState<ReadonlySet<string>>(() => new Set());
  const [focus, setFocus] = useState<string | null>(test?.any[0] ?? null);
  const [pasting, setPasting] = useState(false);
  const format = useFormat();
  const { data: tally } = useTally();
  const figures = tally?.lines.find((line) => line.id === at);
  const rank = test?.rank ?? 'any';
  const kin = test?.scheme === scheme && test.kin ? { kin: test.kin } : {};
  const { data, error } = useCounts<CodesCounts>({ field: field.id, at, scheme, rank, ...kin });
  const { data: hits } = useCounts<CodesCounts>(
    { field: field.id, at, scheme, rank, ...kin, search: search.trim() },
    search.trim() !== '',
  );
  const picked: CodesTest | null = test?.scheme === scheme ? test : null;
  const byCode = useMemo(() => new Map(data?.codes.map((code) => [code.code, code])), [data]);
  const searching = search.trim() !== '' && hits?.scheme === scheme;

  const parentOf = (code: string) => byCode.get(code)?.parent ?? null;
  const pathOf = (code: string | null): CodeCount[] => {
    const path: CodeCount[] = [];
    for (
      let at_ = code ? byCode.get(code) : undefined;
      at_;
      at_ = at_.parent ? byCode.get(at_.parent) : undefined
    )
      path.unshift(at_);
    return path;
  };
  const above = useMemo(() => {
    const codes = new Set<string>();
    for (const code of picked?.any ?? [])
      for (let parent = byCode.get(code)?.parent; parent; parent = byCode.get(parent)?.parent)
        codes.add(parent);
    return codes;
  }, [picked, byCode]);
  const isOpen = (code: string) =>
    searching || openCodes.has(code) || (above.has(code) && !openCodes.has(`-${code}`));
  const shown = (searching ? hits.codes : (data?.codes ?? [])).filter(
    (code) => searching || pathOf(code.parent).every((parent) => isOpen(parent.code)),
  );
  const most = Math.max(1, ...shown.map((code) => code.count));
  const focused = focus ? byCode.get(focus) : undefined;
  const toggleOpen = (code: string) => {
    const next = new Set(openCodes);
    if (isOpen(code)) {
      next.delete(code);
      next.add(`-${code}`);
    } else {
      next.delete(`-${code}`);
      next.add(code);
    }
    setOpenCodes(next);
  };
  const toggle = (code: string) => {
    // A branch that was open because of what was picked below it stays open when it is picked itself.
    if (above.has(code) && isOpen(code)) setOpenCodes(new Set(openCodes).add(code));
    onTest(toggleCode(picked, scheme, code, parentOf, rank === 'main' ? 'main' : test?.rank));
  };

  return (
    <div className="flex h-full min-h-0 flex-col">
      <div className="flex flex-wrap items-center gap-3 pb-3">
        <label className="field flex min-w-52 flex-1 items-center gap-2 border-ink">
          <input
            autoFocus
            value={search}
            onChange={(event) => setSearch(event.target.value)}
            placeholder="a trade in words, or a code"
            aria-label="Search codes"
            className="min-w-0 flex-1 bg-transparent outline-none placeholder:text-soft"
          />
          {searching && (
            <span className="text-[13px] whitespace-nowrap text-soft">
              {hits.codes.filter((code) => code.by !== undefined).length} codes
            </span>
          )}
        </label>
        <Segments<Scheme>
          label="Scheme"
          value={scheme}
          onChange={setScheme}
          options={(data?.schemes ?? []).map(({ key, label, used }) => ({
            key,
            label,
            off: used ? undefined : 'No company is coded in this scheme',
          }))}
        />
        <Segments
          label="Rank"
          value={rank}
          onChange={(value) => picked && onTest({ ...picked, rank: value })}
          options={[
            { key: 'any', label: 'any rank' },
            { key: 'main', label: 'main only', off: picked ? undefined : 'Pick a code first' },
          ]}
        />
      </div>
      <div className="flex flex-wrap items-center gap-3 pb-3 text-[13px]">
        <Segments
          label="Companies coded in other schemes"
          value={picked?.kin ?? 'none'}
          options={(
            [
              ['none', 'this scheme alone'],
              ['sure', 'and sure kin in others'],
              ['possible', 'and possible kin'],
            ] as const
          ).map(([key, label]) => ({ key, label, off: picked ? undefined : 'Pick a code first' }))}
          onChange={(value) => picked && onTest(withKin(picked, value))}
        />
        {!!figures?.kin && (
          <span>
            <span className="figure font-semibold">{format.number(figures.kin)}</span> found by their codes in
            other schemes
          </span>
        )}
        <Button className="ml-auto" aria-expanded={pasting} onClick={() => setPasting(!pasting)}>
          Paste codes
        </Button>
      </div>
      {pasting && (
        <PasteCodes
          scheme={scheme}
          codes={data?.codes.map(({ code }) => code) ?? []}
          onCodes={(codes) => {
            onTest({ ...(picked ?? { scheme }), any: [...new Set([...(picked?.any ?? []), ...codes])] });
            setPasting(false);
          }}
        />
      )}
      <Trouble error={error} />
      <div className="flex min-h-0 flex-1 gap-5">
        <ul aria-label={`${SCHEMES[scheme]} codes`} className="min-h-0 flex-[2] overflow-y-auto pr-2">
          {shown.map((code) => {
            const state = codeState(picked, code.code, parentOf, above);
            return (
              <li
                key={code.code}
                className={clsx(
                  'grid grid-cols-[22px_76px_1fr_72px_120px] items-center gap-1 border-b border-rule',
                  state === 'yes' && 'bg-picked',
                  focus === code.code && 'shadow-[inset_3px_0_0_var(--ink)]',
                  code.count === 0 && 'text-soft',
                )}
                onMouseEnter={() => setFocus(code.code)}
              >
                <input
                  type="checkbox"
                  className="ml-1.5 size-4"
                  aria-label={`${code.code} ${code.title}`}
                  checked={state === 'yes'}
                  ref={(element) => {
                    if (element) element.indeterminate = state === 'some';
                  }}
                  onFocus={() => setFocus(code.code)}
                  onChange={() => toggle(code.code)}
                />
                <span className="figure pl-2 text-[13px] font-semibold">{code.code}</span>
                <button
                  type="button"
                  className="flex min-w-0 items-center gap-1 py-1.5 text-left"
                  style={{ paddingLeft: (code.level - 1) * 14 }}
                  onClick={() => (code.below && !searching ? toggleOpen(code.code) : toggle(code.code))}
                  aria-expanded={code.below ? isOpen(code.code) : undefined}
                >
                  {code.below ? (
                    isOpen(code.code) ? (
                      <ChevronDown size={13} className="shrink-0" />
                    ) : (
                      <ChevronRight size={13} className="shrink-0" />
                    )
                  ) : (
                    <span className="w-[13px] shrink-0" />
                  )}
                  <span className="truncate">{shortTitle(code.title)}</span>
                  {code.by && <span className="truncate text-[12px] text-soft">: {code.by}</span>}
                </button>
                <span className="figure text-right text-[13px]">{format.number(code.count)}</span>
                <span className="pl-2">
                  <CountBar count={code.count} most={most} picked={state !== 'no'} />
                </span>
              </li>
            );
          })}
          {searching && shown.length === 0 && (
            <li className="p-4 text-soft">
              No code of {SCHEMES[scheme]} has these words. Try fewer, another scheme, or a line on words of
              the description.
            </li>
          )}
        </ul>
        <aside className="min-h-0 w-60 shrink-0 overflow-y-auto text-[13px] max-[1150px]:hidden">
          {focused && (
            <CodeNotes
              scheme={scheme}
              code={focused.code}
              path={pathOf(focused.code)}
              onCodes={(other, codes) => {
                setScheme(other);
                onTest({
                  scheme: other,
                  any: codes,
                  ...(test?.rank ? { rank: test.rank } : {}),
                  ...(test?.kin ? { kin: test.kin } : {}),
                });
              }}
            />
          )}
          {data && data.unknown > 0 && (
            <p className="mt-4 border-t border-rule pt-3 text-unsure">
              <UnknownMark />
              <span className="figure">{format.number(data.unknown)}</span> have no{' '}
              {rank === 'main' ? 'main ' : ''}code in {SCHEMES[scheme]}
            </p>
          )}
          {test && test.scheme !== scheme && (
            <p className="mt-4 border-t border-rule pt-3">
              The line asks for {SCHEMES[test.scheme]} codes. A choice here starts it anew in{' '}
              {SCHEMES[scheme]}.
            </p>
          )}
        </aside>
      </div>
    </div>
  );
}

function withKin({ kin: _, ...rest }: CodesTest, kin: 'none' | 'sure' | 'possible'): CodesTest {
  return kin === 'none' ? rest : { ...rest, kin };
}
