import { useQueryClient } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { toast } from 'sonner';
import type { CampaignChangeBody } from '../../contract/outreach.ts';
import type { CampaignView, OutreachAnswer } from '../../contract/outreach-views.ts';
import type { TriggerWay } from '../../core/outreach/trigger.ts';
import { Button } from '../ui/controls.tsx';
import { changeCampaign } from './acts.ts';
import { InlineNumber } from './InlineNumber.tsx';

/** What a campaign asks of all its messages; drafts changed by hand stay as they are. */
export function CampaignChoices({
  campaign,
  outreach,
}: {
  campaign: CampaignView;
  outreach: OutreachAnswer | undefined;
}) {
  const client = useQueryClient();
  const change = (wish: CampaignChangeBody) => {
    changeCampaign(client, campaign, wish).catch((error: Error) => toast.error(error.message));
  };
  const names = [...new Set(outreach?.templates.map(({ name }) => name) ?? [])];
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button>What it asks</Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-50 w-80 rounded-md border border-edge bg-paper p-3 text-[13px] shadow-lg"
          onKeyDown={(event) => event.key !== 'Escape' && event.stopPropagation()}
        >
          <div className="grid grid-cols-[90px_1fr] items-center gap-x-3 gap-y-2">
            <label htmlFor="campaign-name">Name</label>
            <input
              id="campaign-name"
              key={campaign.name}
              defaultValue={campaign.name}
              maxLength={120}
              className="field"
              onBlur={(event) => {
                const name = event.target.value.trim();
                if (name !== '' && name !== campaign.name) change({ name });
              }}
              onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
            />
            <label htmlFor="campaign-template">Template</label>
            <select
              id="campaign-template"
              className="field"
              value={campaign.template}
              onChange={(event) => change({ template: event.target.value })}
            >
              {names.map((name) => (
                <option key={name}>{name}</option>
              ))}
            </select>
            <label htmlFor="campaign-trigger">What set it off</label>
            <select
              id="campaign-trigger"
              className="field"
              value={campaign.trigger}
              onChange={(event) => change({ trigger: event.target.value as TriggerWay })}
            >
              <option value="named">is named</option>
              <option value="hinted">is hinted at</option>
              <option value="out">is left out</option>
            </select>
            <span>Length</span>
            <span>
              at most{' '}
              <InlineNumber
                label="Words a message"
                value={campaign.words}
                least={1}
                most={2000}
                onKeep={(words) => change({ words })}
              />{' '}
              words
            </span>
            <span>Proof</span>
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={campaign.askProof}
                onChange={(event) => change({ askProof: event.target.checked })}
              />{' '}
              each message names one
            </label>
          </div>
          <p className="mt-2 text-[12px] text-soft">
            Another template fills all drafts anew that nobody changed by hand.
          </p>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
