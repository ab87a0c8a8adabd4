import { useQueryClient } from '@tanstack/react-query';
import clsx from 'clsx';
import { useEffect, useState, useSyncExternalStore } from 'react';
import type { CampaignView, MessageView, OutreachAnswer } from '../../contract/outreach-views.ts';
import { countWords, leftUnfilled } from '../../core/outreach/template.ts';
import type { TriggerWay } from '../../core/outreach/trigger.ts';
import { useFormat } from '../app/format.ts';
import { Button } from '../ui/controls.tsx';
import { DraftKeeper } from './draft-keeper.ts';
import { noteUnkept } from './unkept.ts';
import { STATE_WORDS } from './words.ts';
import { WordMeter } from './WordMeter.tsx';

const TRIGGERS: readonly (readonly [TriggerWay, string])[] = [
  ['named', 'names what set it off'],
  ['hinted', 'hints at what set it off'],
  ['out', 'leaves out what set it off'],
];

/** The id of the box that a message is written in. */
export const textId = ({ id }: Pick<MessageView, 'id'>): string => `text-of-message-${id}`;

/** One message on its paper: subject, text, its words against the limit, and what it is made by. */
export function DraftEditor({
  message,
  campaign,
  outreach,
}: {
  message: MessageView;
  campaign: CampaignView;
  outreach: OutreachAnswer;
}) {
  const client = useQueryClient();
  const format = useFormat();
  const [keeper] = useState(() => new DraftKeeper(client, message));
  const { subject, body } = useSyncExternalStore(keeper.subscribe, keeper.snapshot);
  useEffect(() => keeper.take(message), [keeper, message]);
  useEffect(() => {
    const forget = noteUnkept(() => keeper.keep());
    return () => {
      forget();
      void keeper.keep();
    };
  }, [keeper]);
  const isDraft = message.state === 'draft';
  const unfilled = leftUnfilled(`${subject}\n${body}`);
  const names = [...new Set(outreach.templates.map(({ name }) => name))];
  const { signature, unsubscribe, sender } = outreach.settings;
  return (
    <section
      aria-label={`Message to ${message.name}`}
      className="flex flex-col rounded-md border border-edge bg-paper"
    >
      <p className="flex items-baseline gap-2 border-b border-rule px-4 py-1.5 text-[13px]">
        <span className="text-soft">to</span> <strong>{message.name}</strong>
        <span className="min-w-0 truncate text-soft">{message.companyName}</span>
        <span className="ml-auto whitespace-nowrap text-soft">
          {isDraft ? (
            sender && `from ${sender}`
          ) : (
            <strong className={message.state === 'bounced' ? 'text-cut' : undefined}>
              {STATE_WORDS[message.state]}
              {message.sentAt && `, ${format.date(message.sentAt.slice(0, 10))}`}
            </strong>
          )}
        </span>
      </p>
      <label className="flex items-baseline gap-2 border-b border-rule px-4 py-1.5">
        <span className="text-[13px] text-soft">subject</span>
        <input
          value={subject}
          readOnly={!isDraft}
          maxLength={300}
          className="min-w-0 flex-1 bg-transparent font-semibold outline-none"
          onChange={(event) => keeper.type({ subject: event.target.value })}
          onBlur={() => void keeper.keep()}
        />
      </label>
      <textarea
        id={textId(message)}
        aria-label="Text of the message"
        value={body}
        readOnly={!isDraft}
        maxLength={20_000}
        rows={5}
        className="field-sizing-content min-h-[118px] resize-none bg-transparent px-4 py-3 text-[15px] leading-relaxed outline-none"
        onChange={(event) => keeper.type({ body: event.target.value })}
        onBlur={() => void keeper.keep()}
        onKeyDown={(event) => event.key === 'Escape' && event.currentTarget.blur()}
      />
      <div className="flex items-end justify-between gap-3 px-4 pb-2 text-[13px] text-soft">
        <span className="whitespace-pre-line">{[signature, unsubscribe].filter(Boolean).join('\n')}</span>
        <span className="text-[12px] whitespace-nowrap">put below each, not counted</span>
      </div>
      <div className="border-t-3 border-double border-ink px-4 py-2">
        <WordMeter words={countWords(body)} limit={campaign.words} />
        {unfilled.length > 0 && (
          <p className="mt-1 text-[13px] text-cut">
            Nothing is known for {unfilled.map((name) => `{${name}}`).join(', ')}: write it, or take it out.
          </p>
        )}
        {message.trouble && <p className="mt-1 text-[13px] text-cut">{message.trouble}</p>}
      </div>
      <div className="flex flex-wrap items-center gap-2 border-t border-rule px-4 py-1.5 text-[13px]">
        <label className="flex items-center gap-2 text-soft">
          Template
          <select
            className="field py-0.5 text-ink"
            value={message.template ?? ''}
            disabled={!isDraft}
            onChange={(event) => void keeper.change({ template: event.target.value })}
          >
            {names.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </label>
        {message.edited && isDraft && (
          <Button
            look="quiet"
            className="underline"
            onClick={() => void keeper.change({ template: message.template ?? campaign.template })}
          >
            as the template has it
          </Button>
        )}
        <label className="ml-auto">
          <span className="sr-only">What set it off</span>
          <select
            className={clsx('field py-0.5')}
            value={message.trigger}
            disabled={!isDraft}
            onChange={(event) => void keeper.change({ trigger: event.target.value as TriggerWay })}
          >
            {TRIGGERS.map(([way, words]) => (
              <option key={way} value={way}>
                {words}
              </option>
            ))}
          </select>
        </label>
      </div>
    </section>
  );
}
