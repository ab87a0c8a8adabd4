import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useFormat } from '../../app/format.ts';
import { said } from '../../app/history.ts';
import { wishOf, wordActed, type Acted } from '../../desk/acted.ts';
import { Button, Dialog, Trouble } from '../../ui/controls.tsx';
import { describeMembers } from '../acts.ts';

/** Says the same of many members at once: tags put on and taken off, to whom they are assigned, a note. What is left empty stays. */
export function DescribeDialog({
  list,
  acted,
  onClose,
}: {
  list: { key: string; name: string };
  acted: Acted;
  onClose(): void;
}) {
  const format = useFormat();
  const client = useQueryClient();
  const [text, setText] = useState({ tag: '', untag: '', assigned: '', note: '' });
  const [nobody, setNobody] = useState(false);
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);
  const tags = (typed: string) => typed.split(/[,;]/).flatMap((tag) => plain(tag) || []);
  const wish = {
    ...(tags(text.tag).length ? { tag: tags(text.tag) } : {}),
    ...(tags(text.untag).length ? { untag: tags(text.untag) } : {}),
    ...(nobody ? { assigned: '' } : plain(text.assigned) ? { assigned: plain(text.assigned) } : {}),
    ...(text.note.trim() ? { note: text.note.trim() } : {}),
  };
  const nothing = Object.keys(wish).length === 0;
  const what = wordActed(acted, format.number);
  const keep = async () => {
    setBusy(true);
    setError(null);
    try {
      await describeMembers(client, list, { picks: wishOf(acted) }, wish);
      said(`Noted of ${what} on ${list.name}`);
      onClose();
    } catch (failure) {
      setError(failure as Error);
      setBusy(false);
    }
  };
  const box = (key: keyof typeof text, label: string, placeholder: string, most: number) => (
    <label className="block pb-3 text-[13px]">
      {label}
      <input
        autoFocus={key === 'tag'}
        value={text[key]}
        maxLength={most}
        placeholder={placeholder}
        disabled={key === 'assigned' && nobody}
        className="field mt-1 w-full"
        onChange={(event) => setText({ ...text, [key]: event.target.value })}
      />
    </label>
  );
  return (
    <Dialog open title={`Say of ${what}`} description={`on ${list.name}`} onClose={onClose} width={480}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (!nothing && !busy) void keep();
        }}
      >
        {box('tag', 'Tags to put on', 'stairs, spray room', 400)}
        {box('untag', 'Tags to take off', '', 400)}
        {box('assigned', 'Assigned to', 'Who looks after them', 60)}
        <label className="-mt-1 flex items-center gap-2 pb-3 text-[13px]">
          <input type="checkbox" checked={nobody} onChange={() => setNobody(!nobody)} />
          assigned to nobody
        </label>
        {box('note', 'Note', 'Takes the place of each one’s note', 2000)}
        <Trouble error={error} />
        <div className="flex items-center gap-2">
          <Button type="submit" look="ink" disabled={nothing || busy}>
            Say it
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          <span className="text-[12px] text-soft">What is left empty stays as it is.</span>
        </div>
      </form>
    </Dialog>
  );
}

/** Without quotation marks, which tags and names are typed between. */
function plain(text: string): string {
  return text.replaceAll('"', '').trim();
}
