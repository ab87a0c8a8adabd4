import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { GatherAnswer } from '../../contract/gather-views.ts';
import { readTerms, searchesOf } from '../../core/gather/words-places.ts';
import { useFormat } from '../app/format.ts';
import { Button, Dialog, Segments, Trouble } from '../ui/controls.tsx';
import { useLists } from '../lists/use-lists.ts';
import { beginGatherer, freeName, type Beginning } from './begin.ts';
import { TermsField } from './TermsField.tsx';

/** A new gatherer: where its pages come from, and what is looked for there. */
export function NewGatherer({
  standIns,
  taken,
  onClose,
}: {
  standIns: GatherAnswer['standIns'];
  /** Names of those there are. */
  taken: readonly string[];
  onClose(): void;
}) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const format = useFormat();
  const [from, setFrom] = useState<Beginning['from']>('address');
  const [name, setName] = useState('');
  const [address, setAddress] = useState('');
  const [words, setWords] = useState('');
  const [places, setPlaces] = useState('');
  const [file, setFile] = useState<File | null>(null);
  const [pasted, setPasted] = useState('');
  const [list, setList] = useState('');
  const lists =
    useLists().data?.lists.filter(({ subject, members }) => subject === 'companies' && members > 0) ?? [];
  const searches = searchesOf(readTerms(words), readTerms(places)).length;
  const make = useMutation({
    mutationFn: () => beginGatherer(name.trim() || nameFor(), beginning()),
    onSuccess: async ({ id, run }) => {
      await client.invalidateQueries({ queryKey: ['gather'] });
      void navigate(`/gather/${id}${run ? `?run=${run}` : ''}`);
    },
  });
  const nameFor = () => {
    const base =
      from === 'address'
        ? (standIns.find((one) => one.address === address)?.name ??
          address.replace(/^https?:\/\//, '').split('/')[0]!)
        : from === 'file'
          ? (file?.name.replace(/\.\w+$/, '') ?? 'Saved pages')
          : from === 'paste'
            ? 'Pasted'
            : `Sites of ${lists.find(({ key }) => key === list)?.name ?? ''}`;
    return freeName(base.slice(0, 110), taken);
  };
  const beginning = (): Beginning =>
    from === 'address'
      ? { from, address: address.trim(), words: readTerms(words), places: readTerms(places) }
      : from === 'file'
        ? { from, file: file! }
        : from === 'paste'
          ? { from, text: pasted }
          : { from, list };
  const ready =
    from === 'address'
      ? address.trim() !== ''
      : from === 'file'
        ? file !== null
        : from === 'paste'
          ? pasted.trim() !== ''
          : list !== '';
  return (
    <Dialog title="New gatherer" open onClose={onClose} width={640}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (ready && !make.isPending) make.mutate();
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) event.currentTarget.requestSubmit();
        }}
      >
        <Segments
          label="Pages from"
          value={from}
          options={[
            { key: 'address', label: 'An address' },
            { key: 'file', label: 'A saved page' },
            { key: 'paste', label: 'A pasted table' },
            { key: 'sites', label: 'Companies’ own sites' },
          ]}
          onChange={setFrom}
        />
        {from === 'address' && (
          <>
            <label>
              <span className="block text-[13px] text-soft">Where it begins</span>
              <input
                className="field figure w-full"
                placeholder="http://workshop-guide.example/"
                value={address}
                onChange={(event) => setAddress(event.target.value)}
                autoFocus
              />
            </label>
            <div className="-mt-2 flex flex-wrap items-baseline gap-2 text-[13px] text-soft">
              made-up directories to try it on:
              {standIns.map((one) => (
                <button
                  key={one.address}
                  type="button"
                  aria-pressed={address === one.address}
                  className="rounded-md border border-edge bg-paper px-2 py-0.5 text-ink hover:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
                  onClick={() => setAddress(one.address)}
                >
                  {one.name}
                </button>
              ))}
            </div>
            <div className="grid grid-cols-2 gap-4">
              <TermsField
                label="Words"
                placeholder={'joinery\n"stairs, spiral"'}
                value={words}
                onChange={setWords}
              />
              <TermsField label="Places" placeholder={'Brno\nOlomouc'} value={places} onChange={setPlaces} />
            </div>
            <p className="-mt-2 text-[13px] text-soft">
              <span className="figure text-ink">{format.number(searches)}</span>{' '}
              {searches === 1 ? 'search' : 'searches'}; one a line or apart by commas, quotes keep a comma.
            </p>
          </>
        )}
        {from === 'file' && (
          <label>
            <span className="block text-[13px] text-soft">A page as HTML or MHTML, or a ZIP of many</span>
            <input
              type="file"
              accept=".html,.htm,.mhtml,.mht,.zip"
              onChange={(event) => {
                setFile(event.target.files?.[0] ?? null);
                // The page is shown as soon as it is chosen; a name can be given there.
                if (event.target.files?.[0]) setTimeout(() => event.target.form?.requestSubmit());
              }}
            />
          </label>
        )}
        {from === 'paste' && (
          <label>
            <span className="block text-[13px] text-soft">A table as it was copied, or a page’s HTML</span>
            <textarea
              className="field figure h-40 w-full text-[13px]"
              value={pasted}
              onChange={(event) => setPasted(event.target.value)}
            />
          </label>
        )}
        {from === 'sites' && (
          <label>
            <span className="block text-[13px] text-soft">Companies on</span>
            <select className="field w-full" value={list} onChange={(event) => setList(event.target.value)}>
              <option value="">choose a list …</option>
              {lists.map(({ key, name: own, members }) => (
                <option key={key} value={key}>
                  {own} ({format.number(members)})
                </option>
              ))}
            </select>
            <span className="mt-1 block text-[13px] text-soft">
              Read from each company’s own site: what it offers (quote form, samples, visits, shop, prices),
              mail, phone, registration and technologies, each with the page and the day.
            </span>
          </label>
        )}
        <label>
          <span className="block text-[13px] text-soft">Name</span>
          <input
            className="field w-full"
            placeholder="by where it begins"
            maxLength={120}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <Trouble error={make.error} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave it</Button>
          <Button type="submit" look="ink" disabled={!ready || make.isPending}>
            {from === 'sites'
              ? 'Read them'
              : make.isPending
                ? 'Reading the first page …'
                : 'Show me the first page'}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
