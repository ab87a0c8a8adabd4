import clsx from 'clsx';
import { Ban, Link2, MoreHorizontal, Snowflake } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useImperativeHandle, type Ref, type RefObject } from 'react';
import type { ListView } from '../../contract/lists.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import { useFormat } from '../app/format.ts';
import { useRowWindow } from '../desk/sheet/row-window.ts';
import { SortHead, type Order } from '../ui/SortHead.tsx';
import { VerdictStrip } from './VerdictStrip.tsx';

export type By = 'name' | 'holds' | 'members' | 'verdicts' | 'changed' | 'folder' | 'owner';

/** What a list is looked at as, in one act. */
export type Seen = 'people' | 'deals' | 'peers' | 'breakdown' | 'map';

const HEADS: readonly { by: By; label: string; right?: true }[] = [
  { by: 'name', label: 'List' },
  { by: 'holds', label: 'Holds' },
  { by: 'members', label: 'Members', right: true },
  { by: 'verdicts', label: 'Verdicts' },
  { by: 'changed', label: 'Changed', right: true },
  { by: 'folder', label: 'Folder' },
  { by: 'owner', label: 'Whose' },
];

const KINDS: Readonly<Record<string, string>> = {
  tape: 'tape',
  file: 'file',
  hand: 'by hand',
  gatherer: 'gatherer',
  list: 'list',
};

/** "tape, file and by hand": what put members on a list. */
function wordOrigins({ origins, purpose, stays }: ListView): string {
  if (purpose) return purpose;
  if (!origins) return stays ? 'follows other lists' : 'nobody put on it yet';
  return origins
    .split(', ')
    .map((one) => {
      const [kind, count] = one.split(' ');
      const word = KINDS[kind!] ?? kind!;
      return Number(count) > 1 && kind !== 'hand' ? `${count} ${word}s` : word;
    })
    .join(', ');
}

/** Height of a row in pixels, whatever is said of the list. */
const ROW_HEIGHT = 48;

/** What the table can be asked to do. */
export interface ListTableActions {
  scrollTo(at: number): void;
}

