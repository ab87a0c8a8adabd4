import clsx from 'clsx';

/** Whether estimates count by their point. Without a line there is nothing to say it of. */
export function EstimatesBox({ on, onChange }: { on: boolean; onChange?(on: boolean): void }) {
  return (
    <label className={clsx('flex items-center gap-2', !onChange && 'opacity-50')}>
      <input
        type="checkbox"
        checked={on}
        disabled={!onChange}
        onChange={(event) => onChange?.(event.target.checked)}
      />{' '}
      estimates count
    </label>
  );
}
