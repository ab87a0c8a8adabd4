/** What became of handing a message over, told from what the mail library says of it. */
export type HandedOver =
  | { how: 'taken' }
  /** The address does not exist. */
  | { how: 'refused'; trouble: string }
  /** Not now; it can be tried again. */
  | { how: 'later'; trouble: string }
  /** Nobody can say whether it went. */
  | { how: 'perhaps'; trouble: string };

interface MailError extends Error {
  code?: string;
  responseCode?: number;
  response?: string;
  command?: string;
}

/** Replies from 500 on are for good, from 400 on for now (RFC 5321, 4.2.1); one that speaks of the sender or the size is no word on the address. */
const NOT_OF_THE_ADDRESS = /\b5\.[0235-7]\.\d/;

/** Reads an error of the mail library. */
export function handedOverOf(error: MailError): HandedOver {
  const { responseCode: code, response, command = '', message } = error;
  const said = (response ?? message).slice(0, 300);
  if (code !== undefined && code >= 500 && /RCPT/.test(command) && !NOT_OF_THE_ADDRESS.test(said))
    return { how: 'refused', trouble: said };
  if (code !== undefined) return { how: 'later', trouble: said };
  // Without an answer after the text began to go, it may have been taken.
  if (/DATA/.test(command) || error.code === 'EMESSAGE') return { how: 'perhaps', trouble: said };
  return { how: 'later', trouble: said };
}
