import clsx from 'clsx';
import { Dialog as Radix } from 'radix-ui';
import { X } from 'lucide-react';
import type { ButtonHTMLAttributes, ReactNode } from 'react';

/** A key as it is printed on a keyboard. */
export function Kbd({ children }: { children: ReactNode }) {
  return (
    <kbd className="figure ml-1 inline-block rounded border border-edge border-b-2 bg-ground px-1 text-[11px] leading-4 text-ink">
      {children}
    </kbd>
  );
}

type ButtonProps = ButtonHTMLAttributes<HTMLButtonElement> & { look?: 'plain' | 'ink' | 'quiet' };

export function Button({ look = 'plain', className, ...rest }: ButtonProps) {
  return (
    <button
      type="button"
      className={clsx(
        'inline-flex items-center gap-1 rounded-md whitespace-nowrap',
        look === 'plain' && 'border border-edge bg-paper px-3 py-1.5 hover:border-ink',
        look === 'ink' && 'border border-ink bg-ink px-3 py-1.5 font-semibold text-paper hover:opacity-90',
        look === 'quiet' && 'px-1.5 py-1 text-soft hover:text-ink',
        className,
      )}
      {...rest}
    />
  );
}

/** A few choices side by side, one of them taken. */
export function Segments<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly { key: NoInfer<T>; label: string; off?: string }[];
  onChange(value: NoInfer<T>): void;
}) {
  return (
    <div
      role="radiogroup"
      aria-label={label}
      className="inline-flex self-start overflow-hidden rounded-md border border-edge bg-paper"
    >
      {options.map((option) => (
        <button
          key={option.key}
          type="button"
          role="radio"
          aria-checked={value === option.key}
          disabled={option.off !== undefined}
          title={option.off}
          onClick={() => onChange(option.key)}
          className={clsx(
            'border-l border-rule px-2.5 py-1.5 whitespace-nowrap first:border-l-0',
            value === option.key ? 'bg-ink text-paper' : 'enabled:hover:bg-ground',
          )}
        >
          {option.label}
        </button>
      ))}
    </div>
  );
}

/** Two waves: the mark of an estimate. Drawn, since the fonts lack it. */
export function Approx() {
  return (
    <svg
      viewBox="0 0 10 8"
      className="mr-0.5 inline-block h-2 w-2.5 align-baseline text-unsure"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.4"
      strokeLinecap="round"
      role="img"
      aria-label="about"
    >
      <path d="M1 2.6c1.4-1.6 2.6-1.6 4 0s2.6 1.6 4 0M1 6.4c1.4-1.6 2.6-1.6 4 0s2.6 1.6 4 0" />
    </svg>
  );
}

/** A quarter-filled disc: the mark of what is unknown. */
export function UnknownMark() {
  return (
    <svg
      viewBox="0 0 12 12"
      className="mr-1 inline-block size-2.5 align-[-1px] text-unsure"
      aria-hidden="true"
    >
      <circle cx="6" cy="6" r="5" fill="none" stroke="currentColor" strokeWidth="1.4" />
      <path d="M6 6V1a5 5 0 0 1 5 5z" fill="currentColor" />
    </svg>
  );
}

/** A window over the page, left by Esc or its cross. */
export function Dialog({
  title,
  description,
  open,
  onClose,
  children,
  width = 560,
  fills = false,
}: {
  title: string;
  description?: string;
  open: boolean;
  onClose(): void;
  children: ReactNode;
  width?: number;
  /** Whether its content lays itself out to the edges, and scrolls itself. */
  fills?: boolean;
}) {
  return (
    <Radix.Root open={open} onOpenChange={(now) => !now && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-shade" />
        <Radix.Content
          className="fixed top-1/2 left-1/2 z-50 flex max-h-[88vh] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 flex-col rounded-lg border border-edge bg-paper shadow-xl"
          style={{ width }}
          {...(description ? {} : { 'aria-describedby': undefined })}
        >
          <header className="flex items-baseline gap-3 border-b border-rule px-5 py-3">
            <Radix.Title className="title text-xl">{title}</Radix.Title>
            {description && (
              <Radix.Description className="text-[13px] text-soft">{description}</Radix.Description>
            )}
            <Radix.Close className="ml-auto self-center rounded p-1 hover:bg-ground" aria-label="Close">
              <X size={16} />
            </Radix.Close>
          </header>
          <div className={fills ? 'flex min-h-0 flex-1' : 'min-h-0 overflow-auto px-5 py-4'}>{children}</div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

/** What went wrong, in the words of the server, with its rule. */
export function Trouble({ error, children }: { error: Error | null; children?: ReactNode }) {
  if (!error) return null;
  const rule = (error as { rule?: string }).rule;
  return (
    <div role="alert" className="rounded-md border border-cut bg-wash px-3 py-2 text-[13px]">
      <p>{error.message}</p>
      {rule && !error.message.includes(rule) && <p className="text-soft">Expected: {rule}.</p>}
      {children}
    </div>
  );
}
