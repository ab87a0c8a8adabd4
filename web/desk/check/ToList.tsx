import { useQueryClient } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import type { CheckView } from '../../../contract/checks.ts';
import type { ListView } from '../../../contract/lists.ts';
import { call } from '../../api.ts';
import { did } from '../../app/history.ts';
import { listsChanged } from '../../lists/acts.ts';
import { useLists } from '../../lists/use-lists.ts';

/** Makes what was judged of a sample verdicts on a list that has its records. */
export function ToList({
  check,
  attempt,
}: {
  check: CheckView;
  attempt<T>(work: () => Promise<T>): Promise<T | null>;
}) {
  const client = useQueryClient();
  const { data } = useLists();
  const lists = data?.lists.filter(({ subject }) => subject === check.subject) ?? [];
  if (check.fit + check.misses + check.unsure === 0 || lists.length === 0) return null;
  const take = (list: ListView) =>
    attempt(async () => {
      const put = () =>
        call<{ judged: number; batches: number[] }>('POST', `/checks/${check.id}/to-list`, {
          list: list.key,
        });
      let done = await put();
      did(`${done.judged} of the sample are judged on ${list.name} now`, {
        name: `verdicts of the sample on ${list.name}`,
        undo: async () => {
          for (const batch of done.batches)
            await call('DELETE', `/lists/${encodeURIComponent(list.key)}/verdicts/${batch}`);
          await listsChanged(client);
        },
        redo: async () => {
          done = await put();
          await listsChanged(client);
        },
      });
      await listsChanged(client);
    });
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="rounded-md border border-edge bg-paper px-3 py-1.5 hover:border-ink">
        As verdicts on a list
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-30 max-h-80 min-w-48 overflow-y-auto rounded-md border border-edge bg-paper py-1 shadow-xl"
        >
          {lists.map((list) => (
            <DropdownMenu.Item
              key={list.key}
              className="cursor-default px-3 py-1.5 outline-none data-[highlighted]:bg-picked"
              onSelect={() => void take(list)}
            >
              {list.name}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
