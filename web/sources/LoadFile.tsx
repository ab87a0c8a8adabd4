import { useMutation } from '@tanstack/react-query';
import clsx from 'clsx';
import { FileUp } from 'lucide-react';
import { useRef, useState } from 'react';
import type { Job, UploadAnswer } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { useHealth } from '../desk/queries.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { MapColumns } from './MapColumns.tsx';

/** Loading a file: choose it, see how it is read and correct that, then load it as a job. */
export function LoadFile({ onLeave, onStarted }: { onLeave(): void; onStarted(job: Job): void }) {
  const { data: health } = useHealth();
  const [over, setOver] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);
  const upload = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append('file', file);
      return call<UploadAnswer>('POST', '/uploads', form);
    },
  });
  const take = (files: FileList | null) => {
    const file = files?.[0];
    if (file) upload.mutate(file);
  };
  return (
    <main className="min-h-0 flex-1 overflow-auto px-5 pt-4 pb-6">
      <div className="flex items-center gap-4 pb-4">
        <h1 className="title text-[25px]">Load a file</h1>
        <p className="text-soft">Companies, people, sites, deals or events, one a row, as CSV or XLSX.</p>
        <Button className="ml-auto" onClick={onLeave}>
          Back to the sources
        </Button>
      </div>
      {upload.data ? (
        <MapColumns
          key={upload.data.upload}
          first={upload.data}
          today={health?.asOf ?? new Date().toISOString().slice(0, 10)}
          onStarted={onStarted}
          onAnother={() => upload.reset()}
        />
      ) : (
        <>
          <div
            className={clsx(
              'grid place-items-center rounded-lg border-2 border-dashed p-14 text-center',
              over ? 'border-ink bg-paper' : 'border-edge',
            )}
            onDragOver={(event) => {
              event.preventDefault();
              setOver(true);
            }}
            onDragLeave={() => setOver(false)}
            onDrop={(event) => {
              event.preventDefault();
              setOver(false);
              take(event.dataTransfer.files);
            }}
          >
            <FileUp size={30} className="text-soft" />
            <p className="mt-3 text-base">Drop a file here, or</p>
            <Button
              look="ink"
              className="mt-3"
              disabled={upload.isPending}
              onClick={() => chooser.current?.click()}
            >
              {upload.isPending ? 'Reading …' : 'Choose a file'}
            </Button>
            <p className="mt-4 max-w-lg text-[13px] text-soft">
              UTF-8, UTF-16, Windows-1250 and 1252; comma, semicolon, tab or pipe; decimal comma or point;
              headings in a dozen languages; bands such as 10-49 and 50+; estimates such as ≈120 (90-160).
              Nothing is kept until you say so.
            </p>
            <input
              ref={chooser}
              type="file"
              accept=".csv,.tsv,.txt,.xlsx"
              aria-label="File of companies"
              className="hidden"
              onChange={(event) => {
                take(event.target.files);
                event.target.value = '';
              }}
            />
          </div>
          <div className="mt-4">
            <Trouble error={upload.error} />
          </div>
        </>
      )}
    </main>
  );
}
