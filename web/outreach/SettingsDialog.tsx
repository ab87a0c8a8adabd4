import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm, type UseFormRegisterReturn } from 'react-hook-form';
import type { MailServerBody, OutreachSettingsBody } from '../../contract/outreach.ts';
import type { OutreachAnswer } from '../../contract/outreach-views.ts';
import { call } from '../api.ts';
import { did } from '../app/history.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { outreachChanged } from './use-outreach.ts';

type Values = Omit<OutreachSettingsBody, 'mail'> & { mail: string };

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

const WHOLE = { valueAsNumber: true } as const;

/** What holds for all that is written: who writes, how much, when, and through which server. */
export function SettingsDialog({ outreach, onClose }: { outreach: OutreachAnswer; onClose(): void }) {
  const client = useQueryClient();
  const [error, setError] = useState<Error | null>(null);
  const { settings, outbox } = outreach;
  const { register, handleSubmit, watch, setValue } = useForm<Values>({
    defaultValues: { ...settings, mail: settings.mail ?? '' },
  });
  const days = watch('days');
  const save = handleSubmit(async ({ mail, ...rest }) => {
    const wish = { ...rest, mail: mail.trim() || null };
    const put = async (to: object) => {
      await call('PUT', '/outreach/settings', to);
      await outreachChanged(client);
    };
    try {
      await put(wish);
      did('Kept the settings of Outreach', {
        name: 'changing the settings of Outreach',
        undo: () => put(settings),
        redo: () => put(wish),
      });
      onClose();
    } catch (failure) {
      setError(failure as Error);
    }
  });
  return (
    <Dialog open title="Settings of Outreach" onClose={onClose} width={620}>
      <form
        className="grid grid-cols-[150px_1fr] items-center gap-x-3 gap-y-2"
        onSubmit={(event) => void save(event)}
      >
        <label htmlFor="sender">Your name</label>
        <input id="sender" maxLength={80} className="field" {...register('sender')} />
        <label htmlFor="own-mail">Your mail address</label>
        <input id="own-mail" type="email" className="field" {...register('mail')} />
        <label htmlFor="signature">Signature</label>
        <textarea id="signature" rows={2} maxLength={1000} className="field" {...register('signature')} />
        <label htmlFor="unsubscribe">How to hear no more</label>
        <input
          id="unsubscribe"
          maxLength={300}
          className="field"
          placeholder="empty for no such line"
          {...register('unsubscribe')}
        />
        <span>At most</span>
        <span className="flex items-center gap-2">
          <WholeBox label="Messages a day" least={1} most={5000} field={register('daily', WHOLE)} />
          a day,
          <WholeBox label="Messages an hour" least={1} most={5000} field={register('hourly', WHOLE)} />
          an hour
        </span>
        <span>Working hours</span>
        <span className="flex flex-wrap items-center gap-2">
          <WholeBox label="Hours from" least={0} most={23} field={register('from', WHOLE)} />
          to
          <WholeBox label="Hours to" least={1} most={24} field={register('to', WHOLE)} />
          <span className="text-[12px] text-soft">by the clock of those written to</span>
        </span>
        <span>Working days</span>
        <span className="flex gap-2.5 text-[13px]">
          {DAYS.map((name, i) => (
            <label key={name} className="flex items-center gap-1">
              <input
                type="checkbox"
                checked={days.includes(i + 1)}
                onChange={(event) =>
                  setValue(
                    'days',
                    event.target.checked
                      ? [...days, i + 1].sort((a, b) => a - b)
                      : days.filter((day) => day !== i + 1),
                  )
                }
              />
              {name}
            </label>
          ))}
        </span>
        <span>A new campaign asks</span>
        <span className="flex flex-wrap items-center gap-2 text-[13px]">
          <WholeBox label="Words" least={1} most={2000} field={register('words', WHOLE)} />
          words, addresses from
          <WholeBox label="Certainty in percent" least={0} most={100} field={register('certainty', WHOLE)} />
          %, nobody wrote for
          <WholeBox label="Quiet days" least={0} most={3650} field={register('quietDays', WHOLE)} />
          days
        </span>
        <span />
        <label className="flex items-center gap-2 text-[13px]">
          <input type="checkbox" {...register('askProof')} /> each message names a proof
        </label>
        <span>Same wording</span>
        <span className="flex items-center gap-2 text-[13px]">
          <WholeBox
            label="Messages of one wording"
            least={1}
            most={5000}
            field={register('sameText', WHOLE)}
          />
          messages of one wording a day at most
        </span>
        <span>Stand-in</span>
        <label className="flex items-center gap-2 text-[13px]">
          <input type="checkbox" {...register('hasten')} /> answers within seconds and waits for no working
          hours
        </label>
        <div className="col-span-2">
          <Trouble error={error} />
        </div>
        <div className="col-span-2 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="ink" disabled={days.length === 0}>
            Keep
          </Button>
        </div>
      </form>
      <ServerForm through={outbox.through} />
    </Dialog>
  );
}

