import { toast } from 'sonner';
import { create } from 'zustand';

/** Something the user did that can be taken back, wherever it was done. */
export interface Step {
  /** As in “Taken back: …”. */
  name: string;
  undo(): unknown;
  redo(): unknown;
  /** Steps with the same tag in a row are one. */
  tag?: string;
  /** Said when it is taken back or done again; edits that are seen at once need no word. */
  quiet?: true;
}

interface HistoryState {
  past: readonly Step[];
  future: readonly Step[];
}

const MOST = 200;

/** All that was done in this window, in its order: one history for every place. */
export const useHistory = create<HistoryState>(() => ({ past: [], future: [] }));

const { getState, setState } = useHistory;

/** Steps are taken one after the other, also where one has to ask the server. */
let going: Promise<void> = Promise.resolve();

/** Notes what was done. */
export function record(step: Step): void {
  setState(({ past }) => {
    const last = past.at(-1);
    const same = last !== undefined && step.tag !== undefined && last.tag === step.tag;
    return {
      past: same ? [...past.slice(0, -1), { ...step, undo: last.undo }] : [...past, step].slice(-MOST),
      future: [],
    };
  });
}

/** Says the step noted last, with a way to take just this one back. */
export function said(message: string): void {
  const kept = getState().past.at(-1);
  if (!kept) return;
  toast(message, { duration: 8000, action: { label: 'Undo', onClick: () => void takeBack(kept) } });
}

/** Notes what was done and says it. */
export function did(message: string, step: Step): void {
  record(step);
  said(message);
}

/** Takes the last step back. */
export function undo(): Promise<void> {
  return inTurn(async () => {
    const last = getState().past.at(-1);
    if (last) await back(last);
  });
}

/** Does again what was taken back last. */
export function redo(): Promise<void> {
  return inTurn(async () => {
    const [next, ...future] = getState().future;
    if (!next) return;
    if (!(await done(next, 'redo'))) return;
    const { tag: _, ...own } = next;
    setState(({ past }) => ({ past: [...past, own], future }));
  });
}

/** Takes one step back, the last or one before it; where it is gone already, nothing. */
function takeBack(step: Step): Promise<void> {
  return inTurn(() => back(step));
}

async function back(step: Step): Promise<void> {
  const { past } = getState();
  if (!past.includes(step) || !(await done(step, 'undo'))) return;
  setState(({ past: now, future }) => ({
    past: now.filter((one) => one !== step),
    future: step === past.at(-1) ? [step, ...future] : future,
  }));
}

/** Whether it could be done; a step that fails stays where it is and says why. */
async function done(step: Step, way: 'undo' | 'redo'): Promise<boolean> {
  try {
    await step[way]();
    if (!step.quiet || window.location.pathname !== '/desk')
      toast(`${way === 'undo' ? 'Taken back' : 'Done again'}: ${step.name}`);
    return true;
  } catch (failure) {
    toast.error(
      `Could not be ${way === 'undo' ? 'taken back' : 'done again'}: ${(failure as Error).message}`,
    );
    return false;
  }
}

function inTurn(act: () => Promise<void>): Promise<void> {
  going = going.then(act, act);
  return going;
}
