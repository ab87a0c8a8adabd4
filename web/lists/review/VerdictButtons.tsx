import clsx from 'clsx';
import { Check } from 'lucide-react';
import { Kbd, UnknownMark } from '../../ui/controls.tsx';

type Given = 'in' | 'out' | 'unsure';

const CHOICES = [
  { verdict: 'in', key: '+', look: 'border-kept text-kept' },
  { verdict: 'out', key: '−', look: 'border-cut text-cut' },
  { verdict: 'unsure', key: '0', look: 'border-unsure text-unsure' },
] as const;

/** The three verdicts with their keys, the one given pressed. */
export function VerdictButtons({
  labels,
  given,
  off = false,
  onGive,
}: {
  labels: Readonly<Record<Given, string>>;
  given: string | null;
  off?: boolean;
  onGive(verdict: Given): void;
}) {
  return CHOICES.map(({ verdict, key, look }) => (
    <button
      key={verdict}
      type="button"
      aria-pressed={given === verdict}
      disabled={off}
      className={clsx(
        'inline-flex items-center justify-center gap-1 rounded-md border px-2 py-1.5 font-semibold whitespace-nowrap',
        look,
        given === verdict ? 'bg-picked' : 'hover:bg-ground',
      )}
      onClick={() => onGive(verdict)}
    >
      {verdict === 'in' ? (
        <Check size={14} />
      ) : verdict === 'out' ? (
        <span className="hatched h-3 w-3.5 border border-cut" aria-hidden="true" />
      ) : (
        <UnknownMark />
      )}
      {labels[verdict]} <Kbd>{key}</Kbd>
    </button>
  ));
}
