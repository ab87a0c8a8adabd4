import { useQuery } from '@tanstack/react-query';
import type { SourceView, UploadAnswer } from '../../../contract/responses.ts';
import { fold } from '../../../core/text/fold.ts';
import { call } from '../../api.ts';

/** Words of a name without figures, so that "Register 2025-09.csv" and "Register 2025-10.csv" are alike. */
const plain = (name: string) =>
  fold(name)
    .replace(/\.[a-z]+$/, '')
    .replace(/[^a-z]+/g, ' ')
    .trim();

/**
 * The sources of companies that a file may be a newer version of, the likeliest first: those that were read with just its headings,
 * then those from a file of a like name, then the others by name.
 */
export function useOlder(file: UploadAnswer): SourceView[] {
  const { data } = useQuery({
    queryKey: ['sources'],
    queryFn: ({ signal }) => call<{ sources: SourceView[] }>('GET', '/sources', undefined, signal),
  });
  const remembered = new Set(file.remembered.map(({ name }) => name));
  const rank = ({ name, fileName }: SourceView) =>
    remembered.has(name) ? 0 : fileName !== null && plain(fileName) === plain(file.fileName) ? 1 : 2;
  return (data?.sources ?? [])
    .filter(({ subject }) => subject === file.subject)
    .sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name));
}
