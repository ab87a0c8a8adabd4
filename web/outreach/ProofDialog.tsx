import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { ProofView } from '../../contract/outreach-views.ts';
import { call } from '../api.ts';
import { did } from '../app/history.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { outreachChanged } from './use-outreach.ts';

interface Values {
  text: string;
  industries: string;
  technologies: string;
  from: string;
  to: string;
  source: string;
  since: string;
}

const listed = (text: string) =>
  text
    .split(/[,;\s]+/)
    .map((one) => one.trim())
    .filter(Boolean);
const counted = (text: string) => (text.trim() === '' ? null : Number(text));

/** A proof of the library: the fact, whom it fits, where it is from. */
export function ProofDialog({ proof, onClose }: { proof: ProofView | null; onClose(): void }) {
  const client = useQueryClient();
  const [error, setError] = useState<Error | null>(null);
  const { register, handleSubmit, watch } = useForm<Values>({
    defaultValues: {
      text: proof?.text ?? '',
      industries: proof?.industries.join(', ') ?? '',
      technologies: proof?.technologies.join(', ') ?? '',
      from: proof?.from?.toString() ?? '',
      to: proof?.to?.toString() ?? '',
      source: proof?.source ?? '',
      since: proof?.since ?? '',
    },
  });
  const bodyOf = (
    one: Pick<ProofView, 'text' | 'industries' | 'technologies' | 'from' | 'to' | 'source' | 'since'>,
  ) => {
    const { text, industries, technologies, from, to, source, since } = one;
    return { text, industries, technologies, from, to, source, since };
  };
  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
      await outreachChanged(client);
      onClose();
    } catch (failure) {
      setError(failure as Error);
    }
  };
  const save = handleSubmit((values) =>
    act(async () => {
      const wish = {
        text: values.text.trim(),
        industries: listed(values.industries),
        technologies: listed(values.technologies),
        from: counted(values.from),
        to: counted(values.to),
        source: values.source.trim(),
        since: values.since || null,
      };
      if (proof === null) {
        const { proof: made } = await call<{ proof: ProofView }>('POST', '/outreach/proofs', wish);
        let { id } = made;
        did('Kept the proof', {
          name: 'keeping a proof',
          undo: async () => {
            await call('DELETE', `/outreach/proofs/${id}`);
            await outreachChanged(client);
          },
          redo: async () => {
            ({ id } = (await call<{ proof: ProofView }>('POST', '/outreach/proofs', wish)).proof);
            await outreachChanged(client);
          },
        });
      } else {
        const put = async (to: object) => {
          await call('PUT', `/outreach/proofs/${proof.id}`, to);
          await outreachChanged(client);
        };
        await put(wish);
        did('Changed the proof', {
          name: 'changing a proof',
          undo: () => put(bodyOf(proof)),
          redo: () => put(wish),
        });
      }
    }),
  );
  const remove = () =>
    act(async () => {
      if (!proof) return;
      let { id } = proof;
      await call('DELETE', `/outreach/proofs/${id}`);
      did('Removed the proof', {
        name: 'removing a proof',
        undo: async () => {
          ({ id } = (await call<{ proof: ProofView }>('POST', '/outreach/proofs', bodyOf(proof))).proof);
          await outreachChanged(client);
        },
        redo: async () => {
          await call('DELETE', `/outreach/proofs/${id}`);
          await outreachChanged(client);
        },
      });
    });
  return (
    <Dialog open title={proof ? 'Proof' : 'New proof'} onClose={onClose} width={560}>
      <form
        className="grid grid-cols-[112px_1fr] items-center gap-x-3 gap-y-2.5"
        onSubmit={(event) => void save(event)}
      >
        <label htmlFor="proof-text">Fact</label>
        <textarea
          id="proof-text"
          autoFocus
          rows={2}
          maxLength={400}
          placeholder="Joinery near Olomouc: solvent in the air down by 71 %"
          className="field"
          {...register('text')}
        />
        <label htmlFor="proof-industries">Industries</label>
        <input
          id="proof-industries"
          className="field"
          placeholder="all; or NACE codes: 16, 25.51"
          {...register('industries')}
        />
        <label htmlFor="proof-technologies">Technologies</label>
        <input
          id="proof-technologies"
          className="field"
          placeholder="all; or keys of products"
          {...register('technologies')}
        />
        <span>Size</span>
        <span className="flex items-center gap-2">
          <input
            aria-label="People from"
            type="number"
            min={0}
            className="field w-24"
            {...register('from')}
          />
          to
          <input aria-label="People to" type="number" min={0} className="field w-24" {...register('to')} />
          people
        </span>
        <label htmlFor="proof-source">Source</label>
        <input
          id="proof-source"
          maxLength={200}
          placeholder="who measured it, and where that is written"
          className="field"
          {...register('source')}
        />
        <label htmlFor="proof-since">Since</label>
        <input id="proof-since" type="date" className="field w-44" {...register('since')} />
        <div className="col-span-2">
          <Trouble error={error} />
        </div>
        <div className="col-span-2 flex gap-2">
          {proof && (
            <Button look="quiet" onClick={() => void remove()}>
              Remove
            </Button>
          )}
          <span className="ml-auto flex gap-2">
            <Button onClick={onClose}>Cancel</Button>
            <Button type="submit" look="ink" disabled={watch('text').trim() === ''}>
              Keep
            </Button>
          </span>
        </div>
      </form>
    </Dialog>
  );
}
