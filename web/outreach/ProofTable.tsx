import clsx from 'clsx';
import type { ProofView, WritingAnswer } from '../../contract/outreach-views.ts';
import { useFormat } from '../app/format.ts';
import { Button, Kbd } from '../ui/controls.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';

/** What proofs are sorted by: how well they fit, or what is known of them. */
type ProofOrder = 'rank' | 'text' | 'named' | 'answered';

/** Proofs shown at first. */
const FIRST = 9;

/** The library of proofs for one message: what fits best first unless sorted otherwise, one of them named. */
export function ProofTable({
  proofs,
  chosen,
  fixed,
  onChoose,
  onEdit,
}: {
  proofs: WritingAnswer['proofs'];
  chosen: string | null;
  /** Of a message that is no draft any more. */
  fixed: boolean;
  onChoose(id: string | null): void;
  onEdit(proof: ProofView | 'new'): void;
}) {
  const format = useFormat();
  const ranked = proofs.map((proof, rank) => ({ ...proof, rank }));
  const { sorted, order, setOrder } = useOrder<ProofOrder, (typeof ranked)[number]>(ranked, {
    by: 'rank',
    descending: false,
  });
  const heading = { order, onOrder: setOrder };
  return (
    <section aria-label="Proofs" className="mt-3">
      <header className="flex items-baseline gap-3 border-b border-edge pb-0.5">
        <h2 className="title text-[16px]">Proofs</h2>
        <span className="text-[12px] text-soft">
          {order.by === 'rank' && !order.descending && 'what fits best first; '}one a message
        </span>
        <Button look="quiet" className="ml-auto text-[13px]" onClick={() => onEdit('new')}>
          New proof
        </Button>
      </header>
      {proofs.length === 0 ? (
        <p className="py-2 text-[13px] text-soft">
          None yet. A proof is one short fact about your own work that a message may name.
        </p>
      ) : (
        <table className="w-full text-[13px]">
          <thead className="text-[12px] text-soft">
            <tr>
              <th className="w-9">
                <span className="sr-only">Key</span>
              </th>
              <SortHead by="text" label="One fact each" text {...heading} />
              <SortHead by="rank" label="Fits" text {...heading} />
              <SortHead by="named" label="Named" right {...heading} />
              <SortHead by="answered" label="Answered" right {...heading} />
              <th>
                <span className="sr-only">Change</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {sorted.slice(0, FIRST).map((proof) => {
              const here = proof.id === chosen;
              return (
                <tr
                  key={proof.id}
                  aria-selected={here}
                  className={clsx('border-b border-rule', here && 'bg-picked', !proof.fits && 'text-soft')}
                >
                  <td className={clsx('border-l-3 py-0.5 pl-1', here ? 'border-ink' : 'border-transparent')}>
                    {proof.rank < FIRST && <Kbd>{proof.rank + 1}</Kbd>}
                  </td>
                  <td className="max-w-0 py-1 pr-3" style={{ width: '52%' }}>
                    <button
                      type="button"
                      disabled={fixed}
                      aria-pressed={here}
                      title={proof.text}
                      className="block w-full truncate text-left enabled:hover:underline disabled:opacity-100"
                      onClick={() => onChoose(here ? null : proof.id)}
                    >
                      {proof.text}
                    </button>
                  </td>
                  <td className="pr-3 text-[12px]">
                    {proof.fits ? proof.by.join(', ') || 'anybody' : 'does not fit'}
                  </td>
                  <td className="figure pr-5 text-right">{format.number(proof.named)}</td>
                  <td className="figure text-right whitespace-nowrap">
                    {format.number(proof.answered)}
                    <span className="ml-2 inline-block w-12 font-sans text-soft">
                      {proof.named > 0 && `${Math.round((100 * proof.answered) / proof.named)} %`}
                    </span>
                  </td>
                  <td className="pl-2 text-right">
                    <Button
                      look="quiet"
                      className="py-0 text-[12px]"
                      aria-label={`Change the proof ${proof.text}`}
                      onClick={() => onEdit(proof)}
                    >
                      change
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {proofs.length > FIRST && (
        <p className="pt-1 text-[12px] text-soft">
          the first {FIRST} of {format.number(proofs.length)}
        </p>
      )}
    </section>
  );
}
