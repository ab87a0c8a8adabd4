import { Router } from 'express';
import multer from 'multer';
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import type { ContactsAnswer } from '../../contract/responses.ts';
import { Problem } from '../../core/tape/problem.ts';
import { domainOf } from '../../core/text/domain.ts';
import { HttpProblem } from '../http/check.ts';
import { CompanyFinder } from '../load/company-finder.ts';
import { oneFile } from '../http/upload.ts';
import { readInThread } from '../load/reading-thread.ts';
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
  routes.post('/contacts', oneFile(upload), async (request, response) => {
    if (!request.file)
      throw new Problem('no-file', 'The upload holds no file.', {
        field: 'file',
        rule: 'one vCard, CSV or XLSX file',
      });
    const { path } = request.file;
    try {
      const name = Buffer.from(request.file.originalname, 'latin1').toString('utf8');
      const { entries } = await readInThread({ of: 'contacts', path });
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
