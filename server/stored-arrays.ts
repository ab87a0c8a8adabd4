import { closeSync, openSync, readSync, renameSync, rmSync, writeSync, existsSync, fstatSync } from 'node:fs';
import { crc32 } from 'node:zlib';

/**
 * An object of typed arrays as one file, such as the columns of a universe, opened again without building anything:
 *
 *     magic │ version │ crc32 │ length of outline │ outline (JSON) │ arrays, each on a multiple of 8
 *
 * The outline is the object itself with each typed array replaced by its kind, place and length.
 * All arrays are read into one block of shared memory and are views of it. A damaged file, or one of another version, counts
 * as none.
 */

const MAGIC = 0x4a544c59;
const HEAD_BYTES = 16;
/** Bytes read or written at a time. */
const PIECE = 1 << 24;

const KINDS = { Uint8Array, Uint16Array, Uint32Array, Int32Array, Float32Array, Float64Array } as const;
type Kind = keyof typeof KINDS;
type AnyArray = InstanceType<(typeof KINDS)[Kind]>;

type Outline =
  | string
  | number
  | boolean
  | null
  | Outline[]
  | { infinite: string }
  | { array: Kind; at: number; length: number }
  | { map: [string, Outline][] }
  | { object: Record<string, Outline> };

/** Writes the file whole or not at all. */
export function saveArrays(path: string, version: number, whole: object): void {
  const arrays = new Map<AnyArray, number>();
  let end = 0;
  const outlineOf = (value: unknown): Outline => {
    if (ArrayBuffer.isView(value)) {
      const array = value as AnyArray;
      let at = arrays.get(array);
      if (at === undefined) {
        arrays.set(array, (at = end));
        end += Math.ceil(array.byteLength / 8) * 8;
      }
      return { array: array.constructor.name as Kind, at, length: array.length };
    }
    if (value instanceof Map)
      return { map: [...value].map(([key, one]): [string, Outline] => [String(key), outlineOf(one)]) };
    if (Array.isArray(value)) return value.map(outlineOf);
    if (typeof value === 'object' && value !== null)
      return {
        object: Object.fromEntries(Object.entries(value).map(([key, one]) => [key, outlineOf(one)])),
      };
    if (typeof value === 'number' && !Number.isFinite(value)) return { infinite: String(value) };
    return value as Outline;
  };
  const outline = padded(Buffer.from(JSON.stringify({ outline: outlineOf(whole), bytes: end })));
  const partial = `${path}.part`;
  const file = openSync(partial, 'w');
  try {
    const head = Buffer.alloc(HEAD_BYTES);
    let crc = 0;
    let at = HEAD_BYTES;
    const write = (bytes: Uint8Array) => {
      crc = crc32(bytes, crc);
      at += writeSync(file, bytes, 0, bytes.length, at);
    };
    write(outline);
    for (const array of arrays.keys()) {
      const bytes = new Uint8Array(array.buffer, array.byteOffset, array.byteLength);
      for (let from = 0; from < bytes.length; from += PIECE) write(bytes.slice(from, from + PIECE));
      if (bytes.length % 8) write(new Uint8Array(8 - (bytes.length % 8)));
    }
    [MAGIC, version, crc, outline.length].forEach((number, i) => head.writeUInt32LE(number, i * 4));
    writeSync(file, head, 0, HEAD_BYTES, 0);
  } catch (error) {
    closeSync(file);
    rmSync(partial, { force: true });
    throw error;
  }
  closeSync(file);
  renameSync(partial, path);
}

/** What was last saved there in this version, or null where there is nothing that can be used. */
export function openArrays(path: string, version: number): unknown {
  if (!existsSync(path)) return null;
  const file = openSync(path, 'r');
  try {
    const head = Buffer.alloc(HEAD_BYTES);
    readSync(file, head, 0, HEAD_BYTES, 0);
    const [magic, own, expected, outlineBytes] = [0, 4, 8, 12].map((at) => head.readUInt32LE(at));
    const total = fstatSync(file).size;
    if (magic !== MAGIC || own !== version || HEAD_BYTES + outlineBytes! > total) return null;
    const text = Buffer.alloc(outlineBytes!);
    readSync(file, text, 0, outlineBytes!, HEAD_BYTES);
    let crc = crc32(text);
    const { outline, bytes } = JSON.parse(text.toString()) as { outline: Outline; bytes: number };
    if (HEAD_BYTES + outlineBytes! + bytes !== total) return null;
    const block = new SharedArrayBuffer(bytes);
    for (let from = 0; from < bytes; from += PIECE) {
      const piece = new Uint8Array(block, from, Math.min(PIECE, bytes - from));
      readSync(file, piece, 0, piece.length, HEAD_BYTES + outlineBytes! + from);
      crc = crc32(piece, crc);
    }
    return crc === expected ? revive(outline, block, new Map()) : null;
  } catch {
    return null;
  } finally {
    closeSync(file);
  }
}

function revive(outline: Outline, block: SharedArrayBuffer, seen: Map<number, AnyArray>): unknown {
  if (Array.isArray(outline)) return outline.map((one) => revive(one, block, seen));
  if (typeof outline !== 'object' || outline === null) return outline;
  if ('array' in outline) {
    let array = seen.get(outline.at);
    if (array?.constructor.name !== outline.array || array.length !== outline.length)
      seen.set(
        outline.at,
        (array = new (
          KINDS[outline.array] as new (block: SharedArrayBuffer, at: number, length: number) => AnyArray
        )(block, outline.at, outline.length)),
      );
    return array;
  }
  if ('infinite' in outline) return Number(outline.infinite);
  if ('map' in outline) return new Map(outline.map.map(([key, one]) => [key, revive(one, block, seen)]));
  return Object.fromEntries(
    Object.entries(outline.object).map(([key, one]) => [key, revive(one, block, seen)]),
  );
}

function padded(bytes: Buffer): Buffer {
  return Buffer.concat([bytes, Buffer.alloc((8 - (bytes.length % 8)) % 8, ' ')]);
}
