import type { GoneWay } from '../../../contract/load-requests.ts';
import type { SourceView } from '../../../contract/responses.ts';
import { subjectOf } from '../../../core/fields/registry.ts';
import { capital } from '../../../core/text/capital.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Segments } from '../../ui/controls.tsx';
import { Choice } from './fields.tsx';

/** What the rows of a file are: new records of the universe, companies to be found in it, or a newer version of a source. */
export type Use = 'source' | 'match' | 'refresh';

/** Whether a record of a subject may be of several sources. */
export const isShared = (subject: string): boolean => subject === 'companies' || subject === 'deals';

/** What becomes of records that a newer version has no more, where they are not kept. */
const leavesWords = (subject: string): string =>
  isShared(subject) ? 'leave, unless another source has them' : 'leave';

/** The question what the rows are, and of a newer version, of which source, and what becomes of what it has no more. */
export function WhatTheseAre({
  use,
  older,
  refreshed,
  same,
  subject,
  gone,
  onUse,
  onOlder,
  onGone,
}: {
  use: Use;
  /** Sources that the file may be newer than. */
  older: readonly SourceView[];
  /** The one of them that it is; null where it is none. */
  refreshed: SourceView | null;
  /** The one of them that was loaded from this very file; null where none was. */
  same: SourceView | null;
  /** What each row of the file is. */
  subject: string;
  gone: GoneWay;
  onUse(use: Use): void;
  onOlder(key: string): void;
  onGone(gone: GoneWay): void;
}) {
  const format = useFormat();
  const { many } = subjectOf(subject);
  return (
    <>
      <div className="flex flex-wrap items-center gap-3">
        <span className="text-soft">These are</span>
        <Segments
          label="What these are"
          value={use}
          options={[
            { key: 'source', label: 'new records for the universe' },
            { key: 'match', label: 'companies I already have in mind' },
            {
              key: 'refresh',
              label: 'a newer version of …',
              ...(older.length === 0 ? { off: `No source of ${many} is loaded yet` } : {}),
            },
          ]}
          onChange={onUse}
        />
      </div>
      {same && use === 'source' && (
        <p role="status" className="flex flex-wrap items-center gap-2 text-unsure">
          This very file was loaded on {format.date(same.loadedAt.slice(0, 10))} as “{same.name}”. Loaded as
          new records, all it says is there twice.
          <Button
            onClick={() => {
              onOlder(same.key);
              onUse('refresh');
            }}
          >
            Put it in the place of that
          </Button>
        </p>
      )}
      {refreshed && (
        <div className="flex flex-wrap items-end gap-4">
          <Choice
            label="The source whose place it takes"
            value={refreshed.key}
            options={older.map(({ key, name, asOf }) => [key, `${name}, ${format.date(asOf)}`])}
            onChange={onOlder}
          />
          <Choice
            label={`${capital(many)} that it has no more`}
            value={gone}
            options={[
              ['removed', leavesWords(subject)],
              ['kept', 'stay, as a source of their own'],
            ]}
            onChange={(next) => onGone(next as GoneWay)}
          />
        </div>
      )}
    </>
  );
}
