import { howMadeObject } from '../../../core/exports/how-made.ts';
import { textWriter } from './text-file.ts';
import { typedColumns } from './typed.ts';
import type { OpenWriter } from './writer.ts';

/** Digits after the point that coordinates are given with: about a tenth of a metre. */
const DIGITS = 6;

/** A collection of points (RFC 7946), longitude first; how it was made stands beside the features. */
export const openGeoJson: OpenWriter = (context) => {
  const columns = typedColumns(context);
  let begun = false;
  return textWriter(context.path, {
    first: `{"type":"FeatureCollection","name":${JSON.stringify(context.title)},"how":${JSON.stringify(howMadeObject(context.how))},"features":[\n`,
    rows: (rows) =>
      rows
        .map((row) => {
          const { lat, lon } = row.place!;
          const point = [Number(lon!.toFixed(DIGITS)), Number(lat!.toFixed(DIGITS))];
          const feature = JSON.stringify({
            type: 'Feature',
            id: row.row.key,
            geometry: { type: 'Point', coordinates: point },
            properties: Object.fromEntries(columns.map((column) => [column.name, column.value(row)])),
          });
          const before = begun ? ',\n' : '';
          begun = true;
          return before + feature;
        })
        .join(''),
    last: '\n]}\n',
  });
};
