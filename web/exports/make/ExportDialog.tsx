import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ExportTemplateView } from '../../../contract/export-views.ts';
import type { Job } from '../../../contract/responses.ts';
import { checkComputed } from '../../../core/exports/computed.ts';
import { formatOf } from '../../../core/exports/formats.ts';
import { receiverOf } from '../../../core/exports/receiver.ts';
import { subjectOf } from '../../../core/fields/registry.ts';
import { isOwnColumn, ownColumnOf } from '../../../core/tape/own-columns.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { useSettings } from '../../app/settings.ts';
import { wordActed, type Acted } from '../../desk/acted.ts';
import { picksBody } from '../../desk/picks.ts';
import { countedPart, useTally } from '../../desk/queries.ts';
import { useDesk } from '../../desk/store.ts';
import { Button, Dialog, Segments, Trouble } from '../../ui/controls.tsx';
import { JobProgress } from '../../ui/JobProgress.tsx';
import { exportsChanged } from '../acts.ts';
import { ColumnsChoice } from './ColumnsChoice.tsx';
import { ExportPreview } from './ExportPreview.tsx';
import { ForWhom } from './ForWhom.tsx';
import { FormatChoice } from './FormatChoice.tsx';
import { GoingRoll, useGoingOut, type Along } from './GoingRoll.tsx';
import { MoreChoices, type Sample } from './MoreChoices.tsx';
import { canBePosted, NOWHERE, Targets, type Deliver } from './Targets.tsx';
import { TemplateChoice } from './TemplateChoice.tsx';
import { fileOfSheet, fileOfTemplate, fileWish, type ChosenFile } from './wish.ts';

