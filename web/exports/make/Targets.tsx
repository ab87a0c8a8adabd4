import { usePrograms } from '../OtherPrograms.tsx';
import type { ChosenFile } from './wish.ts';

/** Where else an export goes. */
export interface Deliver {
  folders: readonly string[];
  hooks: readonly string[];
}

export const NOWHERE: Deliver = { folders: [], hooks: [] };

/** Folders and webhooks that an export goes to beside; nothing where there are none. */
export function Targets({
  file,
  deliver,
  onDeliver,
}: {
  file: ChosenFile;
  deliver: Deliver;
  onDeliver(deliver: Deliver): void;
}) {
  const { data } = usePrograms();
  if (!data || data.folders.length + data.hooks.length === 0) return null;
  const posts = canBePosted(file);
  const toggled = (ids: readonly string[], id: string) =>
    ids.includes(id) ? ids.filter((one) => one !== id) : [...ids, id];
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-1 text-[13px]">
      also to
      {data.folders.map(({ id, name, trouble }) => (
        <label key={id} className="flex items-center gap-1.5" title={trouble ?? 'A folder'}>
          <input
            type="checkbox"
            checked={deliver.folders.includes(id)}
            disabled={trouble !== null}
            onChange={() => onDeliver({ ...deliver, folders: toggled(deliver.folders, id) })}
          />
          {name}
        </label>
      ))}
      {data.hooks.map(({ id, name }) => (
        <label
          key={id}
          className="flex items-center gap-1.5"
          title={posts ? 'A webhook' : 'A webhook takes JSON Lines, in one file and without a ZIP'}
        >
          <input
            type="checkbox"
            checked={posts && deliver.hooks.includes(id)}
            disabled={!posts}
            onChange={() => onDeliver({ ...deliver, hooks: toggled(deliver.hooks, id) })}
          />
          {name}
        </label>
      ))}
    </div>
  );
}

/** Whether webhooks can be posted a file. */
export function canBePosted({ format, beside, split }: ChosenFile): boolean {
  return format === 'jsonl' && !beside && split === undefined;
}