/** The lists as a table: the selected one is marked, and any number can be picked. Of many only those in view are drawn. */
export function ListTable({
  ref,
  box,
  lists,
  order,
  onOrder,
  current,
  picked,
  onCurrent,
  onPick,
  onOpen,
  onEdit,
  onRemove,
  onShortlist,
  onDuplicate,
  onSee,
}: {
  ref: Ref<ListTableActions>;
  /** What it is scrolled in. */
  box: RefObject<HTMLElement | null>;
  lists: readonly ListView[];
  order: Order<By>;
  onOrder(order: Order<By>): void;
  current: string | null;
  picked: ReadonlySet<string>;
  onCurrent(key: string): void;
  onPick(key: string): void;
  onOpen(list: ListView): void;
  onEdit(list: ListView): void;
  onRemove(list: ListView): void;
  onShortlist(list: ListView): void;
  onDuplicate(list: ListView): void;
  onSee(list: ListView, what: Seen): void;
}) {
  const format = useFormat();
  const view = useRowWindow(box, lists.length, ROW_HEIGHT);
  useImperativeHandle(ref, () => ({ scrollTo: (at) => view.scrollTo(at) }));
  const after = view.height - view.top - view.count * ROW_HEIGHT;
  return (
    <table className="w-full" aria-label="Lists" aria-rowcount={lists.length + 1}>
      <thead data-head className="sticky top-0 z-[1] bg-ground">
        <tr className="border-b border-edge text-[12px]">
          <th className="w-9">
            <span className="sr-only">Picked</span>
          </th>
          {HEADS.map((head) => (
            <SortHead key={head.by} {...head} order={order} onOrder={onOrder} />
          ))}
          <th className="w-8">
            <span className="sr-only">More</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {view.top > 0 && <tr style={{ height: view.top }} aria-hidden="true" />}
        {lists.slice(view.first, view.first + view.count).map((list, i) => {
          const here = list.key === current;
          return (
            <tr
              key={list.key}
              data-list={list.key}
              aria-selected={here}
              aria-rowindex={view.first + i + 2}
              style={{ height: ROW_HEIGHT }}
              className={clsx('border-b border-rule', here ? 'bg-picked' : 'hover:bg-paper')}
              onClick={() => onCurrent(list.key)}
              onDoubleClick={() => onOpen(list)}
            >
              <td className={clsx('w-9 border-l-3 pl-2', here ? 'border-ink' : 'border-transparent')}>
                <input
                  type="checkbox"
                  aria-label={`Pick ${list.name}`}
                  onClick={(event) => event.stopPropagation()}
                  checked={picked.has(list.key)}
                  onChange={() => onPick(list.key)}
                />
              </td>
              <td className="max-w-0 py-1 pr-4 pl-1" style={{ width: '32%' }}>
                <button
                  type="button"
                  className="block max-w-full truncate text-left font-semibold hover:underline"
                  title={`Open ${list.name} on the Desk`}
                  onClick={() => onOpen(list)}
                >
                  {list.name}
                </button>
                <span className="block truncate text-[12px] text-soft" title={wordOrigins(list)}>
                  {wordOrigins(list)}
                </span>
              </td>
              <td className="pr-3 text-[13px] text-soft">
                {SUBJECTS.get(list.subject)!.many}
                <span className="flex gap-1">
                  {list.suppression && <Mark icon={<Ban size={11} />}>suppression</Mark>}
                  {list.stays && <Mark icon={<Link2 size={11} />}>stays true</Mark>}
                  {list.frozen && <Mark icon={<Snowflake size={11} />}>frozen</Mark>}
                </span>
              </td>
              <td className="figure pr-5 text-right font-semibold">{format.number(list.members)}</td>
              <td className="pr-4">
                {list.suppression ? (
                  <span className="text-[12px] text-soft">kept off every export</span>
                ) : (
                  <VerdictStrip list={list} />
                )}
              </td>
              <td className="figure pr-5 text-right text-[13px] whitespace-nowrap">
                {format.date(list.changedAt.slice(0, 10))}
              </td>
              <td className="pr-3 text-[13px]">{list.folder || <span className="text-soft">–</span>}</td>
              <td className="text-[13px] text-soft">{list.owner}</td>
              <td>
                <DropdownMenu.Root>
                  <DropdownMenu.Trigger
                    className="rounded p-1 text-soft hover:bg-ground hover:text-ink"
                    aria-label={`More for ${list.name}`}
                  >
                    <MoreHorizontal size={16} />
                  </DropdownMenu.Trigger>
                  <DropdownMenu.Portal>
                    <DropdownMenu.Content
                      align="end"
                      className="z-30 min-w-48 rounded-md border border-edge bg-paper py-1 shadow-xl"
                    >
                      <Item onSelect={() => onEdit(list)}>Name, folder, purpose …</Item>
                      <Item onSelect={() => onShortlist(list)} off={list.judgedIn === 0}>
                        Shortlist of the {format.number(list.judgedIn)} judged in
                      </Item>
                      {list.subject === 'companies' && (
                        <>
                          <Item onSelect={() => onSee(list, 'people')}>Its people</Item>
                          <Item onSelect={() => onSee(list, 'deals')}>Its deals</Item>
                          <Item onSelect={() => onSee(list, 'peers')}>More like these</Item>
                        </>
                      )}
                      <Item onSelect={() => onSee(list, 'breakdown')}>Its Breakdown</Item>
                      <Item onSelect={() => onSee(list, 'map')}>Its map</Item>
                      <Item onSelect={() => onDuplicate(list)}>Duplicate</Item>
                      <Item onSelect={() => onRemove(list)}>Remove</Item>
                    </DropdownMenu.Content>
                  </DropdownMenu.Portal>
                </DropdownMenu.Root>
              </td>
            </tr>
          );
        })}
        {after > 0 && <tr style={{ height: after }} aria-hidden="true" />}
      </tbody>
    </table>
  );
}

function Mark({ icon, children }: { icon: React.ReactNode; children: React.ReactNode }) {
  return (
    <span className="mt-0.5 flex w-fit items-center gap-1 rounded border border-edge px-1.5 text-[11px] whitespace-nowrap text-ink">
      {icon} {children}
    </span>
  );
}

function Item({
  off = false,
  onSelect,
  children,
}: {
  off?: boolean;
  onSelect(): void;
  children: React.ReactNode;
}) {
  return (
    <DropdownMenu.Item
      disabled={off}
      className="cursor-default px-3 py-1.5 outline-none data-[disabled]:text-soft data-[highlighted]:bg-picked"
      onSelect={onSelect}
    >
      {children}
    </DropdownMenu.Item>
  );
}
