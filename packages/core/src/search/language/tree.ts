/** Where a part stands in the text, in characters. */
export interface Place {
  from: number;
  to: number;
}
export interface Value extends Place {
  text: string;
  quoted: boolean;
}
export interface Field extends Place {
  name: string;
}
export type Operator = '=' | '<>' | '<' | '<=' | '>' | '>=';

/** A condition of the search language. `is null`, `not in` and their like are made of these. */
export type Condition =
  | { type: 'and' | 'or'; parts: Condition[] }
  | { type: 'not'; part: Condition }
  | { type: 'compare'; field: Field; op: Operator; value: Value }
  | { type: 'between'; field: Field; low: Value; high: Value }
  | { type: 'in'; field: Field; values: Value[] }
  | { type: 'like' | 'matches'; field: Field; pattern: Value }
  | { type: 'null'; field: Field };

/** A search: free words, each contained in the message, and a condition. */
export interface Search {
  words: Value[];
  condition: Condition | null;
}

/** What is wrong with a search, where, and what would do. */
export interface SearchProblem extends Place {
  message: string;
  proposal: string | null;
}
