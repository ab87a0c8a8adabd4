import { useState } from 'react';
import { toast } from 'sonner';
import { cleanAddresses, type CleanedTo } from '../../core/values/addresses.ts';
import { saveFile } from '../charts/save-file.ts';
import { useFormat } from '../app/format.ts';
import { Button, Dialog, Segments } from '../ui/controls.tsx';

/** What is no address is named, up to so many. */
const MOST_NAMED = 5;

/** Pasted web addresses, cleaned of trackers to the domain or the page: copied, saved, or matched with the universe. */
export function CleanAddresses({ onClose, onMatch }: { onClose(): void; onMatch(file: File): void }) {
  const format = useFormat();
  const [text, setText] = useState('');
  const [to, setTo] = useState<CleanedTo>('domain');
  const { addresses, twice, none } = cleanAddresses(text, to);
  const lines = addresses.join('\n');
  const file = () => new File([`Website\n${lines}\n`], 'addresses.csv', { type: 'text/csv' });
  return (
    <Dialog title="Clean web addresses" open onClose={onClose} width={760}>
      <div className="flex items-center gap-3 pb-3 text-[13px]">
        <span>Each to</span>
        <Segments
          label="Each to"
          value={to}
          onChange={setTo}
          options={[
            { key: 'domain', label: 'its domain' },
            { key: 'page', label: 'its page' },
          ]}
        />
        <span className="text-soft">without trackers, and each once</span>
      </div>
      <div className="grid grid-cols-2 gap-4 max-[700px]:grid-cols-1">
        <label className="block text-[13px]">
          As they came
          <textarea
            className="field figure mt-1 h-72 w-full text-[13px]"
            placeholder={
              'https://www.lakovna.example/en?utm_source=letter\nbrusirna.example, office@veldin.example'
            }
            value={text}
            autoFocus
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <label className="block text-[13px]">
          <span>
            Clean: <span className="figure">{format.number(addresses.length)}</span>
            {twice > 0 && (
              <span className="text-soft">
                {' '}
                · <span className="figure">{format.number(twice)}</span> more {twice === 1 ? 'was' : 'were'}{' '}
                twice
              </span>
            )}
          </span>
          <textarea className="field figure mt-1 h-72 w-full text-[13px]" value={lines} readOnly />
        </label>
      </div>
      {none.length > 0 && (
        <p className="pt-2 text-[13px] text-cut">
          <span className="figure">{format.number(none.length)}</span>{' '}
          {none.length === 1 ? 'is no address' : 'are no addresses'}:{' '}
          {none
            .slice(0, MOST_NAMED)
            .map((word) => `“${word.slice(0, 40)}”`)
            .join(', ')}
          {none.length > MOST_NAMED && ' …'}
        </p>
      )}
      <div className="flex justify-end gap-2 pt-4">
        <Button
          disabled={addresses.length === 0}
          onClick={() =>
            void navigator.clipboard.writeText(lines).then(
              () => toast(`${format.number(addresses.length)} addresses copied`),
              () => toast.error('The browser does not let this page write to the clipboard.'),
            )
          }
        >
          Copy
        </Button>
        <Button disabled={addresses.length === 0} onClick={() => saveFile(file(), 'addresses.csv')}>
          Save as CSV
        </Button>
        <Button look="ink" disabled={addresses.length === 0} onClick={() => onMatch(file())}>
          Match these
        </Button>
      </div>
    </Dialog>
  );
}
