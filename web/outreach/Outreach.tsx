import { useQueryClient } from '@tanstack/react-query';
import clsx from 'clsx';
import { Download } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import type { CampaignAnswer, OutreachAnswer } from '../../contract/outreach-views.ts';
import { useFormat } from '../app/format.ts';
import { useKey } from '../app/keys.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { Roll } from '../ui/Roll.tsx';
import { putInOutbox } from './acts.ts';
import { AllMessages } from './AllMessages.tsx';
import { CampaignChoices } from './CampaignChoices.tsx';
import { Campaigns } from './Campaigns.tsx';
import { Figures } from './Figures.tsx';
import { Messages } from './Messages.tsx';
import { Outbox } from './Outbox.tsx';
import { OutreachRoll } from './OutreachRoll.tsx';
import { People } from './People.tsx';
import { Replies } from './Replies.tsx';
import { SettingsDialog } from './SettingsDialog.tsx';
import { TemplatesDialog } from './TemplatesDialog.tsx';
import { keepAll } from './unkept.ts';
import { useCampaign, useOutreach, useWhere, type Tab } from './use-outreach.ts';

/** Who is written to, what is written to them, and what came back; the roll says who goes out today. */
export function Outreach() {
  const client = useQueryClient();
  const { campaign: id, tab, step, go } = useWhere();
  const { data: outreach, error } = useOutreach();
  const { data, error: lost } = useCampaign(id);
  const [dialog, setDialog] = useState<'templates' | 'settings' | null>(null);
  const campaign = data?.campaign.id === id ? data : undefined;
  const put = () => {
    if (!campaign) return;
    keepAll()
      .then(() => putInOutbox(client, campaign.campaign))
      .then((count) => {
        if (count === 0) toast('Nothing was put in the outbox: each message is looked at before it goes.');
      })
      .catch((failure: Error) => toast.error(failure.message));
  };
  useKey('ctrl+enter', put, { everywhere: true });
  return (
    <div className="flex min-h-0 flex-1">
      <main className="flex min-h-0 min-w-0 flex-1 flex-col px-5 pt-3">
        <div className="flex items-center gap-2 border-b border-edge pb-2">
          <h1 className="title min-w-0 flex-1 truncate text-[21px]">
            {campaign ? campaign.campaign.name : 'Outreach'}
          </h1>
          {campaign && (
            <>
              <CampaignChoices campaign={campaign.campaign} outreach={outreach} />
              <Files id={campaign.campaign.id} />
            </>
          )}
          <Button onClick={() => setDialog('templates')} disabled={!outreach}>
            Templates
          </Button>
          <Button onClick={() => setDialog('settings')} disabled={!outreach}>
            Settings
          </Button>
          {id !== null && (
            <Button onClick={() => go({ campaign: null, person: null, tab: 'people' })}>Campaigns</Button>
          )}
        </div>
        <Trouble error={error ?? lost} />
        {outreach && (
          <>
            <Tabs outreach={outreach} campaign={campaign} />
            {tab === 'outbox' ? (
              <Outbox />
            ) : tab === 'replies' ? (
              <Replies outcomes={outreach.outcomes} />
            ) : tab === 'figures' ? (
              <Figures />
            ) : id === null ? (
              <Campaigns campaigns={outreach.campaigns} />
            ) : !campaign ? (
              !lost && <p className="py-4 text-soft">Opening …</p>
            ) : tab === 'people' ? (
              <People key={`${id} ${step}`} data={campaign} />
            ) : step === 'today' ? (
              <AllMessages data={campaign} outreach={outreach} />
            ) : (
              <Messages data={campaign} outreach={outreach} />
            )}
          </>
        )}
      </main>
      {campaign && outreach ? (
        <OutreachRoll data={campaign} outreach={outreach} onPut={put} />
      ) : (
        <TodayRoll outreach={outreach} />
      )}
      {dialog === 'templates' && outreach && (
        <TemplatesDialog outreach={outreach} onClose={() => setDialog(null)} />
      )}
      {dialog === 'settings' && outreach && (
        <SettingsDialog outreach={outreach} onClose={() => setDialog(null)} />
      )}
    </div>
  );
}

/** The parts of the place. People and messages are a campaign's; the others are of all, or of one where one is open. */
function Tabs({ outreach, campaign }: { outreach: OutreachAnswer; campaign: CampaignAnswer | undefined }) {
  const format = useFormat();
  const { tab, go } = useWhere();
  const tabs: { key: Tab; label: string; count: number | null }[] = [
    ...(campaign
      ? [
          { key: 'people' as const, label: 'People', count: campaign.campaign.people },
          { key: 'messages' as const, label: 'Messages', count: campaign.roll.foot },
        ]
      : [{ key: 'people' as const, label: 'Campaigns', count: outreach.campaigns.length }]),
    { key: 'outbox', label: 'Outbox', count: outreach.outbox.waiting },
    { key: 'replies', label: 'Replies', count: outreach.replies.open },
    { key: 'figures', label: 'Figures', count: null },
  ];
  return (
    <nav aria-label="Parts of Outreach" className="flex gap-1 border-b border-rule">
      {tabs.map(({ key, label, count }) => (
        <button
          key={key}
          type="button"
          aria-current={tab === key ? 'page' : undefined}
          className={clsx(
            'px-2 py-1.5',
            tab === key ? 'border-b-3 border-ink font-semibold' : 'text-soft hover:text-ink',
          )}
          onClick={() => go({ tab: key, person: null, step: 'chosen' })}
        >
          {label}{' '}
          {count !== null && (
            <span className="figure text-[13px] font-normal text-soft">{format.number(count)}</span>
          )}
        </button>
      ))}
    </nav>
  );
}

/** Without a campaign the paper says how the day goes for all of them. */
function TodayRoll({ outreach }: { outreach: OutreachAnswer | undefined }) {
  if (!outreach) return <Roll title="Today" steps={[]} foot={{ label: 'can go out today', total: null }} />;
  const { daily, today, waiting } = outreach.outbox;
  // Where the limit was lowered since, more than it may have gone.
  const sent = Math.min(today, daily);
  const put = Math.min(waiting, daily - sent);
  const steps = [
    { key: 'limit', label: 'Messages a day', note: 'your own limit', delta: daily, total: daily },
    { key: 'sent', label: 'Sent today', delta: 0 - sent, total: daily - sent },
    { key: 'waiting', label: 'In the outbox', delta: 0 - put, total: daily - sent - put },
  ];
  return (
    <Roll
      title="Today"
      about={outreach.settings.sender}
      steps={steps}
      foot={{ label: 'can go out today', total: daily - sent - put }}
      note={outreach.outbox.trouble && <span className="text-cut">{outreach.outbox.trouble}</span>}
    />
  );
}

/** What goes out today as files, for another program. */
function Files({ id }: { id: string }) {
  const item = 'block w-full rounded px-2 py-1 text-left outline-none data-highlighted:bg-ground';
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button>
          <Download size={14} /> Files
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-50 w-72 rounded-md border border-edge bg-paper p-1 shadow-lg"
        >
          <DropdownMenu.Item asChild>
            <a className={item} href={`/api/campaigns/${id}/file?format=csv`} download>
              A sheet for a mail merge
              <span className="block text-[12px] text-soft">CSV with address, subject and text of each</span>
            </a>
          </DropdownMenu.Item>
          <DropdownMenu.Item asChild>
            <a className={item} href={`/api/campaigns/${id}/file?format=eml`} download>
              Mails to be opened
              <span className="block text-[12px] text-soft">.eml files in a ZIP, as drafts</span>
            </a>
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
