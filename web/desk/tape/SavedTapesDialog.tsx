import { useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import type { SavedTapeView } from '../../../contract/responses.ts';
import { putPart } from '../../../core/tape/edit.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { did } from '../../app/history.ts';
import { Button, Dialog, Trouble } from '../../ui/controls.tsx';
import { addressOf } from '../address.ts';
import { useDesk } from '../store.ts';
import { useSavedTapes } from './SaveTapeDialog.tsx';

/** Saved tapes with what they left then and leave now, and parts to put on the tape at hand. */
export function SavedTapesDialog({ onClose }: { onClose(): void }) {
  const { data, error } = useSavedTapes();
  const tapes = data?.tapes.filter(({ kind }) => kind === 'tape') ?? [];
  const parts = data?.tapes.filter(({ kind }) => kind === 'part') ?? [];
  return (
    <Dialog open title="Saved tapes" onClose={onClose} width={760}>
      <Trouble error={error} />
      {!data && !error && <p className="text-soft">Counting the saved tapes …</p>}
      {data && tapes.length === 0 && (
        <p className="text-soft">None yet. “Save” below the tape keeps it here by name.</p>
      )}
      <ul aria-label="Saved tapes">
        {tapes.map((saved) => (
          <Saved key={saved.id} saved={saved} onClose={onClose} />
        ))}
      </ul>
      {parts.length > 0 && (
        <>
          <h3 className="title mt-4 text-[15px]">Parts, to put on the tape at hand</h3>
          <ul aria-label="Parts">
            {parts.map((saved) => (
              <Saved key={saved.id} saved={saved} onClose={onClose} />
            ))}
          </ul>
        </>
      )}
    </Dialog>
  );
}

function Saved({ saved, onClose }: { saved: SavedTapeView; onClose(): void }) {
  const format = useFormat();
  const client = useQueryClient();
  const { change, set } = useDesk.getState();
  const refresh = () => client.invalidateQueries({ queryKey: ['saved-tapes'] });
  const take = () => {
    const { sort, ...tape } = saved.tape;
    if (saved.kind === 'part') {
      try {
        change(putPart(useDesk.getState().tape, saved.tape));
      } catch (failure) {
        toast.error((failure as Error).message);
        return;
      }
    } else {
      change(tape, undefined, { sort: sort ?? [] });
    }
    set({ openLine: null, company: null });
    onClose();
  };
  const write = async (name: string) => {
    const { tape: made } = await call<{ tape: SavedTapeView }>('POST', '/tapes', {
      tape: saved.tape,
      kind: saved.kind,
      name,
    });
    await refresh();
    return made.id;
  };
  const drop = async (id: string) => {
    await call('DELETE', `/tapes/${id}`);
    await refresh();
  };
  const remove = async () => {
    let { id } = saved;
    try {
      await drop(id);
    } catch (failure) {
      toast.error((failure as Error).message);
      return;
    }
    did(`Removed ${saved.name}`, {
      name: `removing ${saved.name}`,
      undo: async () => (id = await write(saved.name)),
      redo: () => drop(id),
    });
  };
  const difference = saved.now !== null && saved.then !== null ? saved.now - saved.then : 0;
  return (
    <li className="border-b border-rule py-2.5">
      <div className="flex items-baseline gap-3">
        <a
          href={addressOf({ tape: saved.tape, sort: saved.tape.sort ?? [], openLine: null, company: null })}
          className="min-w-0 flex-1 truncate font-semibold"
          onClick={(event) => {
            if (event.ctrlKey || event.metaKey || event.shiftKey) return;
            event.preventDefault();
            take();
          }}
        >
          {saved.name}
        </a>
        <span className="figure text-[13px] whitespace-nowrap">
          {saved.now === null ? '' : `${format.number(saved.now)} now`}
          {difference !== 0 && (
            <span className="text-soft">
              {' '}
              {difference > 0 ? '+' : '−'}
              {format.number(Math.abs(difference))} since {format.date(saved.savedAt.slice(0, 10))}
            </span>
          )}
        </span>
        <Button className="px-2 py-0.5" onClick={take}>
          {saved.kind === 'part' ? 'Put on the tape' : 'Open'}
        </Button>
        <Button look="quiet" onClick={() => void write(`${saved.name}, copy`)}>
          Duplicate
        </Button>
        <Button look="quiet" onClick={() => void remove()}>
          Remove
        </Button>
      </div>
      {saved.description && <p className="text-[13px]">{saved.description}</p>}
      <p className="text-[13px] text-soft">{saved.reads}</p>
      {saved.trouble && (
        <p role="alert" className="text-[13px] text-cut">
          It cannot be counted: {saved.trouble}
        </p>
      )}
    </li>
  );
}
