import clsx from 'clsx';
import type { WordedTally } from '../../../contract/responses.ts';
import { relationsOf, rolesOf } from '../../../core/fields/registry.ts';
import { subjectWithin } from '../../../core/tape/turn.ts';
import { isHas, type HasLine } from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { useDesk } from '../store.ts';
import { nameOf, wordedById } from '../worded.ts';

type Figures = WordedTally['lines'][number];

/** "as adviser to the seller", or nothing where any role will do. */
export function roleOf(line: HasLine, subject: string): string {
  const related = relationsOf(subject).get(line.has);
  const role = related && rolesOf(subject, related.id).find(({ key }) => key === line.as);
  return role ? `as ${role.label}` : '';
}

/** The lines of has-lines, indented, each with how many related records pass it by itself. */
export function InnerLines({
  lines,
  figures,
  openLine,
  onCurrent,
}: {
  lines: readonly HasLine[];
  figures: Figures;
  openLine: string | null;
  onCurrent(id: string): void;
}) {
  const tape = useDesk((state) => state.tape);
  const { set } = useDesk.getState();
  const format = useFormat();
  const related = new Map(figures.related?.map((one) => [one.id, one]));
  const words = wordedById([figures]);
  return (
    <div className="my-1 border-l-2 border-rule pl-2.5 text-[13px]">
      {lines.map((line) => {
        const own = related.get(line.id);
        const alone = new Map(own?.lines.map((one) => [one.id, one.alone]));
        const many = subjectWithin(tape, line.id);
        return (
          <div key={line.id}>
            {line.lines.map((one) => (
              <div key={one.id}>
                <button
                  type="button"
                  data-line={one.id}
                  aria-expanded={openLine === one.id}
                  onFocus={(event) => {
                    event.stopPropagation();
                    onCurrent(one.id);
                  }}
                  onClick={() => set({ openLine: openLine === one.id ? null : one.id, company: null })}
                  className={clsx(
                    'flex w-full items-baseline gap-2 rounded px-1 py-0.5 text-left leading-snug hover:bg-ground',
                    openLine === one.id && 'bg-ground shadow-[inset_2px_0_0_var(--ink)]',
                    one.parked && 'text-soft',
                  )}
                >
                  <span className="min-w-0 flex-1 break-words">
                    {one.not && <strong className="text-cut">not </strong>}
                    <strong className="font-semibold">
                      {words.get(one.id)?.words.label ?? nameOf(one)}
                    </strong>{' '}
                    {isHas(one) ? roleOf(one, many) : words.get(one.id)?.words.text}
                    {one.parked && ' (parked)'}
                  </span>
                  <span className="figure text-soft" title={`${many} that pass this line by itself`}>
                    {format.number(alone.get(one.id) ?? 0)}
                  </span>
                </button>
                {isHas(one) && (
                  <InnerLines lines={[one]} figures={figures} openLine={openLine} onCurrent={onCurrent} />
                )}
              </div>
            ))}
            {own && (
              <p className="px-1 text-[12px] leading-5 text-soft">
                <span className="figure text-ink">{format.number(own.sure)}</span> of{' '}
                <span className="figure">{format.number(own.all)}</span> {many} pass
                {own.possible > 0 && (
                  <span className="text-unsure">, {format.number(own.possible)} more may</span>
                )}
              </p>
            )}
          </div>
        );
      })}
    </div>
  );
}
