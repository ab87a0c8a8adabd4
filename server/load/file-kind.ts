import { Problem } from '../../core/tape/problem.ts';
import { checkArchive } from './archive.ts';
import { Zip } from './workbook/zip.ts';

/** What an uploaded file is, whatever its name says. */

const PICTURES: [string, number[]][] = [
  ['a PNG picture', [0x89, 0x50, 0x4e, 0x47]],
  ['a JPEG picture', [0xff, 0xd8, 0xff]],
  ['a GIF picture', [0x47, 0x49, 0x46, 0x38]],
  ['a PDF document', [0x25, 0x50, 0x44, 0x46]],
];

const WRONG = { field: 'file', rule: 'a CSV, XLSX or ODS file' };

/** What kind of table a file is, by its first bytes. @throws Problem where it is none that is read */
export async function kindOf(path: string, sample: Buffer): Promise<'csv' | 'xlsx' | 'ods'> {
  const begins = (start: readonly number[]) => start.every((byte, i) => sample[i] === byte);
  for (const [what, start] of PICTURES)
    if (begins(start))
      throw new Problem('wrong-file', `This is no table but ${what}, whatever its name says.`, WRONG);
  if (begins([0xd0, 0xcf, 0x11, 0xe0])) throw oldWorkbook(sample);
  if (begins([0x50, 0x4b, 3, 4])) {
    await checkArchive(path);
    return (await isOds(path)) ? 'ods' : 'xlsx';
  }
  const utf16 = sample[0] === 0xff || sample[0] === 0xfe || nullShare(sample) > 0.2;
  if (!utf16 && sample.includes(0))
    throw new Problem('wrong-file', 'This is no text file: it holds zero bytes.', WRONG);
  return 'csv';
}

/** Workbooks before 2007 and workbooks under a password come in the same envelope. */
function oldWorkbook(sample: Buffer): Problem {
  return sample.includes(Buffer.from('EncryptedPackage', 'utf16le'))
    ? new Problem(
        'locked-file',
        'The workbook is protected by a password. Save it without, and choose it again.',
        {
          field: 'file',
          rule: 'a workbook without a password',
        },
      )
    : new Problem(
        'wrong-file',
        'This is an old XLS workbook, which is not read. Open it in a spreadsheet program, save it as XLSX, ODS or CSV, and choose that.',
        WRONG,
      );
}

async function isOds(path: string): Promise<boolean> {
  const zip = await Zip.open(path);
  try {
    return zip.has('content.xml') && !zip.has('xl/workbook.xml');
  } finally {
    zip.close();
  }
}

function nullShare(sample: Buffer): number {
  let nulls = 0;
  for (const byte of sample) if (byte === 0) nulls++;
  return nulls / sample.length;
}

/** The encoding that the first bytes name, or that zero bytes show. */
export function marked(sample: Buffer): { encoding: string; undecodable: number } | null {
  const as = (encoding: string) => ({ encoding, undecodable: 0 });
  if (sample[0] === 0xff && sample[1] === 0xfe) return as('utf-16le');
  if (sample[0] === 0xfe && sample[1] === 0xff) return as('utf-16be');
  if (nullShare(sample) > 0.2) return as(sample[0] === 0 ? 'utf-16be' : 'utf-16le');
  return null;
}
