import clsx from 'clsx';
import type { AddressStanding } from '../../core/people/standing.ts';

/** An address with how far it is to be trusted: in words, as a figure, and how it was come by. */
export function Certainty({
  mail,
  certainty,
  address,
  madeBy,
}: {
  mail: string | null;
  certainty: number | null;
  address: AddressStanding | null;
  madeBy?: string | null;
}) {
  if (mail === null) return <span className="text-soft italic">none known, and none to be made</span>;
  const doubted = address === 'likely' || address === 'guess' || address === 'general';
  const tone = address === 'refuted' ? 'text-cut' : doubted ? 'text-unsure' : 'text-kept';
  const fill = address === 'refuted' ? 'bg-cut' : doubted ? 'bg-unsure' : 'bg-kept';
  return (
    <>
      <span className="block break-all">{mail}</span>
      {certainty !== null && (
        <span className="flex items-center gap-2">
          <span className="relative h-1.5 flex-1 border border-edge" aria-hidden="true">
            <span className={clsx('absolute inset-y-0 left-0', fill)} style={{ width: `${certainty}%` }} />
          </span>
          <span className={clsx('text-[13px] font-semibold whitespace-nowrap', tone)}>
            <span className="figure">{certainty}</span> %
          </span>
        </span>
      )}
      <span className="block text-[12px] text-soft">
        {address && <strong className={tone}>{address}</strong>} {madeBy}
      </span>
    </>
  );
}
