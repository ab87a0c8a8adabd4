import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { CampaignAnswer } from '../../contract/outreach-views.ts';
import type { PersonFunction } from '../../core/people/right-person.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { did } from '../app/history.ts';
import { wordActed, type Acted } from '../desk/acted.ts';
import { picksBody } from '../desk/picks.ts';
import { countedPart } from '../desk/queries.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { askedFunctions, FunctionsEditor } from './FunctionsEditor.tsx';
import { outreachChanged, useOutreach } from './use-outreach.ts';

const REMEMBERED = 'functions to write to';
const FIRST: PersonFunction[] = [
  { department: 'production', levels: ['head'] },
  { department: 'production', levels: ['director'] },
  { levels: ['owner'] },
];

/** The choice of functions made last on this machine. */
function remembered(): PersonFunction[] {
  try {
    return (JSON.parse(localStorage.getItem(REMEMBERED) ?? 'null') as PersonFunction[] | null) ?? FIRST;
  } catch {
    return FIRST;
  }
}

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
  const [functions, setFunctions] = useState(remembered);
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);
  const names = [...new Set(outreach?.templates.map((one) => one.name) ?? [])];
  const make = async () => {
    setBusy(true);
    setError(null);
    const asked = ofCompanies ? { functions: askedFunctions(functions) } : {};
    const people = {
      tape: { ...countedPart(tape), ...(tape.name ? { name: tape.name } : {}) },
      sort,
      ...picksBody(picks),
      ...asked,
    };
    if (ofCompanies) localStorage.setItem(REMEMBERED, JSON.stringify(functions));
    try {
      if (campaign !== '') {
        await call('POST', `/campaigns/${campaign}/people`, people);
        await outreachChanged(client);
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
        {ofCompanies && (
          <>
            <span className="pt-1">Whom</span>
            <FunctionsEditor functions={functions} onChange={setFunctions} />
          </>
        )}
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
