/*
 * Spreadsheets take a cell that begins with one of these signs for a formula, and do what it says (OWASP, "CSV
 * Injection"). Such cells get an apostrophe in front when we write CSV for people, and lose it when we read CSV.
 */
const FORMULA = /^'*[=+\-@\t\r]/;

/** What Papa Parse needs to write such cells so. */
export const GUARDED = { escapeFormulae: FORMULA };

/**
 * A cell as it was before it was guarded.
 * @example unguarded("'=1+1") // '=1+1'
 */
export function unguarded(cell: string): string {
  return /^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell;
}
