import { useQuery, useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import type { PositionAnswer } from '../../../contract/responses.ts';
import type { ListVerdict } from '../../../core/tape/nodes.ts';
import { call } from '../../api.ts';
import { useKey } from '../../app/keys.ts';
import { countedPart } from '../../desk/queries.ts';
import { useDesk } from '../../desk/store.ts';
import { Button, Kbd } from '../../ui/controls.tsx';
import { describeMembers } from '../acts.ts';
import { useMemberships } from '../use-lists.ts';
import { ReasonRow } from './ReasonRow.tsx';
import { VerdictButtons } from './VerdictButtons.tsx';
import { useJudging, useListAtHand, useReview, wordVerdict } from './reviewing.ts';

const LABELS = { in: 'In', out: 'Out', unsure: 'Unsure' };

/** Judges the open record on the list that the tape stands on, and goes on to the next. */
export function VerdictBar({
  subject,
  recordKey,
  name,
}: {
  subject: string;
  recordKey: string;
  name: string;
}) {
  const list = useListAtHand();
  const tape = useDesk((state) => state.tape);
  const { data: memberships } = useMemberships(subject, recordKey);
  const member = memberships?.find((one) => one.list === list?.key);
  if (!list || tape.subject !== subject || !member) return null;
  return (
    <Bar key={recordKey} list={list} member={member} subject={subject} recordKey={recordKey} name={name} />
  );
}

/** What is written of a member by hand. */
type Said = 'tag' | 'note' | 'assigned';
const WRITTEN: Readonly<Record<Said, { label: string; placeholder: string; most: number }>> = {
  tag: { label: 'New tag', placeholder: 'A tag, such as stairs', most: 40 },
  note: { label: 'Note on the list', placeholder: 'A note for this list', most: 2000 },
  assigned: { label: 'Assigned to', placeholder: 'Who looks after it; empty for nobody', most: 60 },
};

function Bar({
  list,
  member,
  subject,
  recordKey,
  name,
}: {
  list: { key: string; name: string };
  member: NonNullable<ReturnType<typeof useMemberships>['data']>[number];
  subject: string;
  recordKey: string;
  name: string;
}) {
  const client = useQueryClient();
  const judge = useJudging();
  const tape = useDesk((state) => state.tape);
  const sort = useDesk((state) => state.sort);
  const last = useReview((state) => state.last);
  const [writing, setWriting] = useState<Said | null>(null);
  const [text, setText] = useState('');
  const [busy, setBusy] = useState(false);
  const asked = { tape: countedPart(tape), sort, key: recordKey };
  const ofPosition = {
    queryKey: ['position', asked.tape, sort, recordKey],
    queryFn: ({ signal }: { signal: AbortSignal }) =>
      call<PositionAnswer>('POST', '/position', asked, signal),
    retry: false,
  };
  useQuery(ofPosition);
  const give = async (verdict: ListVerdict, reason?: string) => {
    if (busy) return;
    setBusy(true);
    // A hand may be faster than the answer that says who is next; without it, one stays where one is.
    const found = await client.fetchQuery({ ...ofPosition, staleTime: Infinity }).catch(() => null);
    const position = found?.position ?? null;
    const next = position?.next ?? null;
    const done = await judge({ subject, key: recordKey, name, seen: member.judgedAt }, verdict, reason);
    setBusy(false);
    if (!done || verdict === 'not-judged') return;
    if (next === null) toast('That was the last one.');
    else {
      // Judged while only the others are shown, it leaves the tape and the next takes its place.
      const stays = position!.at + 1;
      useDesk
        .getState()
        .set({ company: subject === 'companies' ? next : `${subject}/${next}`, cursor: stays });
    }
  };
  const describe = async (details: Parameters<typeof describeMembers>[3]) => {
    try {
      await describeMembers(client, list, { members: [recordKey] }, details);
      setWriting(null);
      setText('');
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  const write = (what: Said) => {
    setText(what === 'tag' ? '' : (member[what] ?? ''));
    setWriting(what);
  };
  useKey('+', () => void give('in'));
  useKey('-', () => void give('out'));
  useKey('0', () => void give('unsure'));
  useKey('t', () => write('tag'));
  useKey('e', () => write('note'));
  useKey('a', () => write('assigned'));
  return (
    <section aria-label={`Verdict on ${list.name}`} className="mb-2 rounded-md border border-ink bg-paper">
      <div className="flex flex-wrap items-center gap-2 px-2.5 py-2">
        <VerdictButtons
          labels={LABELS}
          given={member.verdict}
          off={busy}
          onGive={(verdict) => void give(member.verdict === verdict ? 'not-judged' : verdict)}
        />
        <span className="min-w-0 flex-1 truncate text-[12px] text-soft">
          on {list.name}:{' '}
          <span className="text-ink">
            {wordVerdict(member.verdict)}
            {member.reason ? `, ${member.reason}` : ''}
          </span>
          {member.judgedBy && `, ${member.judgedBy}`}
          {member.assigned && <span className="text-ink"> · assigned to {member.assigned}</span>}
        </span>
        {member.tags.map((tag) => (
          <span
            key={tag}
            className="inline-flex items-center gap-1 rounded border border-edge px-1.5 text-[12px]"
          >
            {tag}
            <button
              type="button"
              aria-label={`Take the tag ${tag} off`}
              onClick={() => void describe({ untag: [tag] })}
            >
              <X size={11} />
            </button>
          </span>
        ))}
        <Button onClick={() => write('tag')}>
          Tag <Kbd>t</Kbd>
        </Button>
        <Button onClick={() => write('note')}>
          Note <Kbd>e</Kbd>
        </Button>
        <Button onClick={() => write('assigned')}>
          Assign <Kbd>a</Kbd>
        </Button>
      </div>
      {member.note && writing !== 'note' && (
        <p className="border-t border-rule px-3 py-1.5 text-[13px] whitespace-pre-wrap">{member.note}</p>
      )}
      {writing && (
        <form
          className="flex items-center gap-2 border-t border-rule px-2.5 py-2"
          onSubmit={(event) => {
            event.preventDefault();
            const said = text.trim();
            if (writing === 'note') void describe({ note: said });
            else if (writing === 'assigned') void describe({ assigned: said.replaceAll('"', '') });
            else if (said !== '') void describe({ tag: [said.replaceAll('"', '')] });
          }}
        >
          <input
            autoFocus
            aria-label={WRITTEN[writing].label}
            placeholder={WRITTEN[writing].placeholder}
            maxLength={WRITTEN[writing].most}
            value={text}
            className="field flex-1 py-1"
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Escape') return;
              event.preventDefault();
              event.stopPropagation();
              setWriting(null);
            }}
          />
          <Button type="submit" look="ink">
            Keep
          </Button>
          <Button onClick={() => setWriting(null)}>Cancel</Button>
        </form>
      )}
      {last?.list === list.key && last.verdict === 'out' && <ReasonRow last={last} />}
    </section>
  );
}
