import clsx from 'clsx';
import type { ComparedField, Mark } from '../../../core/match/compare.ts';
import { nameParts } from '../../../core/match/names.ts';
import { fold } from '../../../core/text/fold.ts';
import { UnknownMark } from '../../ui/controls.tsx';

/** How two values stand to each other, as a shape and a colour, and what differs of them. */

export const MARK_WORDS: Record<Mark, string> = {
  equal: 'equal',
  alike: 'alike',
  different: 'different',
  missing: 'missing on either side',
};

export const FIELD_WORDS: Record<ComparedField, string> = {
  name: 'Name',
  number: 'Number',
  domain: 'Domain',
  street: 'Street',
  town: 'Town',
  postcode: 'Postcode',
  country: 'Country',
  phone: 'Phone',
  headcount: 'Headcount',
};

export function MarkSign({ mark }: { mark: Mark }) {
  if (mark === 'missing')
    return (
      <span className="mr-1.5 inline-flex size-3.5 shrink-0 justify-center" aria-hidden="true">
        <UnknownMark />
      </span>
    );
  return (
    <svg
      viewBox="0 0 14 14"
      role="img"
      aria-label={MARK_WORDS[mark]}
      className={clsx(
        'mr-1.5 inline-block size-3.5 shrink-0',
        mark === 'different' ? 'text-cut' : 'text-kept',
      )}
      fill="none"
      stroke="currentColor"
      strokeWidth="1.4"
      strokeLinecap="round"
    >
      {mark === 'equal' && (
        <>
          <circle cx="7" cy="7" r="6.3" fill="currentColor" stroke="none" />
          <path d="M4.3 5.6h5.4M4.3 8.4h5.4" className="stroke-paper" />
        </>
      )}
      {mark === 'alike' && (
        <>
          <circle cx="7" cy="7" r="6" />
          <path d="M4 6c1-1 2-1 3 0s2 1 3 0M4 8.8c1-1 2-1 3 0s2 1 3 0" strokeWidth="1.1" />
        </>
      )}
      {mark === 'different' && (
        <>
          <rect x="1" y="1" width="12" height="12" rx="1.5" />
          <path d="M4 5.6h6M4 8.4h6M9 3.5l-4 7" strokeWidth="1.1" />
        </>
      )}
    </svg>
  );
}

/** A name, with those of its words underlined that the other has not; accents, case and legal forms do not count. */
export function DifferingName({ value, other, mark }: { value: string; other: string | null; mark: Mark }) {
  if (other === null || mark === 'equal' || mark === 'missing') return <>{value}</>;
  const own = new Set(nameParts(value).words);
  const known = new Set(nameParts(other).words);
  return (
    <>
      {value.split(/(\s+)/).map((word, i) => {
        const plain = fold(word).replace(/[^a-z0-9]/g, '');
        return own.has(plain) && !known.has(plain) ? (
          <span key={i} className="underline decoration-cut decoration-2 underline-offset-4">
            {word}
          </span>
        ) : (
          <span key={i}>{word}</span>
        );
      })}
    </>
  );
}

/** A chance with two decimals. */
export const chanceText = (chance: number): string =>
  chance > 0 && chance < 0.005 ? '<0.01' : chance.toFixed(2);

/** What a chance is called. */
export function chanceWords(chance: number, sure: number): string {
  if (chance >= sure) return 'almost sure';
  return chance >= 0.75 ? 'likely' : chance >= 0.4 ? 'perhaps' : 'hardly';
}

/** A ruler from 0 to 1 with where doubt lies and where it is sure, and a mark at the chance. */
export function ChanceRuler({
  chance,
  limits,
}: {
  chance: number;
  limits: { sure: number; doubtful: number };
}) {
  const at = (share: number) => `${100 * share}%`;
  return (
    <div className="relative mt-1 h-2.5" aria-hidden="true">
      <div className="absolute top-1 w-full border-t border-edge" />
      <div
        className="absolute top-0.5 h-[3px] bg-unsure"
        style={{ left: at(limits.doubtful), width: at(Math.max(0, limits.sure - limits.doubtful)) }}
      />
      <div className="absolute top-0.5 h-[3px] bg-kept" style={{ left: at(limits.sure), right: 0 }} />
      <div className="absolute top-0 h-2.5 w-[3px] bg-ink" style={{ left: `calc(${at(chance)} - 2px)` }} />
    </div>
  );
}
