import { useEffect, useState } from 'react';
import { fieldOf } from '../../../core/fields/registry.ts';
import { addLines, editLine, freeId, holderOf, lineOf } from '../../../core/tape/edit.ts';
import { isBlock, isHas, type FieldLine, type Leaf, type Line } from '../../../core/tape/nodes.ts';
import { subjectWithin } from '../../../core/tape/turn.ts';
import { Button } from '../../ui/controls.tsx';
import { Holder } from '../queries.ts';
import { useDesk } from '../store.ts';
import { LineStage, Stage } from './LineStage.tsx';

/** What an address opens: a line by id, or a field that has no line yet, on the tape or within a has-line: "new:industry", "new:l3/kind". */
function readOpen(openLine: string): { draft: string | null; holder: string | null } {
  if (!openLine.startsWith('new:')) return { draft: null, holder: null };
  const [first, second] = openLine.slice(4).split('/');
  return second === undefined ? { draft: first!, holder: null } : { draft: second, holder: first! };
}

/** The large chooser of a line, on the stage while the line is open; of a line within a has-line, over the related records. */
export function Picker({ openLine }: { openLine: string }) {
  const tape = useDesk((state) => state.tape);
  const { change, set } = useDesk.getState();
  const open = readOpen(openLine);
  const line = open.draft === null ? lineOf(tape, openLine) : undefined;
  const holder = open.holder ?? (line ? (holderOf(tape, line.id)?.id ?? null) : null);
  const subject = holder === null ? tape.subject : subjectWithin(tape, holder);
  const field = fieldOf(subject, open.draft ?? '');
  const known = line !== undefined || (field !== undefined && field.openers.length > 0);
  const [branchId, setBranchId] = useState<string | null>(null);

  useEffect(() => {
    // The line was taken off, or an old address names one that is gone.
    if (!known) set({ openLine: null });
  }, [known, set]);
  if (!known) return null;

  const back = () => set({ openLine: holder });
  const put = (id: string, next: Line | null) =>
    change(
      editLine(tape, id, () => next),
      `line ${id}`,
    );
  if (!line)
    return (
      <Holder.Provider value={holder}>
        <LineStage
          key={field!.id}
          field={field!}
          line={null}
          at={undefined}
          holder={holder}
          onBack={back}
          onLine={(next) => {
            if (next === null) return;
            const id = freeId(tape);
            const added = { ...next, id };
            change(
              holder === null
                ? addLines(tape, [added])
                : editLine(tape, holder, (one) =>
                    isHas(one) ? { ...one, lines: [...one.lines, added] } : one,
                  ),
              `line ${id}`,
            );
            set({ openLine: id });
          }}
        />
      </Holder.Provider>
    );

  const stageOf = (one: Leaf, at: string, branch: boolean) =>
    isHas(one) ? (
      <Stage
        key={one.id}
        line={one}
        label={`Has ${one.has === 'company' ? 'company' : one.has}`}
        subject={subject}
        at={at}
        holder={holder}
        onBack={back}
        branch={branch}
        onLine={(next) => put(one.id, next)}
      />
    ) : (
      <LineStage
        key={branch ? one.id : one.field}
        field={fieldOf(subject, one.field)!}
        line={one}
        at={at}
        holder={holder}
        onBack={back}
        branch={branch}
        onLine={(next: FieldLine | null) => {
          put(one.id, next);
          if (next === null && !branch)
            set({ openLine: holder === null ? `new:${one.field}` : `new:${holder}/${one.field}` });
        }}
      />
    );
  if (!isBlock(line))
    return <Holder.Provider value={holder}>{stageOf(line, line.id, false)}</Holder.Provider>;
  const branch = line.either.find((one) => one.id === branchId) ?? line.either[0]!;
  return (
    <Holder.Provider value={holder}>
      <div className="flex flex-wrap items-center gap-2 pb-2" role="tablist" aria-label="Branches">
        <span className="text-soft">either</span>
        {line.either.map((one, i) => (
          <Button
            key={one.id}
            role="tab"
            aria-selected={one === branch}
            look={one === branch ? 'ink' : 'plain'}
            onClick={() => setBranchId(one.id)}
          >
            {i + 1}. {isHas(one) ? `has ${one.has}` : fieldOf(subject, one.field)!.label.toLowerCase()}
          </Button>
        ))}
      </div>
      {stageOf(branch, line.id, true)}
    </Holder.Provider>
  );
}
