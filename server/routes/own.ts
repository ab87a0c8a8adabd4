import { canBeKept } from '../../core/tape/own-columns.ts';
import { Router } from 'express';
import { CountryGroupBody } from '../../contract/requests.ts';
import { RightPersonBody } from '../../contract/right-people.ts';
import { READY_GROUPS } from '../../core/geo/country-groups.ts';
import { READY_RIGHT_PEOPLE } from '../../core/people/functions.ts';
import {
  ownGroups,
  ownRightPeople,
  removeGroup,
  removeRightPerson,
  writeGroup,
  writeRightPerson,
} from '../tables/facts.ts';
import { ColumnSetBody, NoteBody } from '../../contract/own-requests.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import { fold } from '../../core/text/fold.ts';
import { Problem } from '../../core/tape/problem.ts';
import { body, HttpProblem } from '../http/check.ts';
import type { Services } from '../services.ts';
import { allColumnSets, removeColumnSet, writeColumnSet } from '../tables/column-sets.ts';
import { expectVersion } from '../http/versions.ts';
import { noteOn, writeNote } from '../tables/notes.ts';

/** What one keeps for oneself: notes on records, sets of columns, groups of countries, choices of functions. */
export function ownRoutes({ workspace }: Services): Router {
  const routes = Router();
  const subjectIn = (subject: string) => {
    if (!SUBJECTS.has(subject))
      throw new Problem('unknown-subject', `There is no subject "${subject}".`, {
        field: 'subject',
        value: subject,
        rule: `one of ${[...SUBJECTS.keys()].join(', ')}`,
      });
    return subject;
  };

  routes.get('/notes/:subject/:key', (request, response) => {
    response.json(noteOn(workspace, subjectIn(request.params.subject), request.params.key));
  });
  routes.put('/notes/:subject/:key', (request, response) => {
    const { key } = request.params;
    const subject = subjectIn(request.params.subject);
    const { text } = body(NoteBody, request);
    const now = noteOn(workspace, subject, key);
    expectVersion(request, now.changedAt, 'The note', () => now);
    writeNote(workspace, subject, key, text.trim());
    response.json(noteOn(workspace, subject, key));
  });

  const checkedSet = (set: ColumnSetBody) => {
    const subject = subjectIn(set.subject);
    const unknown = set.columns.find((id) => !canBeKept(subject, id));
    if (unknown !== undefined)
      throw new Problem('unknown-column', `There is no column "${unknown}" of ${set.subject}.`, {
        field: 'columns',
        value: unknown,
        rule: 'columns of the subject',
      });
    return { subject, name: set.name.trim(), columns: set.columns, usual: set.usual };
  };
  routes.get('/column-sets', (_request, response) => {
    response.json({ sets: allColumnSets(workspace) });
  });
  routes.post('/column-sets', (request, response) => {
    response.status(201).json({ set: writeColumnSet(workspace, checkedSet(body(ColumnSetBody, request))) });
  });
  routes.put('/column-sets/:id', (request, response) => {
    const { id } = request.params;
    if (!allColumnSets(workspace).some((set) => set.id === id)) throw unknownSet(id);
    response.json({ set: writeColumnSet(workspace, { ...checkedSet(body(ColumnSetBody, request)), id }) });
  });
  routes.delete('/column-sets/:id', (request, response) => {
    if (!removeColumnSet(workspace, request.params.id)) throw unknownSet(request.params.id);
    response.status(204).end();
  });
  routes.get('/country-groups', (_request, response) => {
    response.json({ ready: [...READY_GROUPS.values()], own: ownGroups(workspace) });
  });
  routes.put('/country-groups/:key', (request, response) => {
    const { key } = request.params;
    if (!/^[a-z0-9][a-z0-9-]{2,59}$/.test(key) || READY_GROUPS.has(key))
      throw new Problem('wrong-value', `"${key}" cannot be the key of a group of your own.`, {
        field: 'key',
        value: key,
        rule: 'three or more small letters, figures and hyphens, and not the key of a ready group',
      });
    const { label, countries } = body(CountryGroupBody, request);
    writeGroup(workspace, { key, label, countries: [...new Set(countries)] });
    response.json({ own: ownGroups(workspace) });
  });
  routes.delete('/country-groups/:key', (request, response) => {
    if (!removeGroup(workspace, request.params.key))
      throw new HttpProblem(404, 'unknown-group', `There is no group "${request.params.key}" of your own.`, {
        field: 'key',
        value: request.params.key,
      });
    response.status(204).end();
  });
  routes.get('/right-people', (_request, response) => {
    response.json({ ready: [...READY_RIGHT_PEOPLE.values()], own: ownRightPeople(workspace) });
  });
  routes.put('/right-people/:key', (request, response) => {
    const { key } = request.params;
    if (!/^[a-z0-9][a-z0-9-]{1,59}$/.test(key) || READY_RIGHT_PEOPLE.has(key))
      throw new Problem('wrong-value', `"${key}" cannot be the key of a choice of your own.`, {
        field: 'key',
        value: key,
        rule: 'two or more small letters, figures and hyphens, and not the key of a ready choice',
      });
    const { label, functions } = body(RightPersonBody, request);
    const name = label.trim();
    const taken = [...READY_RIGHT_PEOPLE.values(), ...ownRightPeople(workspace)].find(
      (one) => one.key !== key && fold(one.label) === fold(name),
    );
    if (taken)
      throw new HttpProblem(409, 'name-taken', `There is a choice "${taken.label}" already.`, {
        field: 'label',
        value: label,
        rule: 'a name of its own',
      });
    writeRightPerson(workspace, { key, label: name, functions });
    response.json({ own: ownRightPeople(workspace) });
  });
  routes.delete('/right-people/:key', (request, response) => {
    if (!removeRightPerson(workspace, request.params.key))
      throw new HttpProblem(
        404,
        'unknown-choice',
        `There is no choice "${request.params.key}" of your own.`,
        {
          field: 'key',
          value: request.params.key,
        },
      );
    response.status(204).end();
  });
  return routes;
}

function unknownSet(id: string): HttpProblem {
  return new HttpProblem(404, 'unknown-column-set', `There is no column set "${id}".`, {
    field: 'id',
    value: id,
  });
}
