import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { GatherAnswer } from '../../contract/gather-views.ts';
import { call } from '../api.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';

/** The machines that pages may be read from. */
export function HostsDialog({ hosts, onClose }: { hosts: GatherAnswer['hosts']; onClose(): void }) {
  const client = useQueryClient();
  const [name, setName] = useState('');
  const [own, setOwn] = useState(false);
  const changed = () => client.invalidateQueries({ queryKey: ['gather'] });
  const add = useMutation({
    mutationFn: () => call('PUT', '/gather/hosts', { name: name.trim().toLowerCase(), private: own }),
    onSuccess: () => {
      setName('');
      setOwn(false);
      return changed();
    },
  });
  const remove = useMutation({
    mutationFn: (host: string) => call('DELETE', `/gather/hosts/${encodeURIComponent(host)}`),
    onSuccess: changed,
  });
  return (
    <Dialog title="Hosts" description="pages are read from these alone" open onClose={onClose}>
      <p className="text-soft">
        The stand-in web, all of .example, is always read. Each other host is named here by whoever answers
        for reading it: what its terms allow, and what they do not, is for you to know.
      </p>
      <ul className="mt-3" aria-label="Hosts">
        {hosts.map((host) => (
          <li key={host.name} className="flex items-center gap-3 border-b border-rule py-1">
            <span className="figure flex-1">{host.name}</span>
            <span className="text-[13px] text-soft">{host.private ? 'private network' : ''}</span>
            <Button look="quiet" onClick={() => remove.mutate(host.name)} aria-label={`Remove ${host.name}`}>
              Remove
            </Button>
          </li>
        ))}
        {hosts.length === 0 && <li className="py-1 text-soft">No other host yet.</li>}
      </ul>
      <form
        className="mt-4 flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <label className="flex-1">
          <span className="block text-[13px] text-soft">Host</span>
          <input
            className="field figure w-full"
            placeholder="directory.example"
            value={name}
            onChange={(event) => setName(event.target.value)}
            required
          />
        </label>
        <label className="flex items-center gap-2 py-1.5">
          <input type="checkbox" checked={own} onChange={(event) => setOwn(event.target.checked)} /> in a
          private network
        </label>
        <Button type="submit" look="ink" disabled={add.isPending}>
          Allow it
        </Button>
      </form>
      <div className="mt-3">
        <Trouble error={add.error ?? remove.error} />
      </div>
    </Dialog>
  );
}