/** A box for a whole number of a form. */
function WholeBox({
  label,
  least,
  most,
  field,
}: {
  label: string;
  least: number;
  most: number;
  field: UseFormRegisterReturn;
}) {
  return <input aria-label={label} type="number" min={least} max={most} className="field w-20" {...field} />;
}

/** One's own mail server, or the stand-in. */
function ServerForm({ through }: { through: OutreachAnswer['outbox']['through'] }) {
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const [error, setError] = useState<Error | null>(null);
  const { register, handleSubmit } = useForm<MailServerBody>({
    defaultValues: {
      host: through.own ? through.host : '',
      port: through.own ? through.port : 587,
      secure: false,
      user: through.own ? through.user : '',
      password: '',
    },
  });
  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
      await outreachChanged(client);
      setError(null);
      setOpen(false);
    } catch (failure) {
      setError(failure as Error);
    }
  };
  return (
    <section className="mt-4 border-t border-edge pt-3 text-[13px]">
      <p className="flex items-center gap-3">
        <span>
          Messages go through{' '}
          <strong>
            {through.own ? `${through.host}, port ${through.port}` : 'the stand-in on this machine'}
          </strong>
          {!through.own && ', which takes addresses that end in .example only and sends nothing to the world'}
          .
        </span>
        <span className="ml-auto flex gap-2">
          {through.own && (
            <Button onClick={() => void act(() => call('DELETE', '/outreach/server'))}>
              Back to the stand-in
            </Button>
          )}
          <Button aria-expanded={open} onClick={() => setOpen(!open)}>
            Your own server
          </Button>
        </span>
      </p>
      {open && (
        <form
          className="mt-2 grid grid-cols-[150px_1fr] items-center gap-x-3 gap-y-2"
          onSubmit={(event) =>
            void handleSubmit((values) => act(() => call('PUT', '/outreach/server', values)))(event)
          }
        >
          <label htmlFor="server-host">Host and port</label>
          <span className="flex gap-2">
            <input id="server-host" className="field flex-1" {...register('host')} />
            <WholeBox label="Port" least={1} most={65_535} field={register('port', WHOLE)} />
          </span>
          <span />
          <label className="flex items-center gap-2">
            <input type="checkbox" {...register('secure')} /> TLS from the start (port 465); else it is asked
            for
          </label>
          <label htmlFor="server-user">User</label>
          <input id="server-user" autoComplete="off" className="field" {...register('user')} />
          <label htmlFor="server-password">Password</label>
          <input
            id="server-password"
            type="password"
            autoComplete="new-password"
            className="field"
            {...register('password')}
          />
          <p className="col-span-2 text-soft">
            Kept in a file of the data folder that only its owner can read. From then on messages go to real
            people, within working hours.
          </p>
          <div className="col-span-2">
            <Trouble error={error} />
          </div>
          <div className="col-span-2 flex justify-end">
            <Button type="submit">Use this server</Button>
          </div>
        </form>
      )}
    </section>
  );
}
