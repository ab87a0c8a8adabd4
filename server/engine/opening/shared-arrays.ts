import type { SmallNumbers } from '../../../core/tally/columns.ts';

/** Arrays in memory that the counting threads share. */

function shared<T>(make: new (buffer: SharedArrayBuffer) => T, bytes: number, length: number): T {
  return new make(new SharedArrayBuffer(bytes * length));
}

export const sharedUint8 = (length: number) => shared(Uint8Array, 1, length);
export const sharedUint16 = (length: number) => shared(Uint16Array, 2, length);
export const sharedUint32 = (length: number) => shared(Uint32Array, 4, length);
export const sharedInt32 = (length: number) => shared(Int32Array, 4, length);
export const sharedFloat32 = (length: number) => shared(Float32Array, 4, length);
export const sharedFloat64 = (length: number) => shared(Float64Array, 8, length);

/** The same numbers in the narrowest array that holds them. */
export function narrowed(numbers: SmallNumbers, most: number): SmallNumbers {
  const narrow =
    most < 0x100
      ? sharedUint8(numbers.length)
      : most < 0x10000
        ? sharedUint16(numbers.length)
        : sharedUint32(numbers.length);
  narrow.set(numbers);
  return narrow;
}
