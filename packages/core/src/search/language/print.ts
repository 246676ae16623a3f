import type { Condition, Field, Search, Value } from './tree.ts';

const KEYWORDS = new Set(['where', 'and', 'or', 'not', 'in', 'between', 'like', 'matches', 'is', 'null']);
const quoted = (text: string): string => `'${text.replaceAll("'", "''")}'`;

/** A value as it is written: in quotes only where it needs them. */
export const printValue = (text: string): string => (/^[^ \t\r\n(),'"=<>]+$/.test(text) && !KEYWORDS.has(text.toLowerCase()) ? text : quoted(text));
const value = (one: Value): string => printValue(one.text);
const field = ({ name }: Field): string =>
  /^[A-Za-z_@\u00c0-\u024f][A-Za-z0-9_@.:\u00c0-\u024f-]*$/.test(name) && !KEYWORDS.has(name.toLowerCase()) ? name : `"${name}"`;

/** A search as text; reading it gives the same search. */
export function printSearch({ words, condition }: Search): string {
  const parts = words.map((word) => (/^[^ \t\r\n']+$/.test(word.text) && word.text.toLowerCase() !== 'where' ? word.text : quoted(word.text)));
  if (condition) parts.push('where', printCondition(condition));
  return parts.join(' ');
}

export function printCondition(condition: Condition): string {
  switch (condition.type) {
    case 'and':
      return condition.parts.map((part) => (part.type === 'or' ? `(${printCondition(part)})` : nested(part, 'and'))).join(' and ');
    case 'or':
      return condition.parts.map((part) => nested(part, 'or')).join(' or ');
    case 'not':
      return printNot(condition.part);
    case 'compare':
      return `${field(condition.field)} ${condition.op} ${value(condition.value)}`;
    case 'between':
      return `${field(condition.field)} between ${value(condition.low)} and ${value(condition.high)}`;
    case 'in':
      return `${field(condition.field)} in (${condition.values.map(value).join(', ')})`;
    case 'like':
    case 'matches':
      return `${field(condition.field)} ${condition.type} ${value(condition.pattern)}`;
    case 'null':
      return `${field(condition.field)} is null`;
  }
}

const nested = (part: Condition, type: 'and' | 'or'): string => (part.type === type ? `(${printCondition(part)})` : printCondition(part));

function printNot(part: Condition): string {
  if (part.type === 'in' || part.type === 'between' || part.type === 'like' || part.type === 'matches') {
    const text = printCondition(part);
    const name = field(part.field);
    return `${name} not${text.slice(name.length)}`;
  }
  if (part.type === 'null') return `${field(part.field)} is not null`;
  return part.type === 'and' || part.type === 'or' ? `not (${printCondition(part)})` : `not ${printCondition(part)}`;
}

/** The pieces of a search that stand side by side, each of which can be taken away by itself. */
export type Piece = { type: 'word'; text: string; index: number } | { type: 'condition'; text: string; index: number };

export function piecesOf({ words, condition }: Search): Piece[] {
  const parts = condition === null ? [] : condition.type === 'and' ? condition.parts : [condition];
  return [
    ...words.map((word, index): Piece => ({ type: 'word', text: word.text, index })),
    ...parts.map((part, index): Piece => ({ type: 'condition', text: printCondition(part), index })),
  ];
}

/** The search without one of its pieces. */
export function withoutPiece(search: Search, piece: Piece): Search {
  if (piece.type === 'word') return { ...search, words: search.words.filter((_, index) => index !== piece.index) };
  const { condition } = search;
  if (condition === null || condition.type !== 'and') return { ...search, condition: null };
  const parts = condition.parts.filter((_, index) => index !== piece.index);
  return { ...search, condition: parts.length === 1 ? parts[0]! : { type: 'and', parts } };
}

const NOWHERE = { from: 0, to: 0 };

/** The search narrowed to a value of a field, or without it. A value that is asked for already joins the others of its field. */
export function withValue(search: Search, name: string, text: string, out: boolean): Search {
  const added: Value = { text, quoted: false, ...NOWHERE };
  const parts = search.condition === null ? [] : search.condition.type === 'and' ? [...search.condition.parts] : [search.condition];
  const at = parts.findIndex((part) => sameField(out ? (part.type === 'not' ? part.part : null) : part, name));
  if (at >= 0) {
    const found = parts[at]!;
    const known = found.type === 'not' ? found.part : found;
    const values = known.type === 'in' ? known.values : known.type === 'compare' ? [known.value] : [];
    if (!values.some((one) => one.text === text)) {
      const joined: Condition = { type: 'in', field: { name, ...NOWHERE }, values: [...values, added] };
      parts[at] = out ? { type: 'not', part: joined } : joined;
    }
  } else {
    const one: Condition = { type: 'compare', field: { name, ...NOWHERE }, op: '=', value: added };
    parts.push(out ? { type: 'not', part: one } : one);
  }
  return { ...search, condition: parts.length === 1 ? parts[0]! : { type: 'and', parts } };
}

const sameField = (part: Condition | null, name: string): boolean =>
  part !== null && ((part.type === 'compare' && part.op === '=') || part.type === 'in') && part.field.name === name;
