import { SaxesParser, type SaxesTagPlain } from 'saxes';
import type { Readable } from 'node:stream';

/** What is done at the parts of an XML text. Names come without their prefix. */
export interface XmlHandler {
  open?(name: string, attributes: Readonly<Record<string, string>>): void;
  text?(text: string): void;
  close?(name: string): void;
}

const plain = (name: string) => name.slice(name.indexOf(':') + 1);

function parserOf(handler: XmlHandler): SaxesParser {
  const parser = new SaxesParser();
  parser.on('opentag', (tag: SaxesTagPlain) => {
    if (!handler.open) return;
    const attributes: Record<string, string> = {};
    for (const [name, value] of Object.entries(tag.attributes)) attributes[plain(name)] = value;
    handler.open(plain(tag.name), attributes);
  });
  parser.on('text', (text) => handler.text?.(text));
  parser.on('closetag', (tag) => handler.close?.(plain(tag.name)));
  parser.on('error', (error) => {
    throw error;
  });
  return parser;
}

export function readXml(text: string, handler: XmlHandler): void {
  parserOf(handler).write(text).close();
}

/** Reads a stream of XML; between its chunks what `ready` gives is yielded. */
export async function* streamXml<T>(
  stream: Readable,
  handler: XmlHandler,
  ready: () => T[],
): AsyncGenerator<T> {
  const parser = parserOf(handler);
  stream.setEncoding('utf8');
  try {
    for await (const chunk of stream) {
      parser.write(chunk as string);
      yield* ready();
    }
    parser.close();
    yield* ready();
  } finally {
    stream.destroy();
  }
}
