import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { OutreachAnswer, TemplateView } from '../../contract/outreach-views.ts';
import { countWords, TEMPLATE_FIELDS } from '../../core/outreach/template.ts';
import { call } from '../api.ts';
import { did } from '../app/history.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { outreachChanged } from './use-outreach.ts';

const NEW = { name: '', language: 'en', subject: '', body: 'Dear {name},\n\n' };

/** The library of templates: the one that is open is written beside the fields it can name. */
export function TemplatesDialog({ outreach, onClose }: { outreach: OutreachAnswer; onClose(): void }) {
  const { templates } = outreach;
  const [open, setOpen] = useState<TemplateView | null>(templates[0] ?? null);
  return (
    <Dialog open title="Templates" description="what messages are made of" onClose={onClose} width={860}>
      <div className="grid grid-cols-[200px_1fr] gap-5">
        <nav aria-label="Templates" className="border-r border-rule pr-3">
          <ul>
            {templates.map((one) => (
              <li key={one.id}>
                <button
                  type="button"
                  aria-current={open?.id === one.id || undefined}
                  className={`block w-full truncate rounded px-2 py-1 text-left ${open?.id === one.id ? 'bg-picked font-semibold' : 'hover:bg-ground'}`}
                  onClick={() => setOpen(one)}
                >
                  {one.name} <span className="text-[12px] text-soft">{one.language}</span>
                </button>
              </li>
            ))}
          </ul>
          <Button className="mt-2 w-full justify-center" onClick={() => setOpen(null)}>
            New template
          </Button>
        </nav>
        <TemplateForm
          key={open?.id ?? 'new'}
          template={open}
          onKept={setOpen}
          onRemoved={() => setOpen(templates.find(({ id }) => id !== open?.id) ?? null)}
        />
      </div>
    </Dialog>
  );
}

function TemplateForm({
  template,
  onKept,
  onRemoved,
}: {
  template: TemplateView | null;
  onKept(template: TemplateView): void;
  onRemoved(): void;
}) {
  const client = useQueryClient();
  const [values, setValues] = useState(template ?? NEW);
  const [error, setError] = useState<Error | null>(null);
  const body = useRef<HTMLTextAreaElement>(null);
  const { name, language, subject, body: text } = values;
  const wish = { name: name.trim(), language, subject, body: text };
  const act = async (work: () => Promise<void>) => {
    setError(null);
    try {
      await work();
      await outreachChanged(client);
    } catch (failure) {
      setError(failure as Error);
    }
  };
  const keep = () =>
    act(async () => {
      if (template === null) {
        let { template: made } = await call<{ template: TemplateView }>('POST', '/outreach/templates', wish);
        did(`Kept the template ${made.name}`, {
          name: `keeping the template ${made.name}`,
          undo: async () => {
            await call('DELETE', `/outreach/templates/${made.id}`);
            await outreachChanged(client);
          },
          redo: async () => {
            ({ template: made } = await call<{ template: TemplateView }>(
              'POST',
              '/outreach/templates',
              wish,
            ));
            await outreachChanged(client);
          },
        });
        onKept(made);
        return;
      }
      const { id, ...before } = template;
      const put = async (to: object) => {
        const answer = await call<{ template: TemplateView }>('PUT', `/outreach/templates/${id}`, to);
        await outreachChanged(client);
        return answer.template;
      };
      const kept = await put(wish);
      did(`Changed the template ${kept.name}`, {
        name: `changing the template ${kept.name}`,
        undo: () => put(before),
        redo: () => put(wish),
      });
      onKept(kept);
    });
  const remove = () =>
    act(async () => {
      if (!template) return;
      const { id, ...before } = template;
      let now = id;
      await call('DELETE', `/outreach/templates/${now}`);
      did(`Removed the template ${template.name}`, {
        name: `removing the template ${template.name}`,
        undo: async () => {
          ({ id: now } = (
            await call<{ template: TemplateView }>('POST', '/outreach/templates', before)
          ).template);
          await outreachChanged(client);
        },
        redo: async () => {
          await call('DELETE', `/outreach/templates/${now}`);
          await outreachChanged(client);
        },
      });
      onRemoved();
    });
  const put = (field: string) => {
    const area = body.current;
    const at = area?.selectionStart ?? text.length;
    setValues({ ...values, body: `${text.slice(0, at)}{${field}}${text.slice(area?.selectionEnd ?? at)}` });
    area?.focus();
  };
  const set = (part: Partial<typeof values>) => setValues({ ...values, ...part });
  return (
    <form
      className="grid grid-cols-[1fr_190px] gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <div className="grid grid-cols-[72px_1fr] items-start gap-x-3 gap-y-2">
        <label htmlFor="template-name">Name</label>
        <span className="flex gap-2">
          <input
            id="template-name"
            autoFocus={template === null}
            maxLength={80}
            className="field min-w-0 flex-1"
            value={name}
            onChange={(event) => set({ name: event.target.value })}
          />
          <input
            aria-label="Language"
            title="Two letters, such as en or de. One name may have a template in each language: the country of the company decides."
            maxLength={2}
            className="figure field w-14 text-center"
            value={language}
            onChange={(event) => set({ language: event.target.value.toLowerCase() })}
          />
        </span>
        <label htmlFor="template-subject">Subject</label>
        <input
          id="template-subject"
          maxLength={300}
          className="field"
          value={subject}
          onChange={(event) => set({ subject: event.target.value })}
        />
        <label htmlFor="template-body">Text</label>
        <textarea
          id="template-body"
          ref={body}
          rows={9}
          maxLength={20_000}
          className="field leading-relaxed"
          value={text}
          onChange={(event) => set({ body: event.target.value })}
        />
        <span />
        <p className="text-[12px] text-soft">
          A part in [square brackets] goes where a field in it is not known. A field outside of them that is
          not known holds the message back. <span className="figure">{countWords(text)}</span> words as it
          stands.
        </p>
        <div className="col-span-2">
          <Trouble error={error} />
        </div>
        <div className="col-span-2 flex gap-2">
          {template && (
            <Button look="quiet" onClick={() => void remove()}>
              Remove
            </Button>
          )}
          <Button
            type="submit"
            look="ink"
            className="ml-auto"
            disabled={wish.name === '' || wish.body.trim() === ''}
          >
            Keep
          </Button>
        </div>
      </div>
      <div>
        <h3 className="text-[12px] text-soft">Fields</h3>
        <ul className="text-[13px]">
          {Object.entries(TEMPLATE_FIELDS).map(([field, meaning]) => (
            <li key={field}>
              <button
                type="button"
                title={meaning}
                className="figure rounded px-1 py-0.5 text-left text-[12px] hover:bg-ground hover:underline"
                onClick={() => put(field)}
              >
                {`{${field}}`}
              </button>
            </li>
          ))}
        </ul>
      </div>
    </form>
  );
}
