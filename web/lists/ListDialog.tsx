import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { ListView } from '../../contract/lists.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import { MOST_ADDRESSES, suppressedAddresses } from '../../core/lists/addresses.ts';
import { call } from '../api.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { AddressesField } from './AddressesField.tsx';
import { changeAddresses, changeList, fixList, listsChanged, madeList } from './acts.ts';

type Values = Pick<ListView, 'name' | 'subject' | 'purpose' | 'folder' | 'owner'> & {
  suppression: '' | 'members' | 'groups';
  frozen: boolean;
  follows: boolean;
};

/** What is said of a list: a new one, or one there is. */
export function ListDialog({
  list,
  folders,
  onClose,
  onMade,
}: {
  list: ListView | null;
  folders: readonly string[];
  onClose(): void;
  onMade(list: ListView): void;
}) {
  const client = useQueryClient();
  const [error, setError] = useState<Error | null>(null);
  const { register, handleSubmit, watch } = useForm<Values>({
    defaultValues: list
      ? { ...list, suppression: list.suppression ?? '', follows: list.stays !== null }
      : {
          name: '',
          subject: 'companies',
          purpose: '',
          folder: '',
          owner: '',
          suppression: '',
          frozen: false,
          follows: false,
        },
  });
  const suppresses = watch('suppression') !== '';
  const known = useQuery({
    queryKey: ['lists', 'addresses', list?.key],
    queryFn: ({ signal }) =>
      call<{ addresses: string[] }>(
        'GET',
        `/lists/${encodeURIComponent(list!.key)}/addresses`,
        undefined,
        signal,
      ),
    enabled: list !== null && list.addresses > 0,
  });
  const before = known.data?.addresses ?? [];
  /** Null where nothing was typed yet. */
  const [typed, setTyped] = useState<string | null>(null);
  const tooMany =
    suppresses && typed !== null && suppressedAddresses(typed).addresses.length > MOST_ADDRESSES;
  const save = handleSubmit(async ({ subject, frozen, follows, suppression, name, ...said }) => {
    const wish = { ...said, name: name.trim(), suppression: suppression || null };
    try {
      if (list) {
        await changeList(client, list, { ...wish, frozen });
        if (list.stays && !follows) await fixList(client, list.key);
        if (suppression && typed !== null)
          await changeAddresses(client, list, before, suppressedAddresses(typed).addresses);
      } else {
        const { list: made } = await call<{ list: ListView }>('POST', '/lists', {
          ...wish,
          subject,
          owner: wish.owner || undefined,
        });
        madeList(client, made);
        await listsChanged(client);
        if (suppression && typed)
          await changeAddresses(client, made, [], suppressedAddresses(typed).addresses);
        onMade(made);
      }
      onClose();
    } catch (failure) {
      setError(failure as Error);
    }
  });
  const groups = watch('subject') === 'companies';
  return (
    <Dialog open title={list ? list.name : 'New list'} onClose={onClose} width={480}>
      <form
        className="grid grid-cols-[104px_1fr] items-center gap-x-3 gap-y-2.5"
        onSubmit={(event) => void save(event)}
      >
        <label htmlFor="list-name">Name</label>
        <input id="list-name" autoFocus maxLength={120} className="field" {...register('name')} />
        {!list && (
          <>
            <label htmlFor="list-subject">Holds</label>
            <select id="list-subject" className="field" {...register('subject')}>
              {[...SUBJECTS.values()].map(({ id, many }) => (
                <option key={id} value={id}>
                  {many}
                </option>
              ))}
            </select>
          </>
        )}
        <label htmlFor="list-purpose">Purpose</label>
        <input id="list-purpose" maxLength={1000} className="field" {...register('purpose')} />
        <label htmlFor="list-folder">Folder</label>
        <input id="list-folder" maxLength={60} list="folders" className="field" {...register('folder')} />
        <datalist id="folders">
          {folders.map((folder) => (
            <option key={folder} value={folder} />
          ))}
        </datalist>
        <label htmlFor="list-owner">Whose</label>
        <input id="list-owner" maxLength={60} className="field" {...register('owner')} />
        <label htmlFor="list-suppression">Suppression</label>
        <select id="list-suppression" className="field" {...register('suppression')}>
          <option value="">exported as any list</option>
          <option value="members">keeps its members off every export</option>
          {groups && <option value="groups">keeps them and their groups off every export</option>}
        </select>
        {suppresses && (
          <AddressesField
            text={typed ?? before.join('\n')}
            loading={known.isLoading || known.isError}
            onText={setTyped}
          />
        )}
        {list && (
          <>
            <span>Members</span>
            <label className="flex items-center gap-2">
              <input type="checkbox" {...register('frozen')} /> frozen: they neither come nor go
            </label>
          </>
        )}
        {list?.stays && (
          <>
            <span>Follows</span>
            <label className="flex items-center gap-2">
              <input type="checkbox" {...register('follows')} /> other lists; once fixed it cannot follow
              again
            </label>
          </>
        )}
        <div className="col-span-2">
          <Trouble error={error ?? known.error} />
        </div>
        <div className="col-span-2 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="ink" disabled={watch('name').trim() === '' || tooMany}>
            {list ? 'Keep' : 'Make it'}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
