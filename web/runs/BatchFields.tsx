import { useMutation, useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { BatchPreviewAnswer, BatchView, Target } from '../../contract/runs.ts';
import type { GatherAnswer } from '../../contract/gather-views.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button, Trouble } from '../ui/controls.tsx';

/** A sheet of searches: pasted or from a file, what its columns mean, how much is taken, and what each row finds. */
export function BatchFields({ target, onChange }: { target: Target; onChange(target: Target): void }) {
  const [batch, setBatch] = useState<BatchView | null>(null);
  const [text, setText] = useState('');
  const file = useRef<HTMLInputElement>(null);
  const known = useQuery({
    queryKey: ['batch', target.batch],
    queryFn: ({ signal }) => call<{ batch: BatchView }>('GET', `/batches/${target.batch}`, undefined, signal),
    enabled: target.batch !== undefined && batch === null,
  });
  const take = ({ batch: made }: { batch: BatchView }) => {
    setBatch(made);
    onChange({ ...target, batch: made.id, ...made.guess });
  };
  const paste = useMutation({
    mutationFn: () => call<{ batch: BatchView }>('POST', '/batches/pasted', { text }),
    onSuccess: take,
  });
  const upload = useMutation({
    mutationFn: (chosen: File) => {
      const form = new FormData();
      form.append('file', chosen);
      return call<{ batch: BatchView }>('POST', '/batches', form);
    },
    onSuccess: take,
  });
  const sheet = batch ?? known.data?.batch ?? null;
  return (
    <div className="flex flex-col gap-2">
      {!sheet && (
        <>
          <textarea
            aria-label="Searches"
            className="field figure h-24 text-[13px]"
            placeholder={
              'Paste a sheet with a row of headings:\nSearch\tCountry\tHeadcount from\nnace 16.23\tCzechia\t20'
            }
            value={text}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) paste.mutate();
            }}
          />
          <div className="flex items-center gap-2">
            <Button disabled={text.trim() === '' || paste.isPending} onClick={() => paste.mutate()}>
              Read it
            </Button>
            <span className="text-soft">or</span>
            <Button onClick={() => file.current!.click()}>Choose a file</Button>
            <input
              ref={file}
              type="file"
              hidden
              aria-label="File of searches"
              accept=".csv,.tsv,.txt,.xlsx,.ods"
              onChange={(event) => event.target.files?.[0] && upload.mutate(event.target.files[0])}
            />
          </div>
        </>
      )}
      <Trouble error={paste.error ?? upload.error ?? known.error} />
      {sheet && <SheetOfSearches sheet={sheet} target={target} onChange={onChange} />}
    </div>
  );
}

const INTO = {
  'one-list': 'one list',
  'list-each': 'a list each',
  file: 'a CSV file',
} as const;

