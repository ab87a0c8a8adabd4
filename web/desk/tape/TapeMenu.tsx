import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useRef, useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { emptyTape, type Tape } from '../../../core/tape/nodes.ts';
import { call } from '../../api.ts';
import { Button, Kbd } from '../../ui/controls.tsx';
import { useTally } from '../queries.ts';
import { useDesk } from '../store.ts';
import { SavedTapesDialog } from './SavedTapesDialog.tsx';
import { SaveTapeDialog } from './SaveTapeDialog.tsx';
import { SqlDialog } from './SqlDialog.tsx';

const LARGEST = 1_500_000;

/** What can be done with the tape as a whole: files, typed form, SQL, a new roll. */
export function TapeMenu({
  onWrite,
  onVisit,
  onDescribe,
}: {
  /** Null where nobody can be written to, or visited, and where the tape stands on no list to say things on. */
  onWrite: (() => void) | null;
  onVisit: (() => void) | null;
  onDescribe: (() => void) | null;
}) {
  const { change } = useDesk.getState();
  const tape = useDesk((state) => state.tape);
  const sort = useDesk((state) => state.sort);
  const { data: tally } = useTally();
  const file = useRef<HTMLInputElement>(null);
  const [shown, setShown] = useState<'save' | 'saved' | 'sql' | null>(null);
  const close = () => setShown(null);

  const save = () => {
    const whole: Tape = { ...tape, ...(sort.length ? { sort } : {}) };
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([JSON.stringify(whole, null, 2)], { type: 'application/json' }));
    link.download = `${(tape.name ?? 'tape').replace(/[^\p{L}\p{N} _-]+/gu, ' ').trim()}.tape.json`;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  const open = async (chosen: File) => {
    try {
      const found = chosen.name.endsWith('.json') ? await tapeIn(chosen) : await tapeOfExport(chosen);
      await call('POST', '/tally', { tape: found });
      const { sort: order, ...rest } = found;
      change(rest, undefined, { sort: order ?? [] });
      useDesk.getState().set({ openLine: null, company: null });
      toast(`Opened ${chosen.name}`);
    } catch (error) {
      toast.error((error as Error).message, { duration: 12_000 });
    }
  };
  const copyTyped = async () => {
    await navigator.clipboard.writeText((tally?.lines ?? []).map((line) => line.typed).join('; '));
    toast('Copied as typed lines');
  };
  const copyAddress = async () => {
    await navigator.clipboard.writeText(window.location.href);
    toast('Copied the address; whoever opens it here sees this tape');
  };
  return (
    <>
      <Button onClick={() => setShown('save')} disabled={tape.lines.length === 0}>
        Save
      </Button>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button aria-label="More for the tape" className="px-2">
            <ChevronDown size={15} />
          </Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            side="top"
            align="start"
            sideOffset={6}
            className="z-50 min-w-56 rounded-md border border-edge bg-paper py-1 shadow-lg"
          >
            {onWrite && (
              <Item onSelect={onWrite}>
                Write to them … <Kbd>L</Kbd>
              </Item>
            )}
            {onDescribe && (
              <Item onSelect={onDescribe}>
                Tag, assign or note them … <Kbd>T</Kbd>
              </Item>
            )}
            {onVisit && <Item onSelect={onVisit}>Visit them …</Item>}
            <Item onSelect={() => setShown('saved')}>Saved tapes and parts …</Item>
            <Item onSelect={() => file.current?.click()}>Open a tape file or an export …</Item>
            <Item onSelect={save}>Save as a tape file</Item>
            <Item onSelect={() => void copyAddress()}>Copy the address</Item>
            <Item onSelect={() => void copyTyped()}>Copy as typed lines</Item>
            <Item onSelect={() => setShown('sql')}>This count as SQL</Item>
            <Item
              onSelect={() => {
                change(emptyTape());
                useDesk.getState().set({ openLine: null, company: null });
              }}
            >
              New tape
            </Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <input
        ref={file}
        type="file"
        aria-label="Tape file"
        className="hidden"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = '';
          if (chosen) void open(chosen);
        }}
      />
      <SqlDialog open={shown === 'sql'} onClose={close} />
      {shown === 'save' && <SaveTapeDialog onClose={close} />}
      {shown === 'saved' && <SavedTapesDialog onClose={close} />}
    </>
  );
}

/** The tape of a tape file. */
async function tapeIn(file: File): Promise<Tape> {
  if (file.size > LARGEST)
    throw new Error(`${file.name} has ${Math.round(file.size / 1e6)} MB; a tape file has at most 1.5 MB.`);
  const text = await file.text();
  try {
    return JSON.parse(text) as Tape;
  } catch (error) {
    throw new Error(`${file.name} is no tape file: it is not JSON (${(error as Error).message}).`, {
      cause: error,
    });
  }
}

/** The tape that an exported file of any format carries. */
async function tapeOfExport(file: File): Promise<Tape> {
  const form = new FormData();
  form.append('file', file);
  return (await call<{ tape: Tape }>('POST', '/tape-files', form)).tape;
}

function Item({ onSelect, children }: { onSelect(): void; children: ReactNode }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="cursor-pointer px-3 py-1.5 outline-none data-[highlighted]:bg-picked"
    >
      {children}
    </DropdownMenu.Item>
  );
}
