import type { Listed } from '@fadenweg/core/structure';

/** What stands in quotes, is a comment, or names a parameter. */
const PARTS = /'(?:[^']|'')*'|"(?:[^"]|"")*"|--[^\n]*|\$(\d+)/g;

/** A statement with the values of its numbered parameters in their places: numbers and NULL as they are, all else quoted. */
export function statementWith(statement: string, parameters: readonly Listed[]): string {
  const values = new Map(parameters.map(({ name, value }) => [name, value]));
  return statement.replace(PARTS, (part: string, number: string | undefined) => {
    const value = number === undefined ? undefined : values.get(part);
    if (value === undefined) return part;
    return /^(?:-?\d+(?:\.\d+)?|NULL)$/i.test(value) ? value : `'${value.replaceAll("'", "''")}'`;
  });
}
