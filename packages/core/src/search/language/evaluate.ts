import type { Duration, Level, Microseconds } from '../../units.ts';
import { weightIndex, weightName, type Weight } from '../../weights/index.ts';
import type { FieldValue } from '../../reading/types.ts';
import { fitting } from '../../shapes/index.ts';
import { likeTest } from './like.ts';
import { patternTest } from './pattern.ts';
import type { Condition, Operator, Search, Value } from './tree.ts';
import { durationOf, levelIndex, numberOf, timeOf } from './values.ts';

/** A record as a search sees it. */
export interface Searchable {
  at: Microseconds;
  level: Level;
  component: string;
  host: string;
  environment: string;
  source: string;
  logger: string;
  message: string;
  /** The fixed words of the message, `‹›` for each part that varies; '' where nothing asks for it. */
  shape: string;
  /** NaN where the record states none. */
  took: Duration;
  fields: Readonly<Record<string, FieldValue>>;
  /** Values by kind. */
  identifiers: readonly { kind: string; value: string }[];
  /** Of the strand that the record belongs to, '' where it belongs to none. */
  flow: string;
  outcome: string;
  /** Number of the fault that an error tells, '' where nothing asks for it, or it is none. */
  fault: string;
  weight: Weight;
}

/** Names of the record's own parts; all others are parsed fields or identifier kinds. */
export const OWN_FIELDS = [
  'time',
  'level',
  'component',
  'host',
  'environment',
  'source',
  'logger',
  'message',
  'shape',
  'took',
  'flow',
  'outcome',
  'fault',
  'weight',
] as const;
type Own = (typeof OWN_FIELDS)[number];
const OWN = new Set<string>(OWN_FIELDS);
export const isOwn = (name: string): name is Own => OWN.has(name);

export type Test = (record: Searchable) => boolean;

/** Two letters beyond ASCII whose lower case lies in it: they stay what they are, so that a word in ASCII means its own letters. */
const STRAYS = /[\u0130\u212a]/;
const folded = (text: string): string =>
  (STRAYS.test(text) ? text.replaceAll('\u0130', '\ufffd').replaceAll('\u212a', '\ufffd') : text).toLowerCase();

/**
 * Makes a search into a function that decides for one record. Two-valued: a record without a field satisfies neither `=` nor `<` on it, and does
 * satisfy their negation.
 */
export function compileSearch(search: Search): Test {
  const words = search.words.map((word) => folded(word.text));
  const condition = search.condition ? compile(search.condition) : null;
  return (record) => {
    if (words.length > 0) {
      const message = folded(record.message);
      for (const word of words) if (!message.includes(word)) return false;
    }
    return condition === null || condition(record);
  };
}

function compile(condition: Condition): Test {
  switch (condition.type) {
    case 'and': {
      const parts = condition.parts.map(compile);
      return (record) => parts.every((part) => part(record));
    }
    case 'or': {
      const parts = condition.parts.map(compile);
      return (record) => parts.some((part) => part(record));
    }
    case 'not': {
      const part = compile(condition.part);
      return (record) => !part(record);
    }
    case 'compare':
      return compare(condition.field.name, condition.op, condition.value);
    case 'between': {
      const low = compare(condition.field.name, '>=', condition.low);
      const high = compare(condition.field.name, '<=', condition.high);
      return (record) => low(record) && high(record);
    }
    case 'in': {
      const parts = condition.values.map((value) => compare(condition.field.name, '=', value));
      return (record) => parts.some((part) => part(record));
    }
    case 'like': {
      const fits = likeTest(condition.pattern.text);
      return (record) => textsOf(record, condition.field.name).some(fits);
    }
    case 'matches': {
      const pattern = patternTest(condition.pattern.text);
      return (record) => textsOf(record, condition.field.name).some(pattern);
    }
    case 'null':
      return (record) => textsOf(record, condition.field.name).length === 0;
  }
}

function compare(name: string, op: Operator, value: Value): Test {
  // unequal is the negation of equal, also for records without the field
  if (op === '<>') {
    const equal = compare(name, '=', value);
    return (record) => !equal(record);
  }
  if (name === 'level') {
    const wanted = levelIndex(value.text);
    return (record) => (wanted < 0 ? false : holds(record.level, op, wanted));
  }
  if (name === 'took') {
    const wanted = durationOf(value.text);
    return (record) => holds(record.took, op, wanted);
  }
  if (name === 'time') {
    const wanted = timeOf(value.text);
    return (record) => holds(record.at, op, wanted);
  }
  if (name === 'shape' && op === '=') {
    // what people, or near twins, made one has ‹› where its shapes have words
    const fits = fitting(value.text);
    return (record) => record.shape !== '' && fits(record.shape);
  }
  const number = numberOf(value.text);
  if (name === 'weight') {
    const wanted = weightIndex(value.text);
    // what is no weight is asked of a field of that name, as in what is sent
    if (wanted < 0) return (record) => fieldTexts(record, name).some((text) => holdsText(text, op, value.text, number));
    return (record) => holds(record.weight, op, wanted);
  }
  return (record) => textsOf(record, name).some((text) => holdsText(text, op, value.text, number));
}

/** Any comparison with NaN is false. */
function holds(left: number, op: Operator, right: number): boolean {
  if (op === '=') return left === right;
  if (op === '<') return left < right;
  if (op === '<=') return left <= right;
  return op === '>' ? left > right : left >= right;
}

function holdsText(left: string, op: Operator, right: string, number: number): boolean {
  if (op === '=' && left === right) return true;
  if (!Number.isNaN(number)) {
    const own = numberOf(left);
    if (!Number.isNaN(own)) return holds(own, op, number);
  }
  if (op === '=') return false;
  if (op === '<') return left < right;
  if (op === '<=') return left <= right;
  return op === '>' ? left > right : left >= right;
}

/** The texts that a record has for a name: its own part, a parsed field (the last part of a nested name is enough), identifiers of a kind. */
export function textsOf(record: Searchable, name: string): string[] {
  if (isOwn(name)) return [...ownText(record, name), ...(ALSO_FIELDS.has(name) ? fieldTexts(record, name) : [])];
  return fieldTexts(record, name);
}
/** Own parts whose names programs often give to fields of theirs: both are meant. */
const ALSO_FIELDS = new Set<string>(['fault']);

function fieldTexts(record: Searchable, name: string): string[] {
  const texts: string[] = [];
  const { fields } = record;
  if (Object.hasOwn(fields, name)) texts.push(String(fields[name]));
  else {
    const ending = `.${name}`;
    for (const field in fields) if (field.endsWith(ending)) texts.push(String(fields[field]));
  }
  for (const one of record.identifiers) if (one.kind === name) texts.push(one.value);
  return texts;
}

function ownText(record: Searchable, name: Own): string[] {
  if (name === 'took') return Number.isNaN(record.took) ? [] : [String(record.took / 1000)];
  if (name === 'level') return record.level === 0 ? [] : [String(record.level)];
  if (name === 'time') return [String(record.at)];
  if (name === 'weight') return [weightName(record.weight)];
  const text = record[name];
  return text === '' ? [] : [text];
}
