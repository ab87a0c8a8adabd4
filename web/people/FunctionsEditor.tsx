import { ArrowUp, X } from 'lucide-react';
import { MOST_FUNCTIONS, type PersonFunction } from '../../core/people/functions.ts';
import { DEPARTMENTS } from '../../core/fields/companies/making.ts';
import { LEVELS } from '../../core/fields/people.ts';
import { Button } from '../ui/controls.tsx';

/** Levels that are often meant together. */
const PAIRS = ['head,director', 'owner,founder'];

/** Who is meant at a company: functions in their order, of which the first that somebody holds counts. */
export function FunctionsEditor({
  functions,
  onChange,
}: {
  functions: readonly PersonFunction[];
  onChange(functions: PersonFunction[]): void;
}) {
  const set = (at: number, part: Partial<PersonFunction>) =>
    onChange(functions.map((one, i) => (i === at ? trimmed({ ...one, ...part }) : one)));
  return (
    <ol className="space-y-1.5">
      {functions.map((one, i) => (
        <li key={i} className="flex items-center gap-2 text-[13px]">
          <span className="w-9 text-soft">{i === 0 ? 'first' : 'else'}</span>
          <select
            aria-label={`Department ${i + 1}`}
            className="field w-40 py-1"
            value={one.department ?? ''}
            onChange={(event) => set(i, { department: event.target.value || undefined })}
          >
            <option value="">any department</option>
            {DEPARTMENTS.map((department) => (
              <option key={department}>{department}</option>
            ))}
          </select>
          <select
            aria-label={`Level ${i + 1}`}
            className="field w-32 py-1"
            value={one.levels?.join() ?? ''}
            onChange={(event) =>
              set(i, { levels: event.target.value ? event.target.value.split(',') : undefined })
            }
          >
            <option value="">any level</option>
            {LEVELS.map((level) => (
              <option key={level}>{level}</option>
            ))}
            {[
              ...new Set([...PAIRS, ...(one.levels && one.levels.length > 1 ? [one.levels.join()] : [])]),
            ].map((levels) => (
              <option key={levels} value={levels}>
                {levels.split(',').join(' or ')}
              </option>
            ))}
          </select>
          <input
            aria-label={`Words of the title ${i + 1}`}
            className="field min-w-0 flex-1 py-1"
            placeholder="any title"
            value={one.title?.join(', ') ?? ''}
            onChange={(event) => set(i, { title: event.target.value.split(/, ?/) })}
          />
          <Button
            look="quiet"
            disabled={i === 0}
            aria-label={`Before the one above, ${i + 1}`}
            onClick={() => {
              const next = [...functions];
              [next[i - 1], next[i]] = [next[i]!, next[i - 1]!];
              onChange(next);
            }}
          >
            <ArrowUp size={13} />
          </Button>
          <Button
            look="quiet"
            disabled={functions.length === 1}
            aria-label={`Without function ${i + 1}`}
            onClick={() => onChange(functions.filter((_, at) => at !== i))}
          >
            <X size={13} />
          </Button>
        </li>
      ))}
      {functions.length < MOST_FUNCTIONS && (
        <li>
          <Button look="quiet" className="text-[13px]" onClick={() => onChange([...functions, {}])}>
            or else …
          </Button>
        </li>
      )}
    </ol>
  );
}

function trimmed({ department, levels, title }: PersonFunction): PersonFunction {
  const words = title?.filter((word, i) => word !== '' || i === title.length - 1);
  return {
    ...(department ? { department } : {}),
    ...(levels?.length ? { levels } : {}),
    ...(words?.some(Boolean) ? { title: words } : {}),
  };
}

/** Functions as they are asked for: without empty words. */
export function askedFunctions(functions: readonly PersonFunction[]): PersonFunction[] {
  return functions.map(({ title, ...rest }) => {
    const words = title?.map((word) => word.trim()).filter(Boolean);
    return { ...rest, ...(words?.length ? { title: words } : {}) };
  });
}
