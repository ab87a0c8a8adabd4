import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ExportView } from '../../contract/export-views.ts';
import type { MatchesAnswer } from '../../contract/matches.ts';
import type { GatherAnswer } from '../../contract/gather-views.ts';
import type { PlanAnswer, PlanView, ScheduleBody, Target, TellWish } from '../../contract/runs.ts';
import { PLAN_KINDS, type PlanKind } from '../../core/runs/kinds.ts';
import type { SavedTapeView, SourceView } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { said } from '../app/history.ts';
import { Button, Dialog, Segments, Trouble } from '../ui/controls.tsx';
import { BatchFields } from './BatchFields.tsx';
import { TellFields } from './TellFields.tsx';
import { runsChanged } from './use-runs.ts';
import { WhenField } from './WhenField.tsx';
import { KIND_WORDS } from './words.ts';

const USUAL_TELL: TellWish = {
  success: false,
  failure: true,
  changes: null,
  rate: 'at-once',
  ways: ['bell'],
};

/** What a plan begins with where it is made from elsewhere. */
export interface PlanStart {
  kind: PlanKind;
  name?: string;
  target?: Target;
}

/** Says what runs, when, and what one is told of it: a new plan, or one there is. */
export function PlanDialog({
  plan,
  start,
  others,
  onClose,
  onMade,
}: {
  /** Null for a new one. */
  plan: PlanView | null;
  start?: PlanStart;
  /** The other plans, after which it can run. */
  others: readonly PlanView[];
  onClose(): void;
  onMade(plan: PlanView): void;
}) {
  const client = useQueryClient();
  const [kind, setKind] = useState<PlanKind>(plan?.kind ?? start?.kind ?? 'tape');
  const [name, setName] = useState(plan?.name ?? start?.name ?? '');
  const [target, setTarget] = useState<Target>(plan?.target ?? start?.target ?? {});
  const [schedule, setSchedule] = useState<ScheduleBody>(plan ? { ...plan.schedule } : { how: 'hand' });
  const [tell, setTell] = useState<TellWish>(plan?.tell ?? USUAL_TELL);
  const [error, setError] = useState<Error | null>(null);
  const save = async (run: boolean) => {
    // The words say all of a rhythm; its pattern is kept only where that was typed.
    const { cron, ...rest } = schedule;
    const when = schedule.how === 'repeats' && schedule.words ? rest : { ...rest, cron };
    const wish = { kind, name: name.trim() || nameOf(kind), target, schedule: when, tell };
    try {
      const made = plan
        ? await call<PlanAnswer>('PUT', `/plans/${plan.key}`, wish)
        : await call<PlanAnswer>('POST', '/plans', wish);
      if (run) await call('POST', `/plans/${made.plan.key}/run`);
      runsChanged(client);
      said(plan ? `Changed ${made.plan.name}` : run ? `${made.plan.name} runs` : `Planned ${made.plan.name}`);
      onMade(made.plan);
      onClose();
    } catch (failure) {
      setError(failure as Error);
    }
  };
  return (
    <Dialog open title={plan ? plan.name : 'New run'} onClose={onClose} width={720}>
      <form
        className="grid grid-cols-[92px_1fr] items-baseline gap-x-3 gap-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void save(plan === null && schedule.how === 'hand');
        }}
      >
        <span>What</span>
        <div className="flex flex-col gap-2">
          {!plan && !start && (
            <Segments
              label="What runs"
              value={kind}
              options={PLAN_KINDS.map((one) => ({ key: one, label: KIND_WORDS[one] }))}
              onChange={(one) => {
                setKind(one);
                setTarget({});
              }}
            />
          )}
          <TargetFields
            kind={kind}
            target={target}
            onTarget={setTarget}
            onName={(found) => setName((typed) => typed || found)}
          />
        </div>
        <label htmlFor="plan-name">Name</label>
        <input
          id="plan-name"
          className="field"
          maxLength={120}
          placeholder={nameOf(kind)}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <span>When</span>
        <WhenField
          value={schedule}
          onChange={setSchedule}
          others={others.filter(({ key }) => key !== plan?.key)}
        />
        <span>Told</span>
        <div className="flex flex-col gap-2">
          <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                checked={tell.failure}
                onChange={(event) => setTell({ ...tell, failure: event.target.checked })}
              />
              when it fails
            </label>
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                checked={tell.success}
                onChange={(event) => setTell({ ...tell, success: event.target.checked })}
              />
              when it is done
            </label>
            {kind === 'tape' && (
              <label className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  checked={tell.changes !== null && tell.changes !== undefined}
                  onChange={(event) => setTell({ ...tell, changes: event.target.checked ? 0 : null })}
                />
                when more than
                <input
                  className="field figure w-16 py-0.5"
                  inputMode="numeric"
                  aria-label="Changes beyond which it is told"
                  value={tell.changes ?? ''}
                  onChange={(event) =>
                    setTell({
                      ...tell,
                      changes: /^\d{1,9}$/.test(event.target.value) ? Number(event.target.value) : null,
                    })
                  }
                />
                changed
              </label>
            )}
          </div>
          <TellFields
            rate={tell.rate}
            ways={tell.ways}
            onRate={(rate) => setTell({ ...tell, rate })}
            onWays={(ways) => setTell({ ...tell, ways })}
          />
        </div>
        <div className="col-span-2 flex flex-col gap-3">
          <Trouble error={error} />
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>Cancel</Button>
            {schedule.how !== 'hand' && !plan && (
              <Button onClick={() => void save(true)}>Save and run now</Button>
            )}
            <Button look="ink" type="submit">
              {plan ? 'Save' : schedule.how === 'hand' ? 'Run it now' : 'Save'}
            </Button>
          </div>
        </div>
      </form>
    </Dialog>
  );
}

