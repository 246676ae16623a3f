/** Rows as CSV (RFC 4180); a cell that a spreadsheet would take for a formula is kept a text. */
export function csv(rows: readonly (readonly string[])[]): string {
  return rows.map((row) => row.map(cell).join(',')).join('\r\n') + '\r\n';
}
function cell(text: string): string {
  const safe = /^[=+@\t\r]|^-(?!\d)/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** Gives a text to the browser as a file. */
export function save(name: string, type: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: `${type};charset=utf-8` }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}
