import type { CopyRows } from './copy-rows.ts';
import type { RowReader } from './copy-out.ts';

/** What a column holds: whole numbers of eight, four and two bytes, text, many numbers, named values (JSON); with `?` also nothing. */
export type ColumnType = 'big' | 'int' | 'small' | 'text' | 'bigs' | 'big?' | 'int?' | 'text?' | 'bigs?' | 'fields?';
type ValueOf<Type extends ColumnType> = Type extends `${infer Bare}?` ? BareValue<Bare> | null : BareValue<Type>;
type BareValue<Type> = Type extends 'text' ? string : Type extends 'bigs' ? number[] : Type extends 'fields' ? Fields : number;
export type Fields = Record<string, string | number | boolean>;

/** A row, as its layout tells. */
export type RowOf<Own extends Layout<Record<string, ColumnType>>> =
  Own extends Layout<infer Columns> ? { [Name in keyof Columns]: ValueOf<Columns[Name]> } : never;

/** The columns of a table that is written and read in binary COPY: they stand once, and what writes and reads them follows from it. */
export interface Layout<Columns extends Record<string, ColumnType>> {
  names: (keyof Columns & string)[];
  /** For a list of columns in SQL; of an alias, where one is given. */
  sql(alias?: string): string;
  write(rows: CopyRows, row: { [Name in keyof Columns]: ValueOf<Columns[Name]> }): void;
  read(row: RowReader): { [Name in keyof Columns]: ValueOf<Columns[Name]> };
}

export function layout<const Columns extends Record<string, ColumnType>>(columns: Columns): Layout<Columns> {
  const entries = Object.entries(columns) as [keyof Columns & string, ColumnType][];
  const names = entries.map(([name]) => name);
  return {
    names,
    sql: (alias) => names.map((name) => (alias === undefined ? name : `${alias}.${name}`)).join(', '),
    write(rows, row) {
      rows.begin(entries.length);
      for (const [name, type] of entries) writeValue(rows, type, row[name] as unknown);
    },
    read(row) {
      const values: Record<string, unknown> = {};
      for (const [name, type] of entries) values[name] = readValue(row, type);
      return values as { [Name in keyof Columns]: ValueOf<Columns[Name]> };
    },
  };
}

function writeValue(rows: CopyRows, type: ColumnType, value: unknown): void {
  if (value === null) rows.nothing();
  else if (type === 'text' || type === 'text?') rows.text(value as string);
  else if (type === 'bigs' || type === 'bigs?') rows.bigs(value as number[]);
  else if (type === 'fields?') rows.object(value as Fields);
  else if (type === 'int' || type === 'int?') rows.int(value as number);
  else if (type === 'small') rows.small(value as number);
  else rows.big(value as number);
}
function readValue(row: RowReader, type: ColumnType): unknown {
  if (type.endsWith('?') && row.isNothing()) {
    row.fields(1);
    return null;
  }
  if (type === 'text' || type === 'text?') return row.text();
  if (type === 'bigs' || type === 'bigs?') return row.bigs();
  if (type === 'fields?') return JSON.parse(row.text());
  return type === 'int' || type === 'int?' ? row.int() : type === 'small' ? row.small() : row.big();
}
