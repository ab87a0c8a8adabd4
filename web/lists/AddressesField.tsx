import { useState } from 'react';
import { MOST_ADDRESSES, suppressedAddresses } from '../../core/lists/addresses.ts';
import { useFormat } from '../app/format.ts';

/** What is neither a domain nor a mail address is named, up to so many. */
const MOST_NAMED = 4;
/** Largest file that is read into the field, in bytes. */
const LARGEST = 4 * 2 ** 20;

/** Domains and mail addresses that a suppression list keeps off beside its members: typed, pasted, or from a file. */
export function AddressesField({
  text,
  loading,
  onText,
}: {
  text: string;
  loading: boolean;
  onText(text: string): void;
}) {
  const format = useFormat();
  const { addresses, twice, none } = suppressedAddresses(text);
  const [tooLarge, setTooLarge] = useState('');
  return (
    <>
      <label htmlFor="list-addresses" className="self-start pt-1.5">
        Addresses
      </label>
      <div>
        <textarea
          id="list-addresses"
          className="field figure h-24 w-full text-[13px]"
          placeholder={loading ? 'Reading …' : 'domains and mail addresses kept off too, one a line'}
          disabled={loading}
          value={text}
          onChange={(event) => onText(event.target.value)}
        />
        <p className="flex items-baseline gap-2 text-[12px] text-soft">
          <span>
            <span className="figure">{format.number(addresses.length)}</span> kept off, with the companies and
            people that have them
            {twice > 0 && (
              <>
                ; <span className="figure">{format.number(twice)}</span> were twice
              </>
            )}
          </span>
          <label className="ml-auto shrink-0 cursor-pointer underline underline-offset-2">
            add from a file
            <input
              type="file"
              accept=".txt,.csv"
              className="sr-only"
              onChange={(event) => {
                const file = event.target.files?.[0];
                setTooLarge(file && file.size > LARGEST ? file.name : '');
                if (file && file.size <= LARGEST)
                  void file
                    .text()
                    .then((more) => onText([text, addressesIn(more)].filter(Boolean).join('\n')));
              }}
            />
          </label>
        </p>
        {tooLarge && (
          <p className="text-[12px] text-cut">
            {tooLarge} is larger than {LARGEST / 2 ** 20} MB; take its column of addresses alone.
          </p>
        )}
        {none.length > 0 && (
          <p className="text-[12px] text-cut">
            left out, neither a domain nor a mail address:{' '}
            {none
              .slice(0, MOST_NAMED)
              .map((word) => `“${word.slice(0, 30)}”`)
              .join(', ')}
            {none.length > MOST_NAMED && ` and ${format.number(none.length - MOST_NAMED)} more`}
          </p>
        )}
        {addresses.length > MOST_ADDRESSES && (
          <p className="text-[12px] text-cut">
            At most {format.number(MOST_ADDRESSES)} can be kept; make a second list for the rest.
          </p>
        )}
      </div>
    </>
  );
}

/** Of a file only what is an address: its headings and other columns say nothing here. */
function addressesIn(file: string): string {
  return suppressedAddresses(file).addresses.join('\n');
}
