import { useMutation } from '@tanstack/react-query';
import clsx from 'clsx';
import { FileUp } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { Job, UploadAnswer } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { useHealth } from '../desk/queries.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { ReadingScreen } from './reading/ReadingScreen.tsx';
import type { Use } from './reading/WhatTheseAre.tsx';

/** Loading a file: choose it, see how it is read and correct that, then load it as a job. */
export function LoadFile({
  use,
  given = null,
  onLeave,
  onStarted,
  onMatched,
}: {
  /** What the rows are taken for at first. */
  use: Use;
  /** A file that was made here, instead of one to be chosen. */
  given?: File | null;
  onLeave(): void;
  onStarted(job: Job): void;
  onMatched(match: string): void;
}) {
  const { data: health } = useHealth();
  const [over, setOver] = useState(false);
  const [pasted, setPasted] = useState('');
  const chooser = useRef<HTMLInputElement>(null);
  const upload = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append('file', file);
      return call<UploadAnswer>('POST', '/uploads', form);
    },
  });
  const { mutate } = upload;
  useEffect(() => {
    if (given) mutate(given);
  }, [given, mutate]);
  const take = (files: FileList | null) => {
    const file = files?.[0];
    if (file) upload.mutate(file);
  };
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <div className="flex items-center gap-4 border-b border-edge px-5 py-3">
        <h1 className="title text-[25px]">{use === 'match' ? 'Match a file' : 'Load a file'}</h1>
        <p className="text-soft">
          {use === 'match'
            ? 'Companies you already have in mind, one a row: found again in the universe.'
            : 'Companies, people, sites, deals, brands or events, one a row.'}
        </p>
        <Button className="ml-auto" onClick={onLeave}>
          Back to the sources
        </Button>
      </div>
      {upload.data ? (
        <ReadingScreen
          key={upload.data.upload}
          first={upload.data}
          today={health?.asOf ?? new Date().toISOString().slice(0, 10)}
          use={use}
          onStarted={onStarted}
          onMatched={onMatched}
          onAnother={() => upload.reset()}
        />
      ) : (
        <div className="px-5 pt-4 pb-6">
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
              CSV and other tables of text, XLSX, ODS, JSON Lines, GeoJSON, vCard and Parquet, also packed.
              Before anything is kept you see how each column is read and what of the file is not understood.
            </p>
            <input
              ref={chooser}
              type="file"
              accept=".csv,.tsv,.txt,.xlsx,.xlsm,.ods,.json,.jsonl,.ndjson,.geojson,.vcf,.parquet,.gz,.zip"
              aria-label="File of companies"
              className="hidden"
              onChange={(event) => {
                take(event.target.files);
                event.target.value = '';
              }}
            />
          </div>
          {use === 'match' && (
            <div className="mt-4">
              <label className="block">
                <span className="text-soft">
                  Or paste a column of names or domains, or several from a sheet
                </span>
                <textarea
                  className="field figure mt-1 h-28 w-full resize-y py-1.5 text-[13px]"
                  placeholder={'zarmysko.example\nLakovna Veldín, Brno'}
                  maxLength={2_000_000}
                  value={pasted}
                  onChange={(event) => setPasted(event.target.value)}
                />
              </label>
              <Button
                className="mt-1.5"
                disabled={pasted.trim() === '' || upload.isPending}
                onClick={() => upload.mutate(new File([pasted], 'pasted.csv', { type: 'text/csv' }))}
              >
                Use what is pasted
              </Button>
            </div>
          )}
          <div className="mt-4">
            <Trouble error={upload.error} />
          </div>
        </div>
      )}
    </main>
  );
}
