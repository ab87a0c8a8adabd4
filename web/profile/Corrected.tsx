import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { CorrectionView } from '../../contract/own-values.ts';
import type { ProfileAnswer } from '../../contract/responses.ts';
import { useFormat } from '../app/format.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { correct } from './corrections.ts';
import { Section } from './parts.tsx';

/** What was corrected by hand of a company, why, by whom and when; each to be taken back. */
export function Corrected({ profile, name }: { profile: ProfileAnswer; name: string }) {
  const format = useFormat();
  const client = useQueryClient();
  const { corrections } = profile;
  const back = useMutation({
    mutationFn: ({ field }: CorrectionView) =>
      correct(client, { key: profile.row.key, name, corrections }, [{ field, value: null, reason: '' }]),
  });
  if (corrections.length === 0) return null;
  return (
    <Section name="Corrected by hand" note="over what the sources say">
      {corrections.map((one) => (
        <div key={one.field} className="flex items-baseline gap-3 border-b border-rule py-1.5">
          <span className="w-[92px] shrink-0 text-soft">{one.label}</span>
          <span className="min-w-0 break-words">
            {one.value || <em className="text-soft">not known</em>}
            <span className="block text-[12px] text-soft">
              {[one.reason, one.person, format.date(one.at.slice(0, 10))].filter(Boolean).join(' · ')}
            </span>
          </span>
          <Button
            look="quiet"
            className="ml-auto shrink-0 underline"
            disabled={back.isPending}
            aria-label={`Take back ${one.label}`}
            onClick={() => back.mutate(one)}
          >
            take back
          </Button>
        </div>
      ))}
      <Trouble error={back.error} />
    </Section>
  );
}
