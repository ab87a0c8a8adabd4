import type { FormatId } from '../../../core/exports/formats.ts';
import type { OpenWriter } from './writer.ts';

/** What writes each format, loaded when it is asked for. A new format is one more file, named here and in core/exports/formats.ts. */
export const WRITERS: Readonly<Record<FormatId, () => Promise<OpenWriter>>> = {
  csv: async () => (await import('./csv.ts')).openCsv,
  merge: async () => (await import('./csv.ts')).openMerge,
  xlsx: async () => (await import('./xlsx.ts')).openXlsx,
  ods: async () => (await import('./ods.ts')).openOds,
  jsonl: async () => (await import('./json-lines.ts')).openJsonLines,
  parquet: async () => (await import('./parquet.ts')).openParquet,
  sqlite: async () => (await import('./sqlite.ts')).openSqlite,
  geojson: async () => (await import('./geojson.ts')).openGeoJson,
  vcard: async () => (await import('./vcard.ts')).openCards,
  pdf: async () => (await import('./pdf.ts')).openPdf,
  dossiers: async () => (await import('./pdf.ts')).openDossiers,
  labels: async () => (await import('./labels.ts')).openLabels,
  letters: async () => (await import('./labels.ts')).openLetters,
};
