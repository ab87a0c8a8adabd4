/** The tape file within the information that a PDF holds of itself, in letters that any PDF keeps as they are. */

const NAME = 'JustTallyTape';

export function tapeInfo(tape: string): Record<string, string> {
  return { [NAME]: Buffer.from(tape).toString('base64url') };
}

/** The tape in the bytes of a PDF that was written so; null where there is none. Texts stand in objects of their own. */
export function tapeInPdf(bytes: Buffer): string | null {
  const at = bytes.lastIndexOf(`/${NAME} `);
  const object = at < 0 ? null : /^\/\w+ (\d+) 0 R/.exec(bytes.toString('latin1', at, at + 60));
  if (!object) return null;
  const head = `\n${object[1]} 0 obj\n(`;
  const start = bytes.indexOf(head);
  if (start < 0) return null;
  const end = bytes.indexOf(')', start + head.length);
  return Buffer.from(bytes.toString('latin1', start + head.length, end), 'base64url').toString();
}
