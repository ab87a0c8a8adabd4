/** A sheet of a workbook, in the order in which the workbook shows them. */
export interface Sheet {
  name: string;
  hidden: boolean;
}
