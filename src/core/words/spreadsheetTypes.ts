/** Media types of the spreadsheet files that are read, by the end of their names. */
export const SPREADSHEET_TYPES = {
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  ods: 'application/vnd.oasis.opendocument.spreadsheet',
} as const;

/** Whether a media type is that of a spreadsheet file. */
export function isSpreadsheet(type: string): boolean {
  return Object.values<string>(SPREADSHEET_TYPES).includes(type);
}
