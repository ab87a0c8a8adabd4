import type { ListView } from '../../contract/lists.ts';
import { useFormat } from '../app/format.ts';

type Judged = Pick<ListView, 'members' | 'judgedIn' | 'judgedOut' | 'unsure' | 'notJudged'>;

/** In, out, unsure and not judged, as parts of one bar with their figures. */
export function VerdictStrip({ list }: { list: Judged }) {
  const format = useFormat();
  const { members, judgedIn, judgedOut, unsure, notJudged } = list;
  const part = (count: number) => ({ width: `${(100 * count) / Math.max(1, members)}%` });
  return (
    <span
      className="block w-36"
      title={`${judgedIn} in, ${judgedOut} out, ${unsure} unsure, ${notJudged} not judged`}
    >
      <span className="flex h-2 border border-edge" aria-hidden="true">
        <span className="bg-kept" style={part(judgedIn)} />
        <span className="hatched" style={part(judgedOut)} />
        <span className="unsure-bar" style={part(unsure)} />
      </span>
      <span className="figure flex gap-2 text-[12px]">
        <span className="text-kept">{format.number(judgedIn)}</span>
        <span className="text-cut">{format.number(judgedOut)}</span>
        <span className="text-unsure">{format.number(unsure)}</span>
        <span className="ml-auto text-soft">{format.number(notJudged)}</span>
      </span>
    </span>
  );
}

/** What the parts of the bar mean. */
export function VerdictLegend() {
  return (
    <span className="flex items-center gap-4 text-[12px]">
      {(
        [
          ['in', 'bg-kept'],
          ['out', 'hatched'],
          ['unsure', 'unsure-bar'],
          ['not judged', ''],
        ] as const
      ).map(([word, look]) => (
        <span key={word} className="flex items-center gap-1.5">
          <span className={`h-2 w-5 border border-edge ${look}`} aria-hidden="true" /> {word}
        </span>
      ))}
    </span>
  );
}
