import { useState } from 'react';
import type { TextTest } from '../../../core/tape/nodes.ts';
import { parseWords, type WordsQuery } from '../../../core/tape/words-query.ts';
import { useFormat } from '../../app/format.ts';
import { Segments } from '../../ui/controls.tsx';
import { useAlternatives } from '../queries.ts';
import type { PickerProps } from './picker-props.ts';

/** Words with and, or, not, phrases and beginnings; the line follows the typing as long as it reads. */
export function TextPicker({ field, test, at, onTest }: PickerProps<TextTest>) {
  const [text, setText] = useState(test?.text ?? '');
  const [where, setWhere] = useState(test?.in ?? 'both');
  const [problem, setProblem] = useState<string | null>(null);
  const apply = (nextText: string, nextWhere: 'name' | 'description' | 'both') => {
    setText(nextText);
    setWhere(nextWhere);
    if (nextText.trim() === '') {
      setProblem(null);
      if (test) onTest(null);
      return;
    }
    try {
      parseWords(nextText);
      setProblem(null);
      onTest({ text: nextText, ...(nextWhere === 'both' ? {} : { in: nextWhere }) });
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <div className="max-w-2xl pt-2">
      <div className="flex gap-3">
        <input
          autoFocus
          value={text}
          onChange={(event) => apply(event.target.value, where)}
          placeholder={'staircase or "spiral stair"'}
          aria-label="Words"
          aria-invalid={problem !== null}
          maxLength={1000}
          className="field min-w-0 flex-1 border-ink text-base"
        />
        <Segments
          label="Where"
          value={where}
          onChange={(value) => apply(text, value)}
          options={[
            { key: 'both', label: 'name or description' },
            { key: 'name', label: 'name' },
            { key: 'description', label: 'description' },
          ]}
        />
      </div>
      {problem && (
        <p role="alert" className="mt-2 text-[13px] text-cut">
          {problem} The line stays as it was until this reads.
        </p>
      )}
      {test && <TermCounts field={field.id} at={at} test={test} />}
      <dl className="mt-6 grid grid-cols-[220px_1fr] gap-y-1.5">
        {[
          ['joinery staircase', 'both words'],
          ['staircase or railing', 'either'],
          ['joinery not kitchen', 'the first without the second'],
          ['"spiral stair"', 'these words in this order'],
          ['stair*', 'any word that begins so'],
          ['(oak or ash) and stair*', 'brackets'],
        ].map(([example, means]) => (
          <div key={example} className="contents">
            <dt>
              <button
                type="button"
                className="figure text-left underline decoration-rule underline-offset-4 hover:decoration-ink"
                onClick={() => apply(example!, where)}
              >
                {example}
              </button>
            </dt>
            <dd className="text-soft">{means}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-4 text-[13px] text-soft">
        Accents and case do not matter. A company without a description is unknown to words it does not have
        in its name.
      </p>
    </div>
  );
}

/** What each word or phrase of the line would leave by itself. */
function TermCounts({ field, at, test }: { field: string; at: string | undefined; test: TextTest }) {
  const format = useFormat();
  const terms = [...new Set(termsOf(parseWords(test.text)))];
  const { data } = useAlternatives(
    field,
    at,
    terms.map((text) => ({ ...test, text })),
  );
  if (terms.length < 2 || data?.counts.length !== terms.length) return null;
  return (
    <ul aria-label="What each word brings" className="mt-4 max-w-md">
      {terms.map((term, i) => (
        <li key={term} className="flex justify-between border-b border-rule py-1">
          <span className="figure">{term}</span>
          <span className="figure font-semibold">{format.number(data.counts[i]!)}</span>
        </li>
      ))}
    </ul>
  );
}

function termsOf(query: WordsQuery): string[] {
  switch (query.kind) {
    case 'and':
    case 'or':
      return query.parts.flatMap(termsOf);
    case 'not':
      return termsOf(query.part);
    case 'term': {
      const words = `${query.words.join(' ')}${query.prefix ? '*' : ''}`;
      return [query.words.length > 1 ? `"${words}"` : words];
    }
  }
}
