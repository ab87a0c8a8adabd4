import { useRef, useState } from 'react';
import { readTerms, sheetColumns, writeTerms } from '../../core/gather/words-places.ts';
import { useFormat } from '../app/format.ts';
import { FromList } from './FromList.tsx';

/** Largest file of words that is read here. */
const MOST = 2_000_000;

/** Words or places: typed, pasted, from a file, or from a column of a list. */
export function TermsField({
  label,
  placeholder,
  value,
  onChange,
}: {
  label: string;
  placeholder: string;
  value: string;
  onChange(value: string): void;
}) {
  const format = useFormat();
  const file = useRef<HTMLInputElement>(null);
  const [sheet, setSheet] = useState<ReturnType<typeof sheetColumns>>(null);
  const [fromList, setFromList] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const count = readTerms(value).length;
  const add = (terms: readonly string[]) => {
    onChange(writeTerms(readTerms(`${value}\n${writeTerms(terms)}`)));
    setSheet(null);
  };
  return (
    <div>
      <div className="flex items-baseline justify-between text-[13px]">
        <label htmlFor={`terms-${label}`} className="text-soft">
          {label} <span className="figure">{count > 0 && format.number(count)}</span>
        </label>
        <span className="flex gap-3">
          <button
            type="button"
            aria-expanded={fromList}
            className="text-soft underline underline-offset-4 hover:text-ink"
            onClick={() => setFromList(!fromList)}
          >
            from a list
          </button>
          <button
            type="button"
            className="text-soft underline underline-offset-4 hover:text-ink"
            onClick={() => file.current?.click()}
          >
            from a file
          </button>
        </span>
        <input
          ref={file}
          type="file"
          accept=".txt,.csv,.tsv,text/*"
          className="hidden"
          aria-label={`${label} from a file`}
          onChange={(event) => {
            const [one] = event.target.files ?? [];
            event.target.value = '';
            if (!one) return;
            if (one.size > MOST) return setTrouble(`${one.name} is larger than ${MOST / 1e6} MB.`);
            setTrouble(null);
            void one.text().then((text) => {
              const plain = text.replace(/^\uFEFF/, '');
              const columns = sheetColumns(plain);
              if (columns) setSheet(columns);
              else add(readTerms(plain));
            });
          }}
        />
      </div>
      <textarea
        id={`terms-${label}`}
        aria-label={label}
        className="field h-24 w-full"
        placeholder={placeholder}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
      {fromList && (
        <FromList
          label={label}
          onTerms={(terms) => {
            add(terms);
            setFromList(false);
          }}
        />
      )}
      {trouble && (
        <p role="alert" className="text-[13px] text-cut">
          {trouble}
        </p>
      )}
      {sheet && (
        <div
          className="flex flex-wrap items-baseline gap-1.5 text-[13px]"
          role="group"
          aria-label={`Column of ${label}`}
        >
          which column?
          {sheet.map(({ heading, terms }, i) => (
            <button
              key={`${i} ${heading}`}
              type="button"
              className="rounded border border-edge bg-paper px-1.5 hover:border-ink"
              onClick={() => add(terms)}
            >
              {heading || `column ${i + 1}`}{' '}
              <span className="figure text-soft">{format.number(terms.length)}</span>
            </button>
          ))}
        </div>
      )}
    </div>
  );
}
