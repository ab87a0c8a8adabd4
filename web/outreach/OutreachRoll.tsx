import { useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { toast } from 'sonner';
import type { CampaignAnswer, OutreachAnswer } from '../../contract/outreach-views.ts';
import type { Step } from '../../core/outreach/steps.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button, Kbd } from '../ui/controls.tsx';
import { Roll } from '../ui/Roll.tsx';
import { asStep, changeCampaign } from './acts.ts';
import { InlineNumber } from './InlineNumber.tsx';
import { useWhere } from './use-outreach.ts';

/** The paper of Outreach: who of a campaign goes out today, and what keeps the others. */
export function OutreachRoll({
  data,
  outreach,
  onPut,
}: {
  data: CampaignAnswer;
  outreach: OutreachAnswer;
  onPut(): void;
}) {
  const format = useFormat();
  const client = useQueryClient();
  const { go } = useWhere();
  const { campaign, roll, seen } = data;
  const { settings } = outreach;
  const attempt = (work: Promise<unknown>) => {
    work.catch((error: Error) => toast.error(error.message));
  };
  const setDaily = (daily: number) => {
    const put = (value: number) => () => call('PUT', '/outreach/settings', { ...settings, daily: value });
    attempt(asStep(client, { name: 'changing the daily limit' }, put(daily), put(settings.daily)));
  };
  const labels: Partial<Record<Step, ReactNode>> = {
    uncertain: (
      <>
        Address below{' '}
        <InlineNumber
          label="Least certainty of an address, in percent"
          value={campaign.certainty}
          most={100}
          onKeep={(certainty) => attempt(changeCampaign(client, campaign, { certainty }))}
        />{' '}
        %
      </>
    ),
    'written-lately': (
      <>
        Written to in the past{' '}
        <InlineNumber
          label="Days in which nobody of us wrote"
          value={campaign.quietDays}
          most={3650}
          onKeep={(quietDays) => attempt(changeCampaign(client, campaign, { quietDays }))}
        />{' '}
        days
      </>
    ),
    'over-limit': (
      <>
        Over today’s limit of{' '}
        <InlineNumber label="Messages a day" value={settings.daily} least={1} most={5000} onKeep={setDaily} />
      </>
    ),
  };
  const steps = roll.steps.map(({ step, label, note, delta, total }) => ({
    key: step,
    label: <span className="font-semibold">{labels[step as Step] ?? label}</span>,
    delta,
    total,
    note,
    onOpen: () => go({ tab: 'people', step, person: null }),
  }));
  const left = roll.foot - seen;
  return (
    <Roll
      title="Goes out today"
      about={[outreach.settings.sender || campaign.person, campaign.name].filter(Boolean).join(', ')}
      steps={steps}
      opens="See these people"
      foot={{ label: 'go out today', total: roll.foot }}
      note={
        <>
          <span className="figure">{format.number(seen)}</span> looked at,{' '}
          <span className="figure">{format.number(left)}</span> to look at
          {outreach.outbox.waiting > 0 && (
            <button
              type="button"
              className="block underline decoration-rule underline-offset-4 hover:text-ink"
              onClick={() => go({ tab: 'outbox' })}
            >
              <span className="figure">{format.number(outreach.outbox.waiting)}</span> in the outbox
            </button>
          )}
        </>
      }
    >
      <Button
        look="ink"
        className="px-2"
        disabled={seen === 0}
        title={seen === 0 ? 'Each message is looked at before it goes' : undefined}
        onClick={onPut}
      >
        Put in the outbox <Kbd>Ctrl ↵</Kbd>
      </Button>
      <Button
        className="px-2"
        disabled={roll.foot === 0}
        onClick={() => go({ tab: 'messages', person: null, step: 'today' })}
      >
        See all {format.number(roll.foot)}
      </Button>
    </Roll>
  );
}
