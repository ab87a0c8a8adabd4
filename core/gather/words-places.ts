/** Searches of one gatherer at most. */
export const MOST_SEARCHES = 10_000;

/** Words or places as they are typed or pasted: one a line or apart by commas; what stands in quotes keeps its commas. */
export function readTerms(text: string): string[] {
  const found: string[] = [];
  let [term, quoted, wasQuoted] = ['', false, false];
  const end = () => {
    const plain = term.replace(/\s+/g, ' ').trim();
    if (plain !== '' && !found.includes(plain)) found.push(plain);
    [term, wasQuoted] = ['', false];
  };
  for (let i = 0; i < text.length; i++) {
    const letter = text[i]!;
    if (quoted && letter === '"' && text[i + 1] === '"') {
      term += '"';
      i++;
    } else if (letter === '"' && (quoted || term.trim() === '') && !(wasQuoted && !quoted)) {
      quoted = !quoted;
      wasQuoted = true;
    } else if (!quoted && (letter === ',' || letter === ';' || letter === '\n' || letter === '\t')) end();
    else term += letter === '\n' ? ' ' : letter;
  }
  end();
  return found;
}

/** Terms as they are edited: one a line, in quotes where they hold what keeps terms apart. */
export const writeTerms = (terms: readonly string[]) =>
  terms.map((term) => (/[,;"]/.test(term) ? `"${term.replaceAll('"', '""')}"` : term)).join('\n');

/** Lines of a file that are looked at to see whether it is a sheet. */
const LOOKED_AT = 50;

/** The cells of a line; what stands in quotes keeps what keeps cells apart. */
function cellsOf(line: string, delimiter: string): string[] {
  const cells: string[] = [];
  let [cell, quoted] = ['', false];
  for (const letter of line) {
    if (letter === '"') quoted = !quoted;
    else if (letter === delimiter && !quoted) {
      cells.push(cell.trim());
      cell = '';
    } else cell += letter;
  }
  return [...cells, cell.trim()];
}

/** The columns of a sheet, by its headings, each with the terms below; null where a text is a list of terms and no sheet. */
export function sheetColumns(text: string): { heading: string; terms: string[] }[] | null {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  for (const delimiter of ['\t', ';', ',']) {
    const [header, ...rows] = lines.map((line) => cellsOf(line, delimiter));
    if (!header || header.length < 2 || rows.length === 0) continue;
    if (!rows.slice(0, LOOKED_AT).every(({ length }) => length === header.length)) continue;
    return header.map((heading, i) => ({
      heading,
      terms: [...new Set(rows.map((row) => row[i] ?? '').filter(Boolean))],
    }));
  }
  return null;
}

export interface Search {
  word: string;
  place: string;
}

/** Each word at each place, word by word; one search where there are neither. */
export function searchesOf(words: readonly string[], places: readonly string[]): Search[] {
  const all = (terms: readonly string[]) => (terms.length ? terms : ['']);
  return all(words).flatMap((word) => all(places).map((place) => ({ word, place })));
}
