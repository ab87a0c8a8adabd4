import { createWriteStream } from 'node:fs';
import { HOW_TITLE, howMadeRows, TAPE_FILE } from '../../../core/exports/how-made.ts';
import { Paper } from '../../paper/paper.ts';
import { printed, tableColumns } from '../../paper/parts.ts';
import { tapeInfo } from './pdf-tape.ts';
import type { FileRow, OpenWriter, WriterContext } from './writer.ts';

/** Columns beyond which a page is laid on its side. */
const MOST_UPRIGHT = 6;

/** A table for paper; on its last page how it was made. */
export const openPdf: OpenWriter = (context) => {
  const { columns } = context;
  const shown = printed(columns);
  const places = shown.map((column) => columns.indexOf(column));
  const paper = paperFor(context, shown.length > MOST_UPRIGHT);
  const laid = tableColumns(shown);
  let begun = false;
  return {
    add: async (rows) => {
      paper.table(
        laid,
        rows.map(({ cells, row }) => places.map((i) => shownAs(context, i, cells[i]!, row))),
        undefined,
        begun,
      );
      begun = true;
      await flowed();
    },
    finish: () => end(paper, context),
    leave: () => paper.abandon(),
  };
};

/** One page for each record: its name, then every column that has a value, or why it has none. */
export const openDossiers: OpenWriter = (context) => {
  const { columns } = context;
  const paper = paperFor(context, false);
  return {
    add: async (rows) => {
      for (const { cells, row } of rows) {
        paper.newPage();
        paper.write(titleOf(context, cells) || row.key, { font: 'slab', size: 17 });
        paper.rule();
        paper.y += 6;
        columns.forEach((column, i) => {
          const text = shownAs(context, i, cells[i]!, row);
          if (text !== '' && !(column.plain.endsWith(' basis') && text === 'reported'))
            paper.fact(column.heading, text);
        });
      }
      await flowed();
    },
    finish: () => end(paper, context),
    leave: () => paper.abandon(),
  };
};

function paperFor({ path, title, how, options }: WriterContext, landscape: boolean): Paper {
  const sources = how.sources.map(({ name, asOf }) => `${name}, ${asOf}`).join('; ');
  return new Paper(
    {
      title,
      under: [
        `${how.count.toLocaleString('en-GB')} ${how.many.toLowerCase()}`,
        `as of ${how.asOf}`,
        how.receiver && `for ${how.receiver}`,
      ]
        .filter(Boolean)
        .join(' · '),
      foot: sources,
      size: options.paper,
      landscape,
    },
    createWriteStream(path, { flags: 'wx' }),
    tapeInfo(how.tape),
  );
}

async function end(paper: Paper, { how }: WriterContext): Promise<void> {
  paper.newPage();
  paper.heading(HOW_TITLE);
  for (const [what = '', ...rest] of howMadeRows(how).slice(2)) {
    if (what === TAPE_FILE) continue;
    if (rest.length) paper.fact(String(what).slice(0, 60), rest.join(' · '));
    else paper.write(String(what) || ' ');
  }
  await paper.ended();
}

const titleOf = ({ columns }: WriterContext, cells: FileRow['cells']) => {
  const name = columns.findIndex(({ id }) => id === 'name');
  return name < 0 ? '' : String(cells[name] ?? '');
};

/** A cell as it is printed: figures with thousands, estimates marked. */
function shownAs(
  { columns }: WriterContext,
  i: number,
  value: string | number | null,
  row: FileRow['row'],
): string {
  if (value === null) return '';
  if (typeof value === 'string') return value;
  const { year, range } = columns[i]!;
  if (year) return String(value);
  return `${range?.(row) ? 'c. ' : ''}${value.toLocaleString('en-GB', { maximumFractionDigits: 2 })}`;
}

/** Lets what is written flow to the disk. */
const flowed = () => new Promise((resolve) => setImmediate(resolve));
