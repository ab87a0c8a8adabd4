import type { StoredNotice } from '../tables/runs/notices.ts';

/** Notices as a feed (RFC 4287, Atom). */

const ESCAPES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&apos;',
};

/** Whether XML 1.0 has a way to write a character. */
function isWritable(sign: string): boolean {
  const code = sign.codePointAt(0)!;
  if (code < 0x20) return code === 9 || code === 10 || code === 13;
  return code < 0xd800 || (code > 0xdfff && code !== 0xfffe && code !== 0xffff);
}

function xml(text: string): string {
  return [...text]
    .filter(isWritable)
    .map((sign) => ESCAPES[sign] ?? sign)
    .join('');
}

/** @param home where the program is found, such as http://127.0.0.1:4600 */
export function atomFeed(notices: readonly StoredNotice[], home: string, self: string): string {
  const updated = notices[0]?.at ?? new Date(0).toISOString();
  const entries = notices.map(({ id, at, title, why, items, link }) =>
    [
      '  <entry>',
      `    <id>urn:just-tally:notice:${xml(id)}</id>`,
      `    <title>${xml(title)}</title>`,
      `    <updated>${at}</updated>`,
      `    <link href="${xml(home + link)}"/>`,
      `    <summary>${xml(why)}</summary>`,
      `    <content type="text">${xml(items.join('\n'))}</content>`,
      '  </entry>',
    ].join('\n'),
  );
  return [
    '<?xml version="1.0" encoding="utf-8"?>',
    '<feed xmlns="http://www.w3.org/2005/Atom">',
    '  <id>urn:just-tally:notices</id>',
    '  <title>Just Tally</title>',
    '  <author><name>Just Tally</name></author>',
    `  <updated>${updated}</updated>`,
    `  <link rel="self" href="${xml(self)}"/>`,
    ...entries,
    '</feed>',
    '',
  ].join('\n');
}
