import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { toast } from 'sonner';
import { SUBJECTS, subjectOf } from '../../core/fields/registry.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { turnRound } from '../../core/tape/turn.ts';
import { Button } from '../ui/controls.tsx';
import { useDesk } from './store.ts';

/** Turns the tape round to another subject, keeping what it asks inside. */
export function turnTo(subject: string): void {
  const { tape, change, set } = useDesk.getState();
  try {
    change(turnRound(tape, subject));
    set({ openLine: null, company: null });
  } catch (error) {
    toast.error((error as Error).message, { duration: 9000 });
  }
}

/** Which subject the tape counts, and the others that it can be turned round to. */
export function SubjectMenu() {
  const subject = useDesk((state) => state.tape.subject);
  const { many } = subjectOf(subject);
  const others = [...SUBJECTS.values()].filter(({ id }) => id !== subject);
  const item = 'flex cursor-pointer px-3 py-1.5 outline-none data-[highlighted]:bg-picked';
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button title="What the tape counts; turn it round to what hangs together with it">
          Counts {many} <ChevronDown size={14} />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={6}
          className="z-50 min-w-60 rounded-md border border-edge bg-paper py-1 shadow-lg"
        >
          <DropdownMenu.Label className="px-3 pt-1 text-[12px] text-soft">
            turn the tape round
          </DropdownMenu.Label>
          {others.map(({ id, many: other }) => (
            <DropdownMenu.Item key={id} className={item} onSelect={() => turnTo(id)}>
              {subject === 'companies'
                ? `The ${other} of these companies`
                : id === 'companies'
                  ? `The companies of these ${many}`
                  : `The ${other} of their companies`}
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Label className="mt-1 border-t border-rule px-3 pt-2 text-[12px] text-soft">
            start a new tape
          </DropdownMenu.Label>
          {[...SUBJECTS.values()].map(({ id, many: all }) => (
            <DropdownMenu.Item
              key={id}
              className={item}
              onSelect={() => {
                const { change, set } = useDesk.getState();
                change(emptyTape(id));
                set({ openLine: null, company: null });
              }}
            >
              All {all}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
