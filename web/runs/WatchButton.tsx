import { Eye } from 'lucide-react';
import { useState } from 'react';
import { Button, Kbd } from '../ui/controls.tsx';
import { useWatches } from './use-runs.ts';
import { WatchDialog, type Watchable } from './WatchDialog.tsx';

/** Begins to watch something, or changes how; says whether it is watched. */
export function WatchButton({ of, kbd, className }: { of: Watchable; kbd?: string; className?: string }) {
  const [open, setOpen] = useState(false);
  const { data } = useWatches();
  const watched = data?.some(({ subject, key }) => subject === of.subject && key === of.key) ?? false;
  return (
    <>
      <Button className={className} aria-pressed={watched} onClick={() => setOpen(true)}>
        {watched && <Eye size={13} aria-hidden="true" className="mr-1 inline align-[-2px]" />}
        {watched ? 'Watched' : 'Watch'} {kbd && <Kbd>{kbd}</Kbd>}
      </Button>
      {open && <WatchDialog of={of} onClose={() => setOpen(false)} />}
    </>
  );
}
