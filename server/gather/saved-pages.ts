import PostalMime from 'postal-mime';
import { readFileSync } from 'node:fs';
import { Problem } from '../../core/tape/problem.ts';
import { Zip } from '../load/workbook/zip.ts';
import { decoded, MOST_BYTES } from './fetcher.ts';

/** Pages that came in a file: one saved by a browser, in one file or with its parts (MHTML), or an archive of many. */

/** Pages of an archive at most, and what they may be together. */
const [MOST_PAGES, MOST_TOGETHER] = [5000, 200 * 2 ** 20];

export interface SavedPage {
  url: string;
  html: string;
}

/** @throws Problem where the file is no page, or too large */
export async function savedPagesOf(path: string, fileName: string): Promise<SavedPage[]> {
  const head = readFileSync(path).subarray(0, 4).toString('latin1');
  if (head === 'PK\u0003\u0004') return ofArchive(path);
  const bytes = readFileSync(path);
  checkSize(bytes.length, fileName);
  return [await pageOf(bytes, fileName)];
}

async function ofArchive(path: string): Promise<SavedPage[]> {
  const zip = await Zip.open(path).catch((error: Error) => {
    throw new Problem('wrong-file', `The archive cannot be read: ${error.message}.`, {
      field: 'file',
      rule: 'a ZIP of pages',
    });
  });
  try {
    const names = zip.names.filter(
      (name) => /\.(?:html?|mhtml?|xhtml)$/i.test(name) && !name.startsWith('__MACOSX'),
    );
    if (names.length === 0 || names.length > MOST_PAGES)
      throw new Problem('wrong-file', `The archive holds ${names.length} pages.`, {
        field: 'file',
        rule: `a ZIP of 1 to ${MOST_PAGES} files that end in .html or .mhtml`,
      });
    const pages: SavedPage[] = [];
    let together = 0;
    for (const name of names) {
      const chunks: Buffer[] = [];
      let size = 0;
      for await (const chunk of await zip.stream(name)) {
        size += (chunk as Buffer).length;
        together += (chunk as Buffer).length;
        checkSize(size, name);
        if (together > MOST_TOGETHER)
          throw new Problem(
            'too-large',
            'The pages of the archive are larger together than is read at once.',
            {
              field: 'file',
              rule: `at most ${MOST_TOGETHER / 2 ** 20} MB`,
            },
          );
        chunks.push(chunk as Buffer);
      }
      pages.push(await pageOf(Buffer.concat(chunks), name));
    }
    return pages;
  } finally {
    zip.close();
  }
}

function checkSize(size: number, name: string): void {
  if (size > MOST_BYTES)
    throw new Problem('too-large', `${name} is larger than a page that is read.`, {
      field: 'file',
      value: name,
      rule: `at most ${MOST_BYTES / 2 ** 20} MB`,
    });
}

async function pageOf(bytes: Buffer, name: string): Promise<SavedPage> {
  const head = bytes.subarray(0, 2000).toString('latin1');
  if (/\.mhtml?$/i.test(name) || /^(?:From|MIME-Version|Snapshot-Content-Location):/im.test(head)) {
    const mail = await new PostalMime().parse(bytes);
    const location = mail.headers.find(({ key }) =>
      ['snapshot-content-location', 'content-location'].includes(key),
    )?.value;
    if (mail.html) return { url: addressFor(location ?? '', name), html: mail.html };
  }
  const html = decoded(bytes, null);
  if (html.includes('\u0000') || !/<[a-z!]/i.test(html))
    throw new Problem('wrong-file', `${name} is no page.`, {
      field: 'file',
      value: name,
      rule: 'a page saved as HTML or MHTML, or a ZIP of such',
    });
  return { url: addressFor(savedFrom(html), name), html };
}

/** Where browsers say that a page was saved from. */
const savedFrom = (html: string) =>
  /<!-- saved from url=\(\d+\)(\S{1,2000})/.exec(html.slice(0, 4000))?.[1] ??
  /<link[^>]{0,300}rel="?canonical"?[^>]{0,300}href="([^"]{1,2000})"/i.exec(html.slice(0, 100_000))?.[1] ??
  '';

const addressFor = (said: string, name: string) =>
  /^https?:\/\//i.test(said)
    ? said
    : `http://saved.example/${encodeURIComponent(name).replaceAll('%2F', '/')}`;

/** A pasted table or page as a page: cells that are apart by tabs become a table. */
export function pastedPage(text: string): SavedPage {
  const url = 'http://pasted.example/';
  if (/<(?:table|tr|li|div|p|body|dl|article)\b/i.test(text)) return { url, html: text };
  const rows = text
    .replace(/\r/g, '')
    .split('\n')
    .filter((line) => line.trim() !== '');
  const cells = rows.map((line) => line.split('\t'));
  if (cells.length < 2 || !cells.some((row) => row.length > 1))
    throw new Problem('wrong-paste', 'What was pasted is neither a table nor a page.', {
      field: 'text',
      rule: 'at least two rows with tabs between their cells, or HTML',
    });
  const shown = (cell: string) => cell.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
  return {
    url,
    html: `<table>${cells.map((row) => `<tr>${row.map((cell) => `<td>${shown(cell.trim())}</td>`).join('')}</tr>`).join('')}</table>`,
  };
}
