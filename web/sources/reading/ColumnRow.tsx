import clsx from 'clsx';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import type { FileReadingAnswer } from '../../../contract/readings.ts';
import type { UploadAnswer } from '../../../contract/responses.ts';
import type { Mapping } from '../../../core/records/mapping.ts';
import { useFormat } from '../../app/format.ts';
import { wordMade } from './MadeColumns.tsx';
import { NotUnderstood } from './NotUnderstood.tsx';
import { HowWritten } from './HowWritten.tsx';

/** Cells of a column that are shown as they came and as they were understood. */
const SHOWN = 3;

/** One column of the file: what it is read as and how, its first cells as they came and as they were understood, and what it comes to over the whole file. */
export function ColumnRow({
  at,
  file,
  mapping,
  unread,
  answer,
  onReadAs,
  onMapping,
}: {
  at: number;
  file: UploadAnswer;
  mapping: Mapping;
  /** What becomes of a column that is not read. */
  unread: string;
  answer: FileReadingAnswer | null;
  onReadAs(id: string | null): void;
  onMapping(part: Partial<Mapping>): void;
}) {
  const format = useFormat();
  const [open, setOpen] = useState(false);
  const id = mapping.columns[at] ?? null;
  const heading = file.header[at]!;
  const name = heading || `column ${at + 1}`;
  const made = file.made[at - (file.header.length - file.made.length)];
  const partOf = file.made.findIndex((column) => column.way !== 'same' && column.of.includes(at));
  const read = answer?.columns[at];
  const asked = mapping.undecided?.find(({ column }) => column === at);
  const samples = samplesOf(file, answer, at);
  const answered = Object.keys(mapping.answers?.[at] ?? {}).length;
  return (
    <>
      <tr
        className={clsx(
          'border-b border-rule align-top',
          asked && 'bg-paper shadow-[inset_3px_0_0_var(--unsure)]',
        )}
      >
        <th scope="row" className={clsx('max-w-40 py-2 pr-3 text-left font-semibold', asked && 'pl-2')}>
          <span className="block truncate" title={heading}>
            {name}
          </span>
          {made && (
            <span className="block text-[13px] font-normal text-soft">{wordMade(made, file.header)}</span>
          )}
        </th>
        <td className="py-1.5 pr-3">
          <select
            aria-label={`Column ${heading || at + 1} is read as`}
            value={id ?? ''}
            onChange={(event) => onReadAs(event.target.value || null)}
            className={clsx('field w-44 py-1', !id && 'text-soft')}
          >
            <option value="">{partOf < 0 ? unread : `part of “${file.made[partOf]!.heading}”`}</option>
            {file.columns.map((column) => (
              <option key={column.id} value={column.id}>
                {column.label}
              </option>
            ))}
          </select>
          {id !== null && (
            <HowWritten
              at={at}
              name={name}
              id={id}
              mapping={mapping}
              samples={samples}
              onMapping={onMapping}
            />
          )}
        </td>
        <td className="max-w-72 py-2 pr-3 text-[13px]">
          {samples.map(({ came, understood }, i) => (
            <span key={i} className="block truncate" title={`${came} → ${understood ?? ''}`}>
              <span className={id === null ? 'text-soft' : undefined}>{came}</span>
              {id !== null && !asked && understood !== null && understood !== came && (
                <>
                  <span className="text-soft"> → </span>
                  {understood === '' ? (
                    <em className="text-unsure">empty</em>
                  ) : (
                    <span className="figure">{understood}</span>
                  )}
                </>
              )}
            </span>
          ))}
        </td>
        <td className="figure py-2 pr-3 text-right">
          {id !== null && read ? format.number(read.understood) : ''}
        </td>
        <td
          className="figure py-2 pr-3 text-right text-soft"
          title={read?.emptyWords.map(({ word, count }) => `${word} ${format.number(count)}`).join(', ')}
        >
          {id !== null && read ? format.number(read.empty) : ''}
          {read && read.emptyWords.length > 0 && (
            <span className="block max-w-28 truncate font-sans text-[12px]">
              {read.emptyWords.map(({ word }) => word).join(', ')}
            </span>
          )}
        </td>
        <td className="py-1.5 text-right">
          {read && (read.notUnderstood > 0 || answered > 0) ? (
            <button
              type="button"
              aria-expanded={open}
              aria-label={`${format.number(read.notUnderstood)} not understood in ${name}`}
              onClick={() => setOpen(!open)}
              className="figure inline-flex items-center gap-1 rounded px-1.5 py-0.5 font-semibold text-unsure hover:bg-ground"
            >
              {open ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
              {format.number(read.notUnderstood)}
            </button>
          ) : (
            <span className="figure pr-1.5 text-soft">{id !== null && read ? '0' : ''}</span>
          )}
        </td>
      </tr>
      {open && read && (
        <tr className="border-b border-rule">
          <td colSpan={6} className="pb-3">
            <NotUnderstood at={at} name={name} read={read} mapping={mapping} onMapping={onMapping} />
          </td>
        </tr>
      )}
    </>
  );
}

/** The first cells that say something, as they came and, once the file is read, as they were understood. */
function samplesOf(
  file: UploadAnswer,
  answer: FileReadingAnswer | null,
  at: number,
): { came: string; understood: string | null }[] {
  const rows = answer ? answer.came : file.rows;
  return rows
    .map((cells, row) => ({
      came: (cells[at] ?? '').trim(),
      understood: answer?.understood[row]?.[at] ?? null,
    }))
    .filter(({ came }) => came !== '')
    .slice(0, SHOWN);
}
