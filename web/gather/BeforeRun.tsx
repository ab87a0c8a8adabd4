import type { GatherSpecBody } from '../../contract/gather.ts';
import type { LookAnswer } from '../../contract/gather-views.ts';
import { searchesOf } from '../../core/gather/words-places.ts';
import { useFormat } from '../app/format.ts';
import { useKey } from '../app/keys.ts';
import { Button, Kbd } from '../ui/controls.tsx';
import { Roll } from '../ui/Roll.tsx';

/** The paper before a run: what this page comes to, and how many searches there are. */
export function BeforeRun({
  spec,
  look,
  busy,
  onRun,
  running,
}: {
  spec: GatherSpecBody;
  look: LookAnswer | undefined;
  busy: boolean;
  onRun: (() => void) | null;
  running: boolean;
}) {
  const format = useFormat();
  const searches = searchesOf(spec.words, spec.places).length;
  const rows = look?.rows.length ?? 0;
  const adverts = look?.adverts.length ?? 0;
  const lacking = look?.lacking ?? 0;
  useKey('g', () => onRun?.(), { off: running });
  return (
    <Roll
      title="Not run yet"
      about="what this page comes to with what is taught"
      busy={busy}
      before={
        <div className="flex items-baseline justify-between border-b border-dashed border-edge/70 py-2 pr-4 pl-10">
          <span className="font-semibold">
            Searches{' '}
            <span className="text-[13px] font-normal text-soft">
              {spec.words.length > 0 && `${format.number(spec.words.length)} words`}
              {spec.words.length > 0 && spec.places.length > 0 && ' × '}
              {spec.places.length > 0 && `${format.number(spec.places.length)} places`}
            </span>
          </span>
          <span className="figure text-[15px] font-semibold">{format.number(searches)}</span>
        </div>
      }
      steps={[
        {
          key: 'found',
          label: 'Rows found',
          delta: rows + adverts,
          total: rows + adverts,
          note: 'on this page',
        },
        { key: 'adverts', label: 'Adverts', delta: -adverts, total: rows, note: 'set aside' },
        {
          key: 'refused',
          label: 'Refused',
          delta: -lacking,
          total: rows - lacking,
          note: 'without a name or what is asked for',
        },
      ]}
      foot={{ label: 'records on this page', total: rows - lacking }}
      note={
        onRun === null
          ? 'Point at a row to begin.'
          : look?.next
            ? 'More pages follow.'
            : 'No further page is found from here.'
      }
    >
      <Button look="ink" disabled={onRun === null || running} onClick={() => onRun?.()}>
        Run {format.number(searches)} {searches === 1 ? 'search' : 'searches'} <Kbd>g</Kbd>
      </Button>
    </Roll>
  );
}
