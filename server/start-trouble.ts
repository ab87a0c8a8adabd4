/** What keeps the program from starting, said so that a user can do something about it. */
export class TroubleAtStart extends Error {}

const WORDS: readonly (readonly [codes: readonly string[], say: (dir: string) => string])[] = [
  [
    ['SQLITE_FULL', 'ENOSPC', 'EDQUOT'],
    (dir) =>
      `There is no space left where the data is kept (${dir}). Free some, or start with --data and another folder.`,
  ],
  [
    ['SQLITE_READONLY', 'SQLITE_READONLY_DIRECTORY', 'SQLITE_READONLY_DBMOVED', 'EACCES', 'EROFS', 'EPERM'],
    (dir) =>
      `The data in ${dir} cannot be written: the folder or a file in it is read-only for this user. Change its rights, or start with --data and another folder.`,
  ],
  [
    ['SQLITE_CORRUPT', 'SQLITE_CORRUPT_VTAB', 'SQLITE_NOTADB'],
    (dir) =>
      `A database in ${dir} is damaged or none of ours. Bring the folder back from a copy, or start with --data and another folder.`,
  ],
  [
    ['ENOTDIR', 'EEXIST', 'SQLITE_CANTOPEN', 'SQLITE_CANTOPEN_ISDIR'],
    (dir) => `${dir} cannot be used as a folder of data. Start with --data and the path of a folder.`,
  ],
];

/** What went wrong with a folder of data, in a sentence that says what to do; the error's own words where it is none of these. */
export function troubleWith(dir: string, error: unknown): string {
  const { code, message } = error as { code?: string; message?: string };
  const found = WORDS.find(([codes]) => code !== undefined && codes.includes(code));
  return found ? found[1](dir) : (message ?? String(error));
}

/** Whether an error says that nothing more can be written for want of space. */
export function isOutOfSpace(error: unknown): boolean {
  return WORDS[0]![0].includes((error as { code?: string }).code ?? '');
}

/** Whether an error says that the data cannot be written at all. */
export function isReadOnly(error: unknown): boolean {
  return WORDS[1]![0].includes((error as { code?: string }).code ?? '');
}