function SheetOfSearches({
  sheet,
  target,
  onChange,
}: {
  sheet: BatchView;
  target: Target;
  onChange(target: Target): void;
}) {
  const format = useFormat();
  const gatherers = useQuery({
    queryKey: ['gather'],
    queryFn: ({ signal }) => call<GatherAnswer>('GET', '/gather', undefined, signal),
  });
  const fields = target.fields ?? [];
  const setField = (column: number, as: string) =>
    onChange({
      ...target,
      fields: [...fields.filter((one) => one.column !== column), ...(as ? [{ column, as }] : [])].sort(
        (a, b) => a.column - b.column,
      ),
    });
  const figure = (text: string) => (/^\d+$/.test(text) && Number(text) > 0 ? Number(text) : undefined);
  return (
    <>
      <p>
        <span className="figure">{format.number(sheet.rows)}</span> searches of {sheet.fileName}
        {sheet.at > 0 && <span className="text-soft">; the next run goes on with row {sheet.at + 2}</span>}
      </p>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
        <label className="flex items-center gap-1.5">
          the search is in
          <select
            className="field py-1"
            value={target.search ?? 0}
            onChange={(event) => onChange({ ...target, search: Number(event.target.value) })}
          >
            {sheet.header.map((heading, column) => (
              <option key={column} value={column}>
                {heading || `column ${column + 1}`}
              </option>
            ))}
          </select>
        </label>
        <label className="flex items-center gap-1.5">
          for
          <select
            className="field py-1"
            value={target.gatherer ?? ''}
            onChange={(event) => onChange({ ...target, gatherer: event.target.value || undefined })}
          >
            <option value="">the universe</option>
            {gatherers.data?.gatherers.map(({ id, name }) => (
              <option key={id} value={id}>
                the gatherer {name}
              </option>
            ))}
          </select>
        </label>
        {sheet.header.map((heading, column) =>
          column === (target.search ?? 0) ? null : (
            <label key={column} className="flex items-center gap-1.5">
              {heading || `column ${column + 1}`} is
              <input
                className="field figure w-36 py-1 text-[13px]"
                placeholder="not used"
                value={fields.find((one) => one.column === column)?.as ?? ''}
                onChange={(event) => setField(column, event.target.value)}
              />
            </label>
          ),
        )}
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
        <label className="flex items-center gap-1.5">
          at most
          <input
            className="field figure w-20 py-1"
            inputMode="numeric"
            aria-label="Rows of each search"
            placeholder="all"
            value={target.rowsEach ?? ''}
            onChange={(event) => onChange({ ...target, rowsEach: figure(event.target.value) })}
          />
          of each
        </label>
        <label className="flex items-center gap-1.5">
          <input
            className="field figure w-20 py-1"
            inputMode="numeric"
            aria-label="Searches a run"
            placeholder="all"
            value={target.searchesEach ?? ''}
            onChange={(event) => onChange({ ...target, searchesEach: figure(event.target.value) })}
          />
          searches a run
        </label>
        {target.gatherer === undefined && (
          <>
            <label className="flex items-center gap-1.5">
              into
              <select
                className="field py-1"
                value={target.into ?? 'one-list'}
                onChange={(event) => onChange({ ...target, into: event.target.value as keyof typeof INTO })}
              >
                {Object.entries(INTO).map(([key, label]) => (
                  <option key={key} value={key}>
                    {label}
                  </option>
                ))}
              </select>
            </label>
            {target.into !== 'file' && (
              <input
                className="field min-w-56 flex-1 py-1"
                aria-label="Name of the list"
                placeholder="named like the run"
                maxLength={120}
                value={target.results ?? ''}
                onChange={(event) => onChange({ ...target, results: event.target.value })}
              />
            )}
          </>
        )}
      </div>
      {target.gatherer === undefined && <Preview batch={sheet.id} target={target} />}
    </>
  );
}

/** What each search finds, or why it is refused. */
function Preview({ batch, target }: { batch: string; target: Target }) {
  const format = useFormat();
  const { into: _, results: __, searchesEach: ___, ...asked } = target;
  const { data, error, isFetching } = useQuery({
    queryKey: ['batch', batch, 'preview', asked],
    queryFn: ({ signal }) =>
      call<BatchPreviewAnswer>('POST', `/batches/${batch}/preview`, { target: asked }, signal),
    retry: false,
    placeholderData: (before) => before,
  });
  if (error) return <Trouble error={error} />;
  if (!data) return <p className="text-soft">Trying them …</p>;
  return (
    <div className={isFetching ? 'opacity-60' : ''}>
      <p className="text-[13px]" aria-live="polite">
        <span className="figure text-kept">{format.number(data.ready)}</span> can run
        {data.refused > 0 && (
          <>
            , <span className="figure text-cut">{format.number(data.refused)}</span> are refused; the others
            run all the same
          </>
        )}
      </p>
      <ul aria-label="Preview" className="mt-1 max-h-40 overflow-y-auto border-t border-rule text-[13px]">
        {data.searches.map(({ row, search, said, state, found, taken }) => (
          <li key={row} className="flex gap-3 border-b border-rule py-1">
            <span className="figure w-8 shrink-0 text-right text-soft">{row + 2}</span>
            <span className="w-40 shrink-0 truncate" title={search}>
              {search}
            </span>
            <span
              className={`min-w-0 flex-1 truncate ${state === 'refused' ? 'text-cut' : 'text-soft'}`}
              title={said}
            >
              {said}
            </span>
            <span className="figure shrink-0 text-right">
              {found === null
                ? '–'
                : taken! < found
                  ? `${format.number(taken!)} of ${format.number(found)}`
                  : format.number(found)}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
