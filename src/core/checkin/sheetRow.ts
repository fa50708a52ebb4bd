/** One row of a sheet as it came, with the line of the file on which it starts (from 1). */
export interface SheetRow {
  lineNumber: number;
  cells: string[];
}
