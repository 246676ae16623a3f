/** What spreadsheets take for a formula. */
const FORMULA = /^[=+@\t\r]|^-(?!\d)/;

/** A line of CSV (RFC 4180) without its end. A text that a spreadsheet would run as a formula gets an apostrophe in front. */
export const csvLine = (cells: readonly (string | number | boolean | null | undefined)[]): string => cells.map(cell).join(',');

function cell(value: string | number | boolean | null | undefined): string {
  if (value === null || value === undefined) return '';
  if (typeof value !== 'string') return String(value);
  const safe = FORMULA.test(value) ? `'${value}` : value;
  return /[",\n\r]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}
