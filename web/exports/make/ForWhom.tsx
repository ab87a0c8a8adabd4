import { useQuery } from '@tanstack/react-query';
import type { ReceiverView } from '../../../contract/export-views.ts';
import { receiverOf } from '../../../core/exports/receiver.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import type { ChosenFile } from './wish.ts';

export function useReceivers() {
  return useQuery({
    queryKey: ['receivers'],
    queryFn: ({ signal }) => call<{ receivers: ReceiverView[] }>('GET', '/receivers', undefined, signal),
  });
}

const SPANS = [30, 90, 180, 365];

/** Whom a file is for, and whether what they, or anybody, had before stays off. */
export function ForWhom({ file, onFile }: { file: ChosenFile; onFile(file: ChosenFile): void }) {
  const format = useFormat();
  const { data } = useReceivers();
  const receivers = data?.receivers ?? [];
  const known = receivers.find(({ key }) => key === receiverOf(file.receiver).key);
  const { handed } = file;
  const named = file.receiver.trim() !== '';
  return (
    <div className="space-y-1.5">
      <input
        className="field w-full"
        aria-label="Whom it is for"
        list="receivers"
        placeholder="A printer, a colleague, another system; the ledger keeps what each has had"
        maxLength={80}
        value={file.receiver}
        onChange={(event) => onFile({ ...file, receiver: event.target.value })}
      />
      <datalist id="receivers">
        {receivers.map(({ key, name }) => (
          <option key={key} value={name} />
        ))}
      </datalist>
      {known && named && (
        <p className="text-[13px] text-soft">
          {known.name} has had <span className="figure">{format.number(known.records)}</span> records in{' '}
          {known.exports === 1 ? 'one export' : `${format.number(known.exports)} exports`}, the last on{' '}
          {format.date(known.last)}.
        </p>
      )}
      <div className="flex flex-wrap items-center gap-1.5 text-[13px]">
        leave out
        <select
          className="field py-1"
          aria-label="Whose earlier records stay off"
          value={handed?.who ?? 'nobody'}
          onChange={(event) => {
            const who = event.target.value as 'nobody' | 'receiver' | 'anybody';
            onFile({ ...file, handed: who === 'nobody' ? null : { who, days: handed?.days ?? null } });
          }}
        >
          <option value="nobody">nobody</option>
          <option value="receiver" disabled={!named}>
            what {named ? file.receiver.trim() : 'the receiver'} has had
          </option>
          <option value="anybody">what anybody has had</option>
        </select>
        {handed && (
          <>
            <select
              className="field py-1"
              aria-label="Within which span"
              value={handed.days ?? 'ever'}
              onChange={(event) =>
                onFile({
                  ...file,
                  handed: {
                    ...handed,
                    days: event.target.value === 'ever' ? null : Number(event.target.value),
                  },
                })
              }
            >
              <option value="ever">at any time</option>
              {SPANS.map((days) => (
                <option key={days} value={days}>
                  in the past {days} days
                </option>
              ))}
            </select>
          </>
        )}
      </div>
    </div>
  );
}