function nameOf(kind: PlanKind): string {
  return {
    tape: 'A tape',
    gatherer: 'A gatherer',
    batch: 'Searches',
    refresh: 'A refresh',
    match: 'A match again',
    export: 'An export',
  }[kind];
}

interface TargetProps {
  kind: PlanKind;
  target: Target;
  onTarget(target: Target): void;
  /** A name that suits what was chosen. */
  onName(name: string): void;
}

/** What of a kind runs. */
function TargetFields({ kind, target, onTarget, onName }: TargetProps) {
  if (kind === 'batch') return <BatchFields target={target} onChange={onTarget} />;
  if (kind === 'refresh') return <RefreshFields target={target} onTarget={onTarget} onName={onName} />;
  return (
    <Choice kind={kind} target={target} onTarget={onTarget} onName={onName}>
      {kind === 'export' && (
        <select
          aria-label="Which rows"
          className="field"
          value={target.rows ?? 'plain'}
          onChange={(event) => onTarget({ ...target, rows: event.target.value as 'plain' })}
        >
          <option value="plain">as it was asked</option>
          <option value="changes">only what is new or changed since</option>
          <option value="all">all, with what changed since</option>
        </select>
      )}
    </Choice>
  );
}

const LISTS = {
  tape: {
    path: '/tapes',
    label: 'Saved tape',
    none: 'No tape is saved yet; save one on the Desk.',
    read: (answer: unknown) =>
      (answer as { tapes: SavedTapeView[] }).tapes.flatMap(({ id, name, kind }) =>
        kind === 'tape' ? [{ id, name }] : [],
      ),
  },
  gatherer: {
    path: '/gather',
    label: 'Gatherer',
    none: 'There is no gatherer yet; make one under Gather.',
    read: (answer: unknown) => (answer as GatherAnswer).gatherers,
  },
  match: {
    path: '/matches',
    label: 'Matched file',
    none: 'No file was matched yet; bring one under Sources.',
    read: (answer: unknown) =>
      (answer as MatchesAnswer).matches.flatMap(({ id, name, of }) => (of === 'file' ? [{ id, name }] : [])),
  },
  export: {
    path: '/exports',
    label: 'Export',
    none: 'Nothing was exported yet.',
    read: (answer: unknown) =>
      (answer as { exports: ExportView[] }).exports.flatMap(({ id, name, again, removedAt }) =>
        again !== 'no' && removedAt === null ? [{ id, name }] : [],
      ),
  },
} as const;

function Choice({ kind, target, onTarget, onName, children }: TargetProps & { children: React.ReactNode }) {
  const one = kind as keyof typeof LISTS;
  const { path, label, none, read } = LISTS[one];
  const { data, error } = useQuery({
    queryKey: ['choices', path],
    queryFn: ({ signal }) => call<unknown>('GET', path, undefined, signal).then(read),
  });
  if (error) return <Trouble error={error} />;
  if (data?.length === 0) return <p className="text-soft">{none}</p>;
  return (
    <div className="flex gap-2">
      <select
        aria-label={label}
        className="field min-w-0 flex-1"
        value={target[one] ?? ''}
        onChange={(event) => {
          onTarget({ ...target, [one]: event.target.value });
          const found = data?.find(({ id }) => id === event.target.value);
          if (found) onName(found.name);
        }}
      >
        <option value="" disabled>
          choose one
        </option>
        {data?.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      {children}
    </div>
  );
}

function RefreshFields({ target, onTarget, onName }: Omit<TargetProps, 'kind'>) {
  const { data } = useQuery({
    queryKey: ['sources'],
    queryFn: ({ signal }) => call<{ sources: SourceView[] }>('GET', '/sources', undefined, signal),
  });
  return (
    <div className="flex flex-col gap-2">
      <select
        aria-label="Source"
        className="field"
        value={target.source ?? ''}
        onChange={(event) => {
          onTarget({ ...target, source: event.target.value });
          const found = data?.sources.find(({ key }) => key === event.target.value);
          if (found) onName(found.name);
        }}
      >
        <option value="" disabled>
          choose a source
        </option>
        {data?.sources.map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
      <label className="flex items-center gap-2 text-[13px]">
        from the file
        <input
          className="field figure min-w-0 flex-1"
          placeholder="/where/it/is/register.csv"
          value={target.path ?? ''}
          onChange={(event) => onTarget({ ...target, path: event.target.value })}
        />
      </label>
      <p className="text-[13px] text-soft">
        It is read anew at each run, with the headings that the source was loaded by.
      </p>
    </div>
  );
}
