import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { CampaignAnswer, MorePeopleAnswer } from '../../contract/outreach-views.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { did } from '../app/history.ts';
import { wordActed, type Acted } from '../desk/acted.ts';
import { picksBody } from '../desk/picks.ts';
import { countedPart } from '../desk/queries.ts';
import { askedFunctions } from '../people/FunctionsEditor.tsx';
import { useRememberedFunctions } from '../people/right-people.ts';
import { RightPersonPicker } from '../people/RightPersonPicker.tsx';
import { Button, Dialog, Segments, Trouble } from '../ui/controls.tsx';
import { outreachChanged, useOutreach } from './use-outreach.ts';

/** Makes a campaign of people, or of the right person of each company: drafts for all of them in one act. */
export function WriteToDialog({ acted, onClose }: { acted: Acted; onClose(): void }) {
  const format = useFormat();
  const client = useQueryClient();
  const navigate = useNavigate();
  const { data: outreach, error: unread } = useOutreach();
  const { tape, sort, picks } = acted;
  const ofCompanies = tape.subject === 'companies';
  const [campaign, setCampaign] = useState('');
  const [name, setName] = useState(tape.name ?? '');
  const [template, setTemplate] = useState('');
  const [functions, setFunctions] = useRememberedFunctions();
  const [whom, setWhom] = useState<'all' | 'one'>('all');
  const onePerCompany = ofCompanies || whom === 'one';
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);
  const names = [...new Set(outreach?.templates.map((one) => one.name) ?? [])];
  const make = async () => {
    setBusy(true);
    setError(null);
    const asked = onePerCompany ? { functions: askedFunctions(functions) } : {};
    const people = {
      tape: { ...countedPart(tape), ...(tape.name ? { name: tape.name } : {}) },
      sort,
      ...picksBody(picks),
      ...asked,
    };
    try {
      if (campaign !== '') {
        const path = `/campaigns/${campaign}/people`;
        let put = await call<MorePeopleAnswer>('POST', path, people);
        await outreachChanged(client);
        did(`Drafts for ${format.number(put.added)} more people`, {
          name: `putting ${format.number(put.added)} people into ${put.campaign.name}`,
          undo: async () => {
            await call('DELETE', path, { after: put.after, added: put.added, without: put.without });
            await outreachChanged(client);
          },
          redo: async () => {
            put = await call<MorePeopleAnswer>('POST', path, people);
            await outreachChanged(client);
          },
        });
        void navigate(`/outreach?campaign=${campaign}`);
      } else {
        const wish = { ...people, name: name.trim(), ...(template ? { template } : {}) };
        let { campaign: made } = await call<CampaignAnswer>('POST', '/campaigns', wish);
        await outreachChanged(client);
        did(`Drafts for ${format.number(made.people)} people`, {
          name: `making the campaign ${made.name}`,
          undo: async () => {
            await call('DELETE', `/campaigns/${made.id}`);
            await outreachChanged(client);
          },
          redo: async () => {
            ({ campaign: made } = await call<CampaignAnswer>('POST', '/campaigns', wish));
            await outreachChanged(client);
          },
        });
        void navigate(`/outreach?campaign=${made.id}&part=messages`);
      }
      onClose();
    } catch (failure) {
      setError(failure as Error);
      setBusy(false);
    }
  };
  const none = outreach !== undefined && names.length === 0;
  return (
    <Dialog open title="Write to" description={wordActed(acted, format.number)} onClose={onClose} width={680}>
      <form
        className="grid grid-cols-[84px_minmax(0,1fr)] items-start gap-x-3 gap-y-2.5"
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <span className="pt-1.5">Whom</span>
        <div className="min-w-0 space-y-2">
          {!ofCompanies && (
            <Segments
              label="Whom"
              value={whom}
              onChange={setWhom}
              options={[
                { key: 'all', label: 'all of them' },
                { key: 'one', label: 'one a company' },
              ]}
            />
          )}
          {onePerCompany && <RightPersonPicker functions={functions} onFunctions={setFunctions} />}
        </div>
        <label htmlFor="campaign-into" className="pt-1.5">
          Campaign
        </label>
        <span className="flex gap-2">
          <select
            id="campaign-into"
            className="field w-40"
            value={campaign}
            onChange={(event) => setCampaign(event.target.value)}
          >
            <option value="">a new one</option>
            {outreach?.campaigns.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
          {campaign === '' && (
            <input
              aria-label="Name of the campaign"
              autoFocus
              maxLength={120}
              placeholder="Name it"
              className="field min-w-0 flex-1"
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
          )}
        </span>
        {campaign === '' && names.length > 0 && (
          <>
            <label htmlFor="campaign-template" className="pt-1.5">
              Template
            </label>
            <select
              id="campaign-template"
              className="field"
              value={template}
              onChange={(event) => setTemplate(event.target.value)}
            >
              {names.map((one, i) => (
                <option key={one} value={i === 0 ? '' : one}>
                  {one}
                </option>
              ))}
            </select>
          </>
        )}
        <p className="col-span-2 text-[13px] text-soft">
          {none
            ? 'There is no template yet. Outreach, Templates has the way to write one.'
            : 'Each gets a draft. Nothing goes out before it was looked at and put in the outbox.'}
        </p>
        <div className="col-span-2">
          <Trouble error={error ?? unread} />
        </div>
        <div className="col-span-2 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button
            type="submit"
            look="ink"
            disabled={busy || none || acted.count === 0 || (campaign === '' && name.trim() === '')}
          >
            {busy ? 'Drafting …' : 'Make the drafts'}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
