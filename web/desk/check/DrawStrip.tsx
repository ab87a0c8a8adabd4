import clsx from 'clsx';
import type { CheckAnswer } from '../../../contract/checks.ts';
import { wordBy } from './DrawForm.tsx';

const LOOKS = {
  in: 'bg-kept border-kept',
  out: 'hatched border-cut',
  unsure: 'unsure-bar border-unsure',
} as const;
const WORDS = { in: 'fits', out: 'does not fit', unsure: 'cannot tell' } as const;

/** The whole sample as boxes, by stratum: what each was judged, and where one stands. */
export function DrawStrip({
  answer,
  at,
  onAt,
}: {
  answer: CheckAnswer;
  at: number;
  onAt(place: number): void;
}) {
  const { check, members, strata } = answer;
  const parts = strata
    .map((stratum) => ({
      ...stratum,
      own: members.flatMap((member, place) => (member.stratum === stratum.key ? [{ member, place }] : [])),
    }))
    .filter(({ own }) => own.length > 0);
  return (
    <section aria-label="The draw" className="max-h-28 overflow-y-auto py-2">
      <p className="text-[12px] text-soft">
        The draw{check.by ? `, by ${wordBy(check.subject, check.by)}` : ''}: how many are gone through
      </p>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {parts.map(({ key, label, own }) => (
          <div key={key}>
            <div className="flex flex-wrap gap-[3px]">
              {own.map(({ member, place }) => (
                <button
                  key={member.key}
                  type="button"
                  tabIndex={-1}
                  aria-label={`Number ${place + 1}: ${member.verdict ? WORDS[member.verdict] : 'not judged'}`}
                  title={`Number ${place + 1}: ${member.verdict ? WORDS[member.verdict] : 'not judged'}`}
                  className={clsx(
                    'h-3.5 w-2 border',
                    member.verdict ? LOOKS[member.verdict] : 'border-edge bg-paper',
                    place === at && 'outline-2 outline-ink',
                  )}
                  onClick={() => onAt(place)}
                />
              ))}
            </div>
            {check.by && (
              <p className="text-[12px]">
                <strong title={label}>{check.by === 'place' && key ? key : label}</strong>{' '}
                <span className="figure text-soft">
                  {own.filter(({ member }) => member.verdict !== null).length} of {own.length}
                </span>
              </p>
            )}
          </div>
        ))}
      </div>
    </section>
  );
}
