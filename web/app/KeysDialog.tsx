import { Dialog, Kbd } from '../ui/controls.tsx';
import { KEYS } from './keys.ts';
import { useSettings } from './settings.ts';

export function KeysDialog({ open, onClose }: { open: boolean; onClose(): void }) {
  const { keys } = useSettings();
  return (
    <Dialog
      title="Keys"
      description={
        keys
          ? 'single keys can be turned off in Settings'
          : 'single keys are turned off; Settings turns them on'
      }
      open={open}
      onClose={onClose}
      width={640}
    >
      <dl className="columns-2 gap-8">
        {KEYS.map(({ keys: names, does }) => (
          <div
            key={does}
            className="flex break-inside-avoid items-baseline justify-between gap-3 border-b border-rule py-1.5"
          >
            <dd>{does}</dd>
            <dt className="whitespace-nowrap">
              {names.map((name) => (
                <Kbd key={name}>{name}</Kbd>
              ))}
            </dt>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
