/** A sheet of a workbook, in the order in which the workbook shows them. */
export interface Sheet {
  name: string;
  hidden: boolean;
}

/** Columns that a sheet of a workbook can have. */
export const MOST_COLUMNS = 16_384;
