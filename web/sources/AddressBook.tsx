import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { useRef } from 'react';
import { toast } from 'sonner';
import type { ContactsAnswer } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button, Trouble } from '../ui/controls.tsx';

/** Whom we know: address books loaded, and how many of their people work at companies of the universe. */
export function AddressBook() {
  const format = useFormat();
  const client = useQueryClient();
  const chooser = useRef<HTMLInputElement>(null);
  const { data, error } = useQuery({
    queryKey: ['contacts'],
    queryFn: ({ signal }) => call<ContactsAnswer>('GET', '/contacts', undefined, signal),
  });
  const load = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append('file', file);
      return call<{ book: string; contacts: number; found: number }>('POST', '/contacts', form);
    },
    onSuccess: async ({ contacts, found }) => {
      await client.invalidateQueries();
      toast(
        `${format.number(contacts)} people, ${format.number(found)} of them at companies of the universe`,
      );
    },
  });
  const remove = useMutation({
    mutationFn: (book: string) => call('DELETE', `/contacts/${encodeURIComponent(book)}`),
    onSuccess: () => client.invalidateQueries(),
  });
  return (
    <section className="mt-8" aria-label="Address book">
      <div className="flex items-baseline gap-4 border-b border-edge pb-1">
        <h2 className="title text-[17px]">Whom we know</h2>
        <p className="text-[13px] text-soft">
          an address book as vCard, CSV or XLSX; its people are found at companies by their mail domain, then
          by name
        </p>
        <Button className="ml-auto" disabled={load.isPending} onClick={() => chooser.current?.click()}>
          {load.isPending ? 'Reading …' : 'Load an address book'}
        </Button>
        <input
          ref={chooser}
          type="file"
          accept=".vcf,.vcard,.csv,.xlsx"
          aria-label="Address book file"
          className="hidden"
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = '';
            if (file) load.mutate(file);
          }}
        />
      </div>
      <Trouble error={error ?? load.error ?? remove.error} />
      <ul>
        {data?.books.map(({ book, contacts, found }) => (
          <li key={book} className="flex items-center gap-4 border-b border-rule py-2">
            <strong className="min-w-0 flex-1 truncate">{book}</strong>
            <span>
              <span className="figure">{format.number(contacts)}</span> people,{' '}
              <span className="figure">{format.number(found)}</span> at companies here
            </span>
            <Button
              look="quiet"
              aria-label={`Remove ${book}`}
              title="Forget these people"
              onClick={() => remove.mutate(book)}
            >
              <Trash2 size={15} />
            </Button>
          </li>
        ))}
        {data?.books.length === 0 && <li className="py-2 text-soft">none loaded</li>}
      </ul>
    </section>
  );
}
