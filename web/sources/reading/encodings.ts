/** Encodings by what is written in them. */
export const ENCODING_NAMES: readonly (readonly [string, string])[] = [
  ['utf-8', 'UTF-8'],
  ['utf-16le', 'UTF-16, little endian'],
  ['utf-16be', 'UTF-16, big endian'],
  ['windows-1252', 'Windows-1252, western'],
  ['windows-1250', 'Windows-1250, central European'],
  ['windows-1257', 'Windows-1257, Baltic'],
  ['windows-1254', 'Windows-1254, Turkish'],
  ['windows-1251', 'Windows-1251, Cyrillic'],
  ['windows-1253', 'Windows-1253, Greek'],
  ['iso-8859-1', 'ISO 8859-1, western'],
  ['iso-8859-2', 'ISO 8859-2, central European'],
  ['iso-8859-15', 'ISO 8859-15, western with €'],
  ['shift_jis', 'Shift JIS, Japanese'],
  ['gb18030', 'GB 18030, Chinese'],
];
