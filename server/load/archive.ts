import { crc32 } from 'node:zlib';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { Problem } from '../../core/tape/problem.ts';

const MOST_UNPACKED = 2 * 2 ** 30;
const MOST_FILES = 10_000;

/**
 * Unpacks a workbook once without keeping anything: how large it is, and whether every file in it has the checksum that its
 * directory says. Readers of workbooks do not look, and load what is damaged as if it were not.
 * @throws Problem
 */
export async function checkArchive(path: string): Promise<void> {
  let zip: ZipFile;
  try {
    zip = await yauzl.openPromise(path, { autoClose: false, strictFileNames: false });
  } catch (error) {
    throw broken((error as Error).message);
  }
  try {
    let unpacked = 0;
    let files = 0;
    for await (const entry of zip.eachEntry()) {
      if (++files > MOST_FILES)
        throw tooLarge(`has more than ${MOST_FILES.toLocaleString('en-GB')} files in it`);
      if ((entry.generalPurposeBitFlag & 1) !== 0)
        throw new Problem(
          'locked-file',
          'The workbook is protected by a password. Save it without, and choose it again.',
          {
            field: 'file',
            rule: 'a workbook without a password',
          },
        );
      unpacked = await checkEntry(zip, entry, unpacked);
    }
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw broken((error as Error).message);
  } finally {
    zip.close();
  }
}

/** Returns how much is unpacked with this file. */
async function checkEntry(zip: ZipFile, entry: Entry, before: number): Promise<number> {
  let unpacked = before;
  let crc = 0;
  const stream = await zip.openReadStreamPromise(entry);
  for await (const chunk of stream) {
    unpacked += (chunk as Buffer).length;
    if (unpacked > MOST_UNPACKED)
      throw tooLarge(`unpacks to more than ${(MOST_UNPACKED / 2 ** 30).toLocaleString('en-GB')} GB`);
    crc = crc32(chunk as Buffer, crc);
  }
  if (crc !== entry.crc32) throw broken(`${entry.fileName} has not the checksum that it should have`);
  return unpacked;
}

function broken(why: string): Problem {
  return new Problem('broken-xlsx', `The workbook is damaged: ${why}. Bring it again from where it came.`, {
    field: 'file',
    rule: 'an XLSX workbook as it was saved',
  });
}

function tooLarge(how: string): Problem {
  return new Problem('too-large', `The workbook ${how}; it is not opened.`, {
    field: 'file',
    rule: 'at most 2 GB unpacked',
  });
}
