import clsx from 'clsx';
import { useFormat } from '../app/format.ts';

/** Bars drawn at most; of a longer limit each stands for several words. */
const MOST_BARS = 60;

/** Words written against the limit: a stroke each, by tens; red beyond the limit. */
export function WordMeter({ words, limit }: { words: number; limit: number }) {
  const format = useFormat();
  const a = Math.max(1, Math.ceil(limit / MOST_BARS));
  const bars = Math.ceil(Math.max(limit, Math.min(words, 1.5 * limit)) / a);
  const over = words > limit;
  return (
    <div className="flex items-center gap-3" aria-live="polite">
      <span className={clsx('figure text-xl font-semibold', over && 'text-cut')}>{format.number(words)}</span>
      <span className="text-[13px] text-soft">
        of <span className="figure">{format.number(limit)}</span> words
      </span>
      <span className="flex flex-1 gap-[2px] overflow-hidden" aria-hidden="true">
        {Array.from({ length: bars }, (_, i) => (
          <span
            key={i}
            className={clsx(
              'h-3 w-[3px] shrink-0',
              i % 10 === 9 && 'mr-1.5',
              i * a >= limit ? 'bg-cut' : i * a < words ? (over ? 'bg-cut' : 'bg-ink') : 'border border-edge',
            )}
          />
        ))}
      </span>
      <span className={clsx('text-[12px]', over ? 'font-semibold text-cut' : 'text-soft')}>
        {over ? `${format.number(words - limit)} too many` : `${format.number(limit - words)} to spare`}
      </span>
    </div>
  );
}