/** An export of what is kept or picked, or of one record: what file and for whom on the left, what goes out and what stays off on the right. */
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
  const { many } = subjectOf(tape.subject);
  const whole = many.charAt(0).toUpperCase() + many.slice(1);
  const [name, setName] = useState(tape.name ?? whole);
  const sheet = () => fileOfSheet(shown, settings.currency, settings.paper);
  const [file, setFile] = useState<ChosenFile>(sheet);
  const [template, setTemplate] = useState<ExportTemplateView | null>(null);
  const [sample, setSample] = useState<Sample | null>(null);
  const [along, setAlong] = useState<Along>({});
  const [deliver, setDeliver] = useState<Deliver>(NOWHERE);
  const asFile = fileWish(file, receiverOf(file.receiver).key);
  const records = {
    tape: { ...countedPart(tape), ...(which === 'all' && tape.first ? { first: tape.first } : {}) },
    sort,
    ...(which === 'picked' ? picksBody(picks) : {}),
    ...(sample === null ? {} : { sample }),
  };
  const before = {
    ...records,
    format: file.format,
    ...(asFile.handed ? { handed: asFile.handed } : {}),
    ...(asFile.needs?.length ? { needs: asFile.needs } : {}),
  };
  const going = useGoingOut(before, along);
  const chosen = which === 'all' ? Math.min(total, tape.first ?? Infinity) : acted.count;
  const count = going.data && !going.isPlaceholderData ? going.data.goes : null;
  const unsaid = Object.values(along).some((reason) => reason.trim() === '');
  const start = useMutation({
    mutationFn: () =>
      call<{ export: string; job: Job }>('POST', '/exports', {
        name: name.trim(),
        ...records,
        ...asFile,
        ...(template ? { template: template.name } : {}),
        ...(deliver.folders.length + deliver.hooks.length
          ? { deliver: { folders: deliver.folders, hooks: canBePosted(file) ? deliver.hooks : [] } }
          : {}),
        along: Object.entries(along).map(([list, reason]) => ({ list, reason: reason.trim() })),
      }),
  });
  const wrong = computedTrouble(file, tape.subject);
  const stopped =
    count === 0
      ? 'Nobody is left to export'
      : unsaid
        ? 'Say why those of a suppression list go out'
        : (wrong ?? undefined);
  if (start.data)
    return (
      <Dialog
        title="Export"
        description={wordActed({ ...acted, count: chosen }, format.number)}
        open
        onClose={onClose}
      >
        <div className="space-y-4">
          <JobProgress
            id={start.data.job.id}
            onDone={() => {
              exportsChanged(client);
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
      </Dialog>
    );
  return (
    <Dialog
      title="Export"
      description={wordActed({ ...acted, count: chosen }, format.number)}
      open
      onClose={onClose}
      width={1120}
      fills
    >
      <form
        className="flex min-h-0 flex-1"
        onSubmit={(event) => {
          event.preventDefault();
          if (!stopped) start.mutate();
        }}
      >
        <div className="min-h-0 min-w-0 flex-1 space-y-4 overflow-y-auto px-5 py-4">
          <Row label="Template">
            <TemplateChoice
              subject={tape.subject}
              chosen={template?.id ?? null}
              file={file}
              name={name}
              onSheet={() => {
                setTemplate(null);
                setFile({ ...sheet(), receiver: file.receiver, handed: file.handed });
              }}
              onTemplate={(taken) => {
                setTemplate(taken);
                setFile(fileOfTemplate(taken, tape, { ...file, currency: settings.currency }));
                if (taken.fileName) setName(taken.fileName);
              }}
              onSaved={setTemplate}
            />
          </Row>
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
          <Row label="File">
            <FormatChoice subject={tape.subject} file={file} onFile={setFile} />
          </Row>
          {formatOf(file.format).columns && (
            <Row label="Columns">
              <ColumnsChoice tape={tape} tally={tally} shown={shown} file={file} onFile={setFile} />
              {wrong ? (
                <p role="alert" className="mt-1 text-[13px] text-cut">
                  {wrong}
                </p>
              ) : (
                <ExportPreview
                  wish={{ tape: countedPart(tape), sort, ...(which === 'picked' ? picksBody(picks) : {}) }}
                  file={file}
                />
              )}
            </Row>
          )}
          <Row label="For">
            <ForWhom file={file} onFile={setFile} />
            <Targets file={file} deliver={deliver} onDeliver={setDeliver} />
          </Row>
          <Row label="More">
            <MoreChoices
              key={template?.id ?? 'sheet'}
              subject={tape.subject}
              file={file}
              sample={sample}
              onFile={setFile}
              onSample={setSample}
            />
          </Row>
          <Row label="Name">
            <input
              value={name}
              maxLength={120}
              onChange={(event) => setName(event.target.value)}
              aria-label="Name of the export"
              className="field w-full"
            />
            <p className="mt-1 text-[13px] text-soft">{'“{date}” stands for the day.'}</p>
          </Row>
        </div>
        <GoingRoll
          wish={before}
          going={going.data}
          busy={going.isPlaceholderData}
          along={along}
          unit={many}
          onAlong={setAlong}
        >
          <div className="w-full space-y-2">
            <Trouble error={going.error ?? start.error} />
            <div className="flex gap-2">
              <Button
                look="ink"
                type="submit"
                autoFocus
                disabled={
                  stopped !== undefined || file.columns.length === 0 || name.trim() === '' || start.isPending
                }
                title={stopped}
              >
                {count === null ? 'Counting …' : `Export ${format.number(count)}`}
              </Button>
              <Button onClick={onClose}>Cancel</Button>
            </div>
          </div>
        </GoingRoll>
      </form>
    </Dialog>
  );
}

/** What is wrong with a computed column, in words; null where nothing is. */
function computedTrouble({ computed = [] }: ChosenFile, subject: string): string | null {
  for (const one of computed)
    try {
      if (one.heading.trim() === '') return 'A computed column has no heading.';
      checkComputed(one, subject);
    } catch (error) {
      return (error as Error).message;
    }
  return null;
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="grid grid-cols-[76px_minmax(0,1fr)] gap-3">
      <span className="pt-1 text-soft">{label}</span>
      <div>{children}</div>
    </div>
  );
}
