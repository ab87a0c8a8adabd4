import { dayOf, isoOf } from '../dates.ts';
import { fold } from '../text/fold.ts';

/** What a message that came back is. */
export const REPLY_KINDS = ['answered', 'out-of-office', 'bounced', 'opted-out'] as const;
export type ReplyKind = (typeof REPLY_KINDS)[number];

/** What is looked at of a message that came. */
export interface Incoming {
  subject: string;
  text: string;
  /** Header names in lower case. */
  headers: ReadonlyMap<string, string>;
}

const OUT_OF_OFFICE =
  /\b(?:out of (?:the )?office|away until|on leave|annual leave|on holiday|abwesend|abwesenheit|nicht im hause|urlaub|mimo kancelar|dovolen|nieobecn|urlop|absent du bureau|en conges|fuori ufficio|fuera de la oficina|afwezig|franvarande|fravaerende|fraværende)/;
const BOUNCED =
  /\b(?:undeliver|delivery (?:status notification|failed|has failed)|returned to sender|mail delivery failed|unzustellbar|nedoruc)/;
/** What somebody says who wants no more of it: said in so many words, or a bare no as the whole answer. */
const OPTED_OUT =
  /\b(?:unsubscribe|opt out|remove me|stop writing|do not (?:write|contact|mail)|don't (?:write|contact|mail)|no more (?:mails?|messages)|keine (?:weiteren )?(?:mails?|e-mails?|werbung)|nicht mehr schreiben|nepiste|neposilejte|prosze nie pisac|ne plus (?:ecrire|contacter))/;
const BARE_NO =
  /^(?:no|no thanks?|no thank you|nein|nein danke|ne|ne dekuji|nie|nie dziekuje|non|non merci|nej|nei)[.! ]*$/;

/**
 * Tells what a message is: by its headers where they say so (RFC 3834 for automatic answers, RFC 3464 for reports on delivery),
 * else by its words in several languages. What is quoted below an answer does not count.
 */
export function replyKindOf({ subject, text, headers }: Incoming): ReplyKind {
  const type = headers.get('content-type') ?? '';
  if (/multipart\/report/i.test(type) && /delivery-status/i.test(type)) return 'bounced';
  const title = fold(subject);
  const own = fold(ownText(text));
  if (BOUNCED.test(title)) return 'bounced';
  const automatic = /auto-(?:replied|generated)/i.test(headers.get('auto-submitted') ?? '');
  if (automatic || OUT_OF_OFFICE.test(title)) return 'out-of-office';
  if (OPTED_OUT.test(own) || OPTED_OUT.test(title)) return 'opted-out';
  const [first = ''] = own
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
  if (BARE_NO.test(first)) return 'opted-out';
  return OUT_OF_OFFICE.test(own.slice(0, 200)) ? 'out-of-office' : 'answered';
}

/** An answer without what it quotes of the message before. */
export function ownText(text: string): string {
  const lines: string[] = [];
  for (const line of text.replace(/\r\n?/g, '\n').split('\n')) {
    if (/^\s*>/.test(line) || /^-{2,}\s*(?:original|urspr)/i.test(line)) break;
    if (/^(?:On|Am|Le|Dne|W dniu)\s.{4,120}:\s*$/.test(line)) break;
    lines.push(line);
  }
  return lines.join('\n').trim();
}

const MONTHS = 'january february march april may june july august september october november december'.split(
  ' ',
);

/** The day on which somebody who is away says to be back, as ISO day: the last date named. Null where none is. */
export function backOn(text: string): string | null {
  const days: string[] = [];
  const plain = fold(text);
  for (const [, year, month, day] of plain.matchAll(/\b(\d{4})-(\d{2})-(\d{2})\b/g))
    push(year!, month!, day!);
  for (const [, day, month, year] of plain.matchAll(/\b(\d{1,2})\.\s?(\d{1,2})\.\s?(\d{4})\b/g))
    push(year!, month!, day!);
  for (const [, day, name, year] of plain.matchAll(/\b(\d{1,2}) ([a-z]{3,9}) (\d{4})\b/g)) {
    const month = MONTHS.findIndex((one) => one.startsWith(name!));
    if (month >= 0) push(year!, String(month + 1), day!);
  }
  return days.sort().at(-1) ?? null;

  function push(year: string, month: string, day: string): void {
    const iso = `${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
    const on = dayOf(iso);
    if (on !== null && isoOf(on) === iso) days.push(iso);
  }
}
