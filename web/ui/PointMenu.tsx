import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';

/** A small menu at a point of the window, left by Esc or a click elsewhere. */
export function PointMenu({
  x,
  y,
  label,
  align = 'center',
  className,
  onClose,
  children,
}: {
  x: number;
  y: number;
  label: string;
  align?: 'start' | 'center';
  className: string;
  onClose(): void;
  children: ReactNode;
}) {
  return (
    <Popover.Root open onOpenChange={(open) => !open && onClose()}>
      <Popover.Anchor asChild>
        <span className="fixed size-0" style={{ left: x, top: y }} />
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          side="bottom"
          align={align}
          sideOffset={4}
          className={`z-50 rounded-md border border-edge bg-paper shadow-lg ${className}`}
          aria-label={label}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
