import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { GoneWay } from '../../../contract/load-requests.ts';
import type { RememberedReading } from '../../../contract/readings.ts';
import type { Job, UploadAnswer } from '../../../contract/responses.ts';
import { oneOf, subjectOf } from '../../../core/fields/registry.ts';
import { CURRENCIES } from '../../../core/money/rates.ts';
import { MONEY_COLUMNS, stylesOf } from '../../../core/records/column-styles.ts';
import type { Mapping } from '../../../core/records/mapping.ts';
import { KNOWN_BY, TELLING } from '../../../core/records/telling.ts';
import { READ_SUBJECTS } from '../../../core/records/read-related.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Segments, Trouble } from '../../ui/controls.tsx';
import { ColumnRow } from './ColumnRow.tsx';
import { Choice, Labelled } from './fields.tsx';
import { LoadChoices, type Unread } from './LoadChoices.tsx';
import { MadeColumns } from './MadeColumns.tsx';
import { isSameFile, withMadeOnes } from './keep-choices.ts';
import { HowFile } from './HowFile.tsx';
import { ReadingRoll } from './ReadingRoll.tsx';
import { MatchIt } from '../match/MatchIt.tsx';
import { WhatTheseAre, type Use } from './WhatTheseAre.tsx';
import { useOlder } from './use-older.ts';
import { useReading, type ReadWish } from './useReading.ts';

/** Columns that are shown at once; a file with more is rarely meant to have them. */
const SHOWN_COLUMNS = 200;

/** A mapping with only the columns that tell which company a row is of; nothing is asked of the others. */
function telling(mapping: Mapping): Mapping {
  const { undecided: _, ...rest } = mapping;
  const columns = mapping.columns.map((id) => (id !== null && TELLING.has(id) ? id : null));
  return { ...rest, columns, unreadable: 'empty' };
}

