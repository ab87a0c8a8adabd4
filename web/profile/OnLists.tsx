import { useFormat } from '../app/format.ts';
import { wordVerdict } from '../lists/review/reviewing.ts';
import { useOpenList } from '../lists/open-list.ts';
import { useLists, useMemberships } from '../lists/use-lists.ts';
import { Section } from './parts.tsx';

const LOOKS = { in: 'text-kept', out: 'text-cut', unsure: 'text-unsure', 'not-judged': 'text-soft' } as const;

/** The lists that a record is on, with all of its origins and what was said of it there. */
export function OnLists({ subject, recordKey }: { subject: string; recordKey: string }) {
  const format = useFormat();
  const open = useOpenList();
  const { data } = useMemberships(subject, recordKey);
  const { data: all } = useLists();
  if (!data?.length) return null;
  return (
    <Section name="On lists" note="with all of its origins">
      {data.map(({ list, name, verdict, reason, judgedBy, judgedAt, origins, history }) => (
        <div key={list} className="border-b border-rule py-1.5">
          <button
            type="button"
            className="font-semibold hover:underline"
            onClick={() => {
              const found = all?.lists.find(({ key }) => key === list);
              if (found) open(found);
            }}
          >
            {name}
          </button>{' '}
          <span className={`text-[13px] ${LOOKS[verdict]}`}>
            {wordVerdict(verdict)}
            {reason ? `, ${reason}` : ''}
          </span>
          {judgedAt && (
            <span className="text-[13px] text-soft">
              {' '}
              · {[judgedBy, format.date(judgedAt.slice(0, 10))].filter(Boolean).join(', ')}
            </span>
          )}
          {origins.map(({ kind, what, person, at }, i) => (
            <p key={i} className="text-[13px] text-soft">
              {kind === 'hand' ? 'by hand: ' : `${kind} `}
              {what}, {[format.date(at.slice(0, 10)), person].filter(Boolean).join(', ')}
            </p>
          ))}
          {history.length > 1 && (
            <p className="text-[12px] text-soft">
              before:{' '}
              {history
                .slice(1)
                .map((one) => [wordVerdict(one.verdict), one.person].filter(Boolean).join(', '))
                .join('; ')}
            </p>
          )}
        </div>
      ))}
    </Section>
  );
}
