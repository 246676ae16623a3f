import { describe, expect, it } from '@jest/globals';
import { emptyDraft, ENOUGH_ROWS } from '../reading/index.ts';
import { TableRows } from './table-rows.ts';

/** Two shelves, seen every two seconds. */
function noted(table: TableRows, rows: number, understood = true): TableRows {
  for (let i = 0; i < rows; i++) {
    const draft = emptyDraft();
    Object.assign(draft, { at: Math.floor(i / 2) * 2_000_000, understood, fields: { shelf: `shelf-${i % 2}`, parts: i % 7 } });
    table.note(draft);
  }
  return table;
}

describe('rows of a table', () => {
  it('tell it once there are enough of them, or no more come', () => {
    expect(noted(new TableRows(undefined), 60).told(false)).toBe(undefined);
    expect(noted(new TableRows(undefined), 60).told(true)).toBe(true);
    expect(noted(new TableRows(undefined), ENOUGH_ROWS).told(false)).toBe(true);
  });
  it('tell nothing where none is understood, and do not change what was told', () => {
    expect(noted(new TableRows(undefined), 60, false).told(true)).toBe(undefined);
    expect(noted(new TableRows(false), ENOUGH_ROWS).told(true)).toBe(false);
  });
});
