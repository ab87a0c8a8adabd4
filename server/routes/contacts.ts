import { Router } from 'express';
import multer from 'multer';
import { readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import type { ContactsAnswer } from '../../contract/responses.ts';
import { readContactRows, readVCards, type AddressBookEntry } from '../../core/records/contacts.ts';
import { Problem } from '../../core/tape/problem.ts';
import { domainOf } from '../../core/text/domain.ts';
import { HttpProblem } from '../http/check.ts';
import { CompanyFinder } from '../load/company-finder.ts';
import { fileRows, previewFile } from '../load/read-file.ts';
import type { Services } from '../services.ts';
import { allBooks, contactsAt, removeBook, writeContacts } from '../tables/contacts.ts';

const MOST_MEGABYTES = 20;
const MOST_CONTACTS = 100_000;

/** The address book: people whom we know, loaded from a vCard or a sheet, and the companies where they work. */
export function contactRoutes({ universe, workspace }: Services): Router {
  const routes = Router();
  const upload = multer({ dest: tmpdir(), limits: { fileSize: MOST_MEGABYTES * 2 ** 20, files: 1 } });

  routes.get('/contacts', (_request, response) => {
    response.json({ books: allBooks(workspace) } satisfies ContactsAnswer);
  });
  routes.get('/companies/:key/contacts', (request, response) => {
    response.json({ contacts: contactsAt(workspace, request.params.key) });
  });
  routes.post('/contacts', upload.single('file'), async (request, response) => {
    if (!request.file)
      throw new Problem('no-file', 'The upload holds no file.', {
        field: 'file',
        rule: 'one vCard, CSV or XLSX file',
      });
    const { path } = request.file;
    try {
      const name = Buffer.from(request.file.originalname, 'latin1').toString('utf8');
      const entries = await entriesOf(path);
      if (entries.length === 0 || entries.length > MOST_CONTACTS)
        throw new Problem(
          'no-contacts',
          entries.length
            ? `${name} has ${entries.length.toLocaleString('en-GB')} people; at most ${MOST_CONTACTS.toLocaleString('en-GB')} are read.`
            : `${name} has nobody in it that could be read.`,
          {
            field: 'file',
            value: name,
            rule: 'a vCard, or a sheet with a column for names or mail addresses',
          },
        );
      const finder = new CompanyFinder(universe);
      const keyOf = universe.prepare<[number], string>('SELECT key FROM company WHERE id = ?').pluck();
      const contacts = entries.map((entry) => {
        const found = finder.find({
          number: null,
          domain: domainOf(entry.mail),
          name: entry.organisation,
          country: null,
        });
        return { ...entry, company: found ? keyOf.get(found.id)! : null };
      });
      writeContacts(workspace, name, contacts);
      response.status(201).json({
        book: name,
        contacts: contacts.length,
        found: contacts.filter(({ company }) => company !== null).length,
      });
    } finally {
      rmSync(path, { force: true });
    }
  });
  routes.delete('/contacts/:book', (request, response) => {
    if (!removeBook(workspace, request.params.book))
      throw new HttpProblem(404, 'unknown-book', `There is no address book "${request.params.book}".`, {
        field: 'book',
        value: request.params.book,
      });
    response.status(204).end();
  });
  return routes;
}

async function entriesOf(path: string): Promise<AddressBookEntry[]> {
  const start = readFileSync(path).subarray(0, 4096).toString('utf8');
  if (/^\ufeff?\s*BEGIN:VCARD/i.test(start)) return readVCards(readFileSync(path, 'utf8'));
  const { header, kind, encoding, delimiter } = await previewFile(path, { hasHeader: true });
  const rows: string[][] = [];
  for await (const cells of fileRows(path, { kind, encoding, delimiter, hasHeader: true })) rows.push(cells);
  const entries = readContactRows(header, rows.slice(1));
  if (!entries)
    throw new Problem(
      'no-contacts',
      `No column of the file is a name or a mail address: ${header.slice(0, 8).join(', ')}.`,
      {
        field: 'file',
        value: header.join(', ').slice(0, 200),
        rule: 'a vCard, or a sheet with a column for names or mail addresses',
      },
    );
  return entries;
}
