import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Job } from '../../contract/responses.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { useSettings } from '../app/settings.ts';
import { Button, Dialog, Segments, Trouble } from '../ui/controls.tsx';
import { JobProgress } from '../ui/JobProgress.tsx';
import { isOwnColumn, ownColumnOf } from '../../core/tape/own-columns.ts';
import { wordActed, type Acted } from './acted.ts';
import { ExportPreview } from './ExportPreview.tsx';
import { KeptOff, useGoingOut, type Along } from './KeptOff.tsx';
import { picksBody } from './picks.ts';
import { countedPart, useTally } from './queries.ts';
import { ColumnChoice } from './sheet/ColumnChoice.tsx';
import { allColumns, columnOf } from './sheet/columns.ts';
import { useDesk } from './store.ts';

const MAILING = ['name', 'street', 'postcode', 'place'];
/** Of people, what a letter or a mail needs. */
const REACH = ['name', 'mail', 'company'];

/** An export of what is kept or picked, or of one record: which of them, which columns, which file, with its first rows. */
export function ExportDialog({ acted, onClose }: { acted: Acted; onClose(): void }) {
  const { tape, sort, picks, one, gone, total } = acted;
  const shownOf = useDesk((state) => state.columns[tape.subject]!);
  const shown = shownOf.filter((id) => !isOwnColumn(id) || ownColumnOf(tape, id));
  const settings = useSettings();
  const format = useFormat();
  const client = useQueryClient();
  const { data: tally } = useTally();
  const anyPicked = one || picks.mode === 'all' || picks.keys.size > 0 || picks.runs.length > 0;
  const [which, setWhich] = useState<'all' | 'picked'>(anyPicked ? 'picked' : 'all');
  const [choice, setChoice] = useState<'shown' | 'mailing' | 'own'>('shown');
  const [own, setOwn] = useState<readonly string[]>(shown);
  const [file, setFile] = useState<'csv' | 'xlsx'>('xlsx');
  const [delimiter, setDelimiter] = useState<',' | ';' | '\t' | '|'>(',');
  const [bom, setBom] = useState(true);
  const { many } = subjectOf(tape.subject);
  const whole = many.charAt(0).toUpperCase() + many.slice(1);
  const [name, setName] = useState(tape.name ?? whole);
  const all = allColumns(tape, tally);
  const mailing =
    tape.subject === 'people' ? REACH : MAILING.filter((id) => all.some((column) => column.id === id));
  const columns = choice === 'shown' ? shown : choice === 'mailing' ? mailing : own;
  const [along, setAlong] = useState<Along>({});
  const wish = {
    tape: { ...countedPart(tape), ...(which === 'all' && tape.first ? { first: tape.first } : {}) },
    sort,
    ...(which === 'picked' ? picksBody(picks) : {}),
  };
  const going = useGoingOut(wish, along);
  const chosen = which === 'all' ? Math.min(total, tape.first ?? Infinity) : acted.count;
  const count = going.data && !going.isPlaceholderData ? going.data.goes : null;
  const unsaid = Object.values(along).some((reason) => reason.trim() === '');
  const start = useMutation({
    mutationFn: () =>
      call<{ export: string; job: Job }>('POST', '/exports', {
        name: name.trim(),
        ...wish,
        columns,
        format: file,
        delimiter,
        bom,
        currency: settings.currency,
        along: Object.entries(along).map(([list, reason]) => ({ list, reason: reason.trim() })),
      }),
  });
  return (
    <Dialog
      title="Export"
      description={wordActed({ ...acted, count: chosen }, format.number)}
      open
      onClose={onClose}
      width={620}
    >
      {start.data ? (
        <div className="space-y-4">
          <JobProgress
            id={start.data.job.id}
            onDone={() => {
              void client.invalidateQueries({ queryKey: ['exports'] });
              window.location.assign(`/api/exports/${start.data.export}/file`);
            }}
          />
          <p className="text-soft">
            The file comes by itself when it is written, and stays under Exports with the tape that made it.{' '}
            <a className="text-ink underline" href={`/api/exports/${start.data.export}/file`}>
              Download it again
            </a>
          </p>
          <Button look="ink" onClick={onClose}>
            Close
          </Button>
        </div>
      ) : (
        <form
          className="space-y-4"
          onSubmit={(event) => {
            event.preventDefault();
            start.mutate();
          }}
        >
          {!one && (
            <Row label="Which">
              <Segments
                label={`Which ${many}`}
                value={which}
                onChange={setWhich}
                options={[
                  {
                    key: 'all',
                    label: tape.first
                      ? `the first ${format.number(Math.min(total, tape.first))} of ${format.number(total)}`
                      : `all ${format.number(total)}`,
                  },
                  {
                    key: 'picked',
                    label:
                      anyPicked && acted.count !== null
                        ? `the ${format.number(acted.count)} picked`
                        : 'those picked',
                    off: anyPicked ? undefined : 'None is picked',
                  },
                ]}
              />
              {gone > 0 && (
                <p className="mt-1 text-[13px] text-unsure">
                  {format.number(gone)} of those picked no longer pass the tape and stay off.
                </p>
              )}
            </Row>
          )}
          <Row label="Kept off">
            {going.data && <KeptOff going={going.data} along={along} onAlong={setAlong} />}
            <Trouble error={going.error} />
          </Row>
          <Row label="Columns">
            <Segments
              label="Which columns"
              value={choice}
              onChange={setChoice}
              options={[
                { key: 'shown', label: `those of the sheet (${shown.length})` },
                ...(mailing.length > 2
                  ? [
                      {
                        key: 'mailing' as const,
                        label: tape.subject === 'people' ? 'name, mail, company' : 'names and addresses',
                      },
                    ]
                  : []),
                { key: 'own', label: 'chosen here' },
              ]}
            />
            {choice === 'own' ? (
              <div className="mt-2 rounded-md border border-edge">
                <ColumnChoice tape={tape} columns={own} tally={tally} onColumns={setOwn} />
              </div>
            ) : (
              <p className="mt-1 text-[13px] text-soft">
                {columns.map((id) => columnOf(tape, id, tally)?.heading ?? id).join(', ')}
              </p>
            )}
            <ExportPreview
              wish={{ tape: countedPart(tape), sort, ...(which === 'picked' ? picksBody(picks) : {}) }}
              columns={columns}
              currency={settings.currency}
            />
          </Row>
          <Row label="File">
            <div className="flex flex-wrap items-center gap-3">
              <Segments
                label="File"
                value={file}
                onChange={setFile}
                options={[
                  { key: 'xlsx', label: 'XLSX workbook' },
                  { key: 'csv', label: 'CSV' },
                ]}
              />
              {file === 'csv' && (
                <>
                  <select
                    aria-label="Delimiter"
                    value={delimiter}
                    onChange={(event) => setDelimiter(event.target.value as typeof delimiter)}
                    className="field"
                  >
                    <option value=",">comma</option>
                    <option value=";">semicolon</option>
                    <option value={'\t'}>tab</option>
                    <option value="|">pipe</option>
                  </select>
                  <label
                    className="flex items-center gap-2"
                    title="Some spreadsheets need it to see that the file is UTF-8"
                  >
                    <input type="checkbox" checked={bom} onChange={(event) => setBom(event.target.checked)} />{' '}
                    byte order mark
                  </label>
                </>
              )}
            </div>
            <p className="mt-1 text-[13px] text-soft">
              {file === 'xlsx'
                ? 'Real numbers and dates, and a second sheet “How this list was made”.'
                : 'UTF-8. Cells that a spreadsheet would run as a formula begin with an apostrophe.'}
            </p>
          </Row>
          <Row label="Name">
            <input
              value={name}
              maxLength={120}
              onChange={(event) => setName(event.target.value)}
              aria-label="Name of the export"
              className="field w-full"
            />
          </Row>
          <Trouble error={start.error} />
          <div className="flex justify-end gap-2 border-t border-rule pt-3">
            <Button onClick={onClose}>Cancel</Button>
            <Button
              look="ink"
              type="submit"
              autoFocus
              disabled={
                count === 0 || unsaid || columns.length === 0 || name.trim() === '' || start.isPending
              }
              title={
                count === 0
                  ? 'Nobody is left to export'
                  : unsaid
                    ? 'Say why those of a suppression list go out'
                    : undefined
              }
            >
              {count === null ? 'Counting …' : `Export ${format.number(count)}`}
            </Button>
          </div>
        </form>
      )}
    </Dialog>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="grid grid-cols-[76px_minmax(0,1fr)] gap-3">
      <span className="pt-1.5 text-soft">{label}</span>
      <div>{children}</div>
    </div>
  );
}
