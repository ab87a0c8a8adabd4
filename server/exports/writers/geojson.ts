import { howMadeObject } from '../../../core/exports/how-made.ts';
import { textWriter } from './text-file.ts';
import { typedColumns } from './typed.ts';
import { areasOf } from './areas.ts';
import type { OpenWriter, WriterContext } from './writer.ts';

/** Digits after the point that coordinates are given with: about a tenth of a metre. */
const DIGITS = 6;

/** A collection of points (RFC 7946), longitude first; how it was made stands beside the features. */
export const openGeoJson: OpenWriter = (context) => (context.options.areas ? openAreas : openPoints)(context);

const openPoints: OpenWriter = (context) => {
  const columns = typedColumns(context);
  let begun = false;
  return textWriter(context.path, {
    first: headOf(context),
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

function headOf({ title, how }: WriterContext): string {
  return `{"type":"FeatureCollection","name":${JSON.stringify(title)},"how":${JSON.stringify(howMadeObject(how))},"features":[\n`;
}

/** Regions as areas with how many records lie in each. */
const openAreas: OpenWriter = async (context) => {
  const counts = new Map<string, number>();
  const file = await textWriter(context.path, {
    first: headOf(context),
    rows: (rows) => {
      for (const { place } of rows)
        if (place!.region !== null) counts.set(place!.region, (counts.get(place!.region) ?? 0) + 1);
      return '';
    },
    last: '\n]}\n',
    end: () =>
      areasOf(counts)
        .map((area) => JSON.stringify(area))
        .join(',\n'),
  });
  return file;
};
