/** What a reader of an exported list needs to know of how it came to be. */
export interface HowMade {
  name: string;
  /** What is listed, such as "Companies". */
  many: string;
  /** ISO time stamp. */
  madeAt: string;
  asOf: string;
  count: number;
  universe: number;
  /** How many were picked by hand; null where the whole tape went out. */
  picked: number | null;
  /** What each suppression list kept off, or, with the reason given, did not. */
  off: readonly { name: string; count: number; reason: string | null }[];
  /** The last spot check of the tape, if any, in words. */
  check: string | null;
  /** The tape in words, a line each. */
  wording: readonly string[];
  /** The tape file. */
  tape: string;
  sources: readonly { name: string; asOf: string; licence: string | null; rowsRead: number }[];
}

/** The sheet "How this list was made", as rows of cells. */
export function howMadeRows(how: HowMade): (string | number)[][] {
  return [
    ['How this list was made'],
    [],
    ['List', how.name],
    ['Made', how.madeAt.slice(0, 16).replace('T', ' ')],
    ['As-of date', how.asOf],
    [`${how.many} in this list`, how.count],
    [`${how.many} in the universe`, how.universe],
    [
      `Which ${how.many.toLowerCase()}`,
      how.picked === null ? 'all that pass the tape' : `${how.picked} picked by hand`,
    ],
    ...how.off.map(({ name, count, reason }) =>
      reason === null
        ? [`Kept off by ${name}`, count]
        : [`On ${name}, and taken along`, `${count}, because: ${reason}`],
    ),
    ...(how.check === null ? [] : [['Spot check', how.check]]),
    [],
    ['The tape, line by line'],
    ...(how.wording.length
      ? how.wording.map((line, i) => [`line ${i + 1}`, line])
      : [['', 'no lines: the whole universe']]),
    [],
    ['Sources', 'as of', 'records', 'licence'],
    ...how.sources.map((source) => [
      source.name,
      source.asOf,
      source.rowsRead,
      source.licence ?? 'not stated',
    ]),
    [],
    ['Tape file', how.tape],
    [],
    ['Place data: GeoNames (CC BY 4.0), adapted; outlines made with Natural Earth.'],
  ];
}
