import { useRef } from 'react';
import { readTerms, writeTerms } from '../../core/gather/words-places.ts';
import { useFormat } from '../app/format.ts';

/** Largest file of words that is read here. */
const MOST = 2_000_000;

/** Words or places: typed, pasted, or from a file. */
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
  const count = readTerms(value).length;
  return (
    <div>
      <div className="flex items-baseline justify-between text-[13px]">
        <label htmlFor={`terms-${label}`} className="text-soft">
          {label} <span className="figure">{count > 0 && format.number(count)}</span>
        </label>
        <button
          type="button"
          className="text-soft underline underline-offset-4 hover:text-ink"
          onClick={() => file.current?.click()}
        >
          from a file
        </button>
        <input
          ref={file}
          type="file"
          accept=".txt,.csv,.tsv,text/*"
          className="hidden"
          aria-label={`${label} from a file`}
          onChange={(event) => {
            const [one] = event.target.files ?? [];
            event.target.value = '';
            if (one && one.size <= MOST)
              void one
                .text()
                .then((text) => onChange(writeTerms(readTerms(`${value}\n${text.replace(/^\uFEFF/, '')}`))));
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
    </div>
  );
}
