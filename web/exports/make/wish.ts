import type { ExportTemplateView } from '../../../contract/export-views.ts';
import type { FileWish } from '../../../contract/file-wish.ts';
import { COMPUTED, type Computed } from '../../../core/exports/computed.ts';
import { canBeAsked } from '../../../core/fields/field.ts';
import { columnFields } from '../../../core/fields/registry.ts';
import type { Tape } from '../../../core/tape/nodes.ts';
import { isOwnColumn, ownColumnOf } from '../../../core/tape/own-columns.ts';

/** What is chosen of an export's file, before it is asked for. */
export interface ChosenFile extends Omit<FileWish, 'handed'> {
  /** Off those that were handed over before: to whom, and within how many days. */
  handed: { who: 'receiver' | 'anybody'; days: number | null } | null;
}

/** An export of what the sheet shows. */
export function fileOfSheet(
  columns: readonly string[],
  currency: string,
  paper: 'A4' | 'Letter',
): ChosenFile {
  return {
    format: 'xlsx',
    columns: [...columns],
    language: 'en',
    ...{ currency, paper, delimiter: ',', bom: true, quoteAll: false, decimalComma: false, lineEnd: 'crlf' },
    ...{ beside: true, areas: false, breakdown: false, receiver: '', handed: null },
  };
}

/** What a template says, in the currency of the workspace; who it is for stays as it was unless the template says so. */
export function fileOfTemplate(
  { file }: ExportTemplateView,
  tape: Pick<Tape, 'lines' | 'subject'>,
  { receiver, currency, handed }: ChosenFile,
): ChosenFile {
  return {
    ...file,
    // What only lists say is left out where the tape stands on none.
    columns: file.columns.filter(
      (id) => !isOwnColumn(id) || id.startsWith(COMPUTED) || ownColumnOf(tape, id) !== undefined,
    ),
    currency,
    receiver: file.receiver || receiver,
    handed: file.handed
      ? { who: file.handed.receiver === undefined ? 'anybody' : 'receiver', days: file.handed.days ?? null }
      : handed,
  };
}

/** The same as the API has it. `receiverKey` is that of the receiver where anybody was handed anything under the name. */
export function fileWish({ handed, ...file }: ChosenFile, receiverKey: string): FileWish {
  // Whom nobody named has had nothing.
  const asked = handed && (handed.who === 'anybody' || file.receiver.trim() !== '') ? handed : null;
  const off = asked && {
    ...(asked.who === 'receiver' ? { receiver: receiverKey } : {}),
    ...(asked.days === null ? {} : { days: asked.days }),
  };
  return { ...file, receiver: file.receiver.trim(), ...(off ? { handed: off } : {}) };
}

/** The next free name of a computed column. */
export function nextComputed(computed: readonly Computed[]): string {
  for (let n = 1; ; n++) if (!computed.some(({ id }) => id === `${COMPUTED}${n}`)) return `${COMPUTED}${n}`;
}

/** Columns whose values a file can be shared out by: the name of the column, and the field it is of. */
export function splitChoices(subject: string): { by: string; field: string }[] {
  return columnFields(subject).flatMap(({ id, kind, column }) => {
    if (kind === 'place') return ['Country', 'Region', 'Town'].map((by) => ({ by, field: id }));
    if (kind === 'codes') return [{ by: 'Main industry code', field: id }];
    return kind === 'category' && id !== 'handed-over' ? [{ by: column!.heading, field: id }] : [];
  });
}

/** Fields that every row can be asked to have, those that reach somebody first. */
export function needChoices(subject: string): { id: string; label: string }[] {
  const first = ['mail', 'phone', 'web', 'street', 'postcode', 'place'];
  const asked = columnFields(subject).filter(canBeAsked);
  const rank = (id: string) => (first.indexOf(id) + first.length + 1) % (first.length + 1);
  return asked.map(({ id, label }) => ({ id, label })).sort((one, other) => rank(one.id) - rank(other.id));
}