/** How a file is read: each column with what it is and how it is written, what the whole file comes to, and what of it was not understood. */
export function ReadingScreen({
  first,
  today,
  use: firstUse,
  onStarted,
  onMatched,
  onAnother,
}: {
  first: UploadAnswer;
  today: string;
  use: Use;
  onStarted(job: Job): void;
  onMatched(match: string): void;
  onAnother(): void;
}) {
  const format = useFormat();
  const [file, setFile] = useState(first);
  const [mapping, setMapping] = useState<Mapping>(first.mapping);
  const [name, setName] = useState(first.fileName.replace(/(\.[a-z0-9]+){1,2}$/i, ''));
  const [licence, setLicence] = useState('');
  const [asOf, setAsOf] = useState(today);
  const [bad, setBad] = useState<Unread>('empty');
  const [joinSure, setJoinSure] = useState(true);
  const [covers, setCovers] = useState('');
  const [all, setAll] = useState(false);
  const [use, setUse] = useState(firstUse);
  const older = useOlder(file);
  const [chosen, setChosen] = useState<string | null>(null);
  const [gone, setGone] = useState<GoneWay>('removed');
  const refreshed = use === 'refresh' ? (older.find(({ key }) => key === chosen) ?? older[0] ?? null) : null;
  const { subject } = file;
  const matching = use === 'match';
  const wish: ReadWish = {
    ...(file.kind === 'csv' ? { encoding: file.encoding, delimiter: file.delimiter } : {}),
    ...(file.kind !== 'csv' && file.sheet != null ? { sheet: file.sheet } : {}),
    hasHeader: file.hasHeader,
    ...(file.skip === undefined ? {} : { skip: file.skip }),
    ...(file.headerRows === undefined ? {} : { headerRows: file.headerRows }),
    ...(file.made.length ? { made: file.made } : {}),
    subject,
  };
  const sent: Mapping = matching
    ? telling(mapping)
    : { ...mapping, unreadable: bad === 'empty' ? 'empty' : 'refuse' };
  const offered = matching ? { ...file, columns: file.columns.filter(({ id }) => TELLING.has(id)) } : file;
  const reading = useReading(file.upload, wish, sent, matching);
  const again = useMutation({
    mutationFn: (part: Partial<ReadWish>) => {
      // What depends on another part is recognised anew with it.
      const { headerRows, hasHeader, skip, made, ...rest } = wish;
      const shape =
        'skip' in part || 'headerRows' in part
          ? { headerRows, skip }
          : 'sheet' in part
            ? {}
            : { headerRows, hasHeader, skip, ...('encoding' in part || 'delimiter' in part ? {} : { made }) };
      return call<UploadAnswer>('POST', `/uploads/${file.upload}/preview`, { ...rest, ...shape, ...part });
    },
    onSuccess: (answer) => {
      const same = answer.subject === subject && answer.header.join('\n') === file.header.join('\n');
      setFile(answer);
      // What was chosen for the columns stays while they are the same.
      if (!same) setMapping(isSameFile(file, answer) ? withMadeOnes(mapping, file, answer) : answer.mapping);
    },
  });
  const load = useMutation({
    mutationFn: () =>
      call<{ job: Job }>('POST', '/sources', {
        upload: file.upload,
        name: refreshed?.name ?? name.trim(),
        ...(refreshed && { refreshes: refreshed.key, gone }),
        licence: licence.trim() || null,
        asOf,
        read: wish,
        mapping: sent,
        allOrNothing: bad === 'nothing',
        joinSure,
        covers: covers
          .toUpperCase()
          .split(/[\s,;]+/)
          .filter(Boolean),
      }),
    onSuccess: ({ job }) => onStarted(job),
  });
  const match = useMutation({
    mutationFn: () =>
      call<{ job: Job }>('POST', '/matches', {
        upload: file.upload,
        name: name.trim(),
        read: wish,
        mapping: sent,
      }),
  });
  const change = (part: Partial<Mapping>) => setMapping({ ...mapping, ...part });
  /** Reads the file as one with the same headings was read, answers and all. */
  const takeOver = (before: RememberedReading) => {
    const madeNow = JSON.stringify(file.made) === JSON.stringify(before.made);
    if (before.subject !== subject || !madeNow)
      again.mutate(
        { subject: before.subject, made: before.made },
        { onSuccess: () => setMapping(before.mapping) },
      );
    else setMapping(before.mapping);
    setName(before.name);
    if (before.mapping.unreadable) setBad(before.mapping.unreadable);
  };
  const readAs = (column: number, id: string | null) => {
    const columns = mapping.columns.map((one, i) => (i === column ? id : one === id ? null : one));
    // What was asked of a column is not asked any more of what it is now.
    const undecided = (mapping.undecided ?? []).filter(({ column: at, what }) =>
      stylesOf(columns[at] ?? '').includes(what),
    );
    change({ columns, ...(mapping.undecided ? { undecided } : {}) });
  };
  const has = (id: string) => mapping.columns.includes(id);
  const unread = sent.columns.filter((id) => id === null).length;
  const trouble = matching
    ? KNOWN_BY.some(has)
      ? null
      : 'No column tells which company a row is of. Choose its name, number, web, mail or phone.'
    : subject === 'companies' && !has('name')
      ? 'No column is read as the company’s name. Choose “Company” beside the column that has it.'
      : subject !== 'companies' &&
          subjectOf(subject).relation!.roles.length === 0 &&
          !['company-number', 'company-domain', 'company-name'].some(has)
        ? 'No column says which company a row belongs to. Choose its registration number, domain or name.'
        : mapping.undecided?.length
          ? `Say how “${file.header[mapping.undecided[0]!.column] ?? ''}” is written: it can be read in two ways.`
          : null;

  return (
    <div className="flex min-h-0 flex-1">
      <div className="min-h-0 min-w-0 flex-1 space-y-4 overflow-auto px-5 pt-3 pb-6">
        <p>
          <strong>{file.fileName}</strong>{' '}
          <span className="text-soft">
            {format.bytes(file.bytes)}, {file.was ?? file.kind.toUpperCase()},{' '}
            {file.header.length - file.made.length} columns
          </span>{' '}
          <Button look="quiet" className="underline" onClick={onAnother}>
            another file
          </Button>
        </p>
        <WhatTheseAre
          use={use}
          older={older}
          refreshed={refreshed}
          same={older.find(({ key }) => key === file.sameAs) ?? null}
          subject={subject}
          gone={gone}
          onUse={(next) => {
            setUse(next);
            if (next === 'match' && subject !== 'companies') again.mutate({ subject: 'companies' });
          }}
          onOlder={setChosen}
          onGone={setGone}
        />
        <div className={use === 'match' ? 'hidden' : 'flex flex-wrap items-center gap-3'}>
          <span className="text-soft">Each row is</span>
          <Segments
            label="What each row is"
            value={subject}
            options={['companies', ...READ_SUBJECTS].map((id) => ({ key: id, label: oneOf(id) }))}
            onChange={(next) => {
              setUse('source');
              again.mutate({ subject: next });
            }}
          />
        </div>
        <HowFile file={file} one={oneOf(subject)} onChange={(part) => again.mutate(part)} />
        {file.undecodable > 0 && (
          <p className="text-unsure">
            <span className="figure">{format.number(file.undecodable)}</span> bytes are no character in this
            encoding. Is another one meant?
          </p>
        )}
        {file.remembered.length > 0 && (
          <p className="flex flex-wrap items-baseline gap-2">
            <span className="text-soft">Files with the same headings were read before. Read it as</span>
            {file.remembered.map((one) => (
              <Button key={one.name} onClick={() => takeOver(one)}>
                {one.name}, {format.date(one.usedAt.slice(0, 10))}
              </Button>
            ))}
          </p>
        )}
        <Trouble error={again.error ?? reading.error} />
        <section>
          <h2 className="title pb-1 text-[17px]">How each column is read</h2>
          <table className="w-full">
            <thead className="border-b border-edge text-left text-[13px]">
              <tr>
                <th className="py-1 pr-3 font-semibold">Column</th>
                <th className="py-1 pr-3 font-semibold">is read as</th>
                <th className="py-1 pr-3 font-semibold">came → understood</th>
                <th className="py-1 pr-3 text-right font-semibold">understood</th>
                <th className="py-1 pr-3 text-right font-semibold">empty</th>
                <th className="py-1 text-right font-semibold">not understood</th>
              </tr>
            </thead>
            <tbody>
              {file.header.slice(0, all ? undefined : SHOWN_COLUMNS).map((_, at) => (
                <ColumnRow
                  key={at}
                  at={at}
                  file={offered}
                  mapping={matching ? sent : mapping}
                  unread={matching ? 'carried along' : 'left out'}
                  answer={reading.answer?.columns.length === file.header.length ? reading.answer : null}
                  onReadAs={(id) => readAs(at, id)}
                  onMapping={change}
                />
              ))}
            </tbody>
          </table>
          {!all && file.header.length > SHOWN_COLUMNS && (
            <Button className="mt-2" onClick={() => setAll(true)}>
              Show the other {format.number(file.header.length - SHOWN_COLUMNS)} columns
            </Button>
          )}
          <MadeColumns file={file} off={again.isPending} onMade={(made) => again.mutate({ made })} />
          <p className="mt-1 text-[13px] text-soft">
            {file.header.length - unread} of {file.header.length} columns are read
            {unread > 0 &&
              (matching
                ? '; the others go along with the companies found, and onto their list'
                : '; the others are kept with the records as they came, but not counted')}
            .
          </p>
        </section>
        <section className="flex flex-wrap gap-4 border-t border-edge pt-3">
          {!matching && mapping.columns.some((id) => id !== null && MONEY_COLUMNS.has(id)) && (
            <>
              <Choice
                label="Currency where none is named"
                value={mapping.currency}
                options={CURRENCIES.map((code) => [code, code])}
                onChange={(currency) => change({ currency })}
              />
              {!has('revenue-year') && (
                <Labelled label="Year of the figures">
                  <input
                    type="number"
                    className="field figure w-24"
                    value={mapping.year}
                    onChange={(event) => change({ year: Number(event.target.value) })}
                  />
                </Labelled>
              )}
            </>
          )}
          {!has('country') && !has('company-country') && (
            <Labelled
              label={
                mapping.country !== null && mapping.country === file.mapping.country
                  ? 'Country of all rows, as the file suggests'
                  : 'Country of all rows'
              }
            >
              <input
                className="field figure w-24 uppercase"
                maxLength={2}
                placeholder="none"
                value={mapping.country ?? ''}
                onChange={(event) => change({ country: event.target.value.trim().toUpperCase() || null })}
              />
            </Labelled>
          )}
          {!matching && (
            <LoadChoices
              unread={bad}
              onUnread={setBad}
              joins={subject === 'companies' ? joinSure : null}
              onJoins={setJoinSure}
            />
          )}
        </section>
        <section className="flex flex-wrap gap-4 border-t border-edge pt-3">
          {!refreshed && (
            <Labelled label={matching ? 'Name of the match' : 'Name of the source'}>
              <input
                className="field w-64"
                value={name}
                maxLength={120}
                onChange={(event) => setName(event.target.value)}
              />
            </Labelled>
          )}
          {!matching && (
            <>
              <Labelled label="As of">
                <input
                  type="date"
                  className="field"
                  value={asOf}
                  onChange={(event) => setAsOf(event.target.value)}
                />
              </Labelled>
              <Labelled label="Licence, if any">
                <input
                  className="field w-56"
                  value={licence}
                  maxLength={300}
                  onChange={(event) => setLicence(event.target.value)}
                />
              </Labelled>
            </>
          )}
        </section>
        {subject !== 'companies' && !matching && (
          <Labelled label={`Countries of which this file has all ${subjectOf(subject).many}, by ISO code`}>
            <input
              className="field figure w-96 uppercase"
              placeholder="none"
              value={covers}
              onChange={(event) => setCovers(event.target.value)}
            />
            <span className="block pt-1 text-[13px] text-soft">
              There a company without any is a no; elsewhere nothing is known of companies that the file does
              not name.
            </span>
          </Labelled>
        )}
      </div>
      <ReadingRoll
        fileName={file.fileName}
        many={matching ? 'rows to match' : subjectOf(subject).many}
        matching={matching}
        reading={reading}
      >
        <Trouble error={load.error ?? match.error} />
        {trouble && (
          <p role="alert" className="w-full text-[13px] text-cut">
            {trouble}
          </p>
        )}
        {matching ? (
          <MatchIt
            started={match.data?.job.id ?? null}
            off={trouble !== null || name.trim() === '' || match.isPending || again.isPending}
            onStart={() => match.mutate()}
            onMatched={onMatched}
          />
        ) : (
          <Button
            look="ink"
            disabled={
              trouble !== null || name.trim() === '' || asOf === '' || load.isPending || again.isPending
            }
            onClick={() => load.mutate()}
          >
            {refreshed ? 'Put it in place' : 'Load it'}
          </Button>
        )}
      </ReadingRoll>
    </div>
  );
}
