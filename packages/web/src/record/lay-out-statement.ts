import { formatDialect, postgresql } from 'sql-formatter';

/** A statement laid out by its clauses; as it is where it cannot be understood (cut off, another tongue). Loaded when the first statement is seen. */
export function layOut(statement: string): string {
  try {
    return formatDialect(statement, { dialect: postgresql, tabWidth: 2, keywordCase: 'preserve' });
  } catch {
    return statement; // shown word for word
  }
}
