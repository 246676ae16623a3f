import type { StrandRecord } from '../path/types.ts';
import { shapeText, variableParts } from '../shapes/shape.ts';
import { isLaneField } from '../stitching/lane.ts';
import type { Duration } from '../units.ts';

/** One of two strands that are laid side by side. */
export interface Side {
  /** In order of time. */
  records: readonly StrandRecord[];
  /** Of each record what its format parsed. */
  fields: readonly Readonly<Record<string, unknown>>[];
  /** Values that name this strand: they differ by themselves. */
  names: ReadonlySet<string>;
}
export interface DifferingValue {
  /** '' for a variable part of the message. */
  field: string;
  own: string;
  other: string;
  /** It states how something went, or what it is about. */
  telling: boolean;
}
/** A record and the one that corresponds to it; one of both alone where the other has none. */
export interface Beside {
  kind: 'alike' | 'slower' | 'faster' | 'differs' | 'missing' | 'extra';
  /** Indexes of the records, null where there is none. */
  own: number | null;
  other: number | null;
  /** Since the record that comes before it in the other one. */
  took: Duration | null;
  otherTook: Duration | null;
  values: DifferingValue[];
}

/** A wait that is less than that longer is none that matters, in microseconds; nor one of less than half of what it is in the other one. */
const MATTERS = 100_000;
const HALF = 0.5;
const MOST_VALUES = 8;
/** Of more lines that correspond to none no words are compared. */
const MOST_LEFT = 300;
/** Longer values are texts. */
const LONGEST = 60;
const NUMBER = /^[-+]?[\d.,]+(?:e[-+]?\d+)?\s*(?:%|[a-zµ]{1,3})?$/i;

/**
 * A strand beside another: what one component says in one shape is laid beside the same of the other, the first beside the first and so on; then what says nearly the same. In the order of the own
 * one; what it misses stands behind what it follows in the other.
 *
 * @param normal whether a wait before a record of the own one is within what is usual, where that is known
 */
export function besideAnother(own: Side, other: Side, normal: (record: number, took: Duration) => boolean | null = () => null): Beside[] {
  const partners = partnersOf(own.records, other.records);
  const ownOf = new Map([...partners].map(([mine, theirs]) => [theirs, mine]));
  const rows: Beside[] = own.records.map((record, index) => {
    const theirs = partners.get(index);
    if (theirs === undefined) return { kind: 'extra', own: index, other: null, took: null, otherTook: null, values: [] };
    const before = theirs > 0 ? ownOf.get(theirs - 1) : undefined;
    const took = before === undefined ? null : record.at - own.records[before]!.at;
    const otherTook = theirs > 0 ? other.records[theirs]!.at - other.records[theirs - 1]!.at : null;
    const values = differing(own, index, other, theirs);
    const row: Beside = { kind: 'alike', own: index, other: theirs, took: took !== null && took >= 0 ? took : null, otherTook, values };
    return { ...row, kind: record.shape === other.records[theirs]!.shape ? kindOf(row, normal) : 'differs' };
  });
  other.records.forEach((_, theirs) => {
    if (ownOf.has(theirs)) return;
    const row: Beside = {
      kind: 'missing',
      own: null,
      other: theirs,
      took: null,
      otherTook: theirs > 0 ? other.records[theirs]!.at - other.records[theirs - 1]!.at : null,
      values: [],
    };
    rows.splice(rows.findIndex((one) => one.other === theirs - 1) + 1, 0, row);
  });
  return rows;
}

function kindOf({ own, took, otherTook, values }: Beside, normal: (record: number, took: Duration) => boolean | null): Beside['kind'] {
  if (values.some((value) => value.telling)) return 'differs';
  if (took === null || otherTook === null || normal(own!, took) === true) return 'alike';
  const more = took - otherTook;
  if (Math.abs(more) < MATTERS || Math.abs(more) < HALF * Math.min(took, otherTook)) return 'alike';
  return more > 0 ? 'slower' : 'faster';
}

/** By index of the own record, the index of the one that corresponds to it. */
function partnersOf(own: readonly StrandRecord[], other: readonly StrandRecord[]): Map<number, number> {
  const keyOf = ({ component, shape }: StrandRecord): string => `${component}\u0000${shape}`;
  const theirs = new Map<string, number[]>();
  other.forEach((record, index) => {
    const key = keyOf(record);
    const list = theirs.get(key);
    if (list) list.push(index);
    else theirs.set(key, [index]);
  });
  const used = new Map<string, number>();
  const partners = new Map<number, number>();
  own.forEach((record, index) => {
    const key = keyOf(record);
    const nth = used.get(key) ?? 0;
    const partner = theirs.get(key)?.[nth];
    used.set(key, nth + 1);
    if (partner !== undefined) partners.set(index, partner);
  });
  pairLikeWords(own, other, partners);
  return partners;
}

/** Pairs what is left of one component and says nearly the same: “2 lenses registered” beside “1 lens registered”. */
function pairLikeWords(own: readonly StrandRecord[], other: readonly StrandRecord[], partners: Map<number, number>): void {
  const taken = new Set(partners.values());
  const free = other.flatMap((_, index) => (taken.has(index) ? [] : [index]));
  if (free.length === 0 || free.length > MOST_LEFT) return;
  own.forEach((record, index) => {
    if (partners.has(index)) return;
    const place = free.findIndex((theirs) => other[theirs]!.component === record.component && likeWords(record.message, other[theirs]!.message));
    if (place < 0) return;
    partners.set(index, free[place]!);
    free.splice(place, 1);
  });
}
/** Whether half of all the words of two messages, their variable parts left out, are in both. */
function likeWords(a: string, b: string): boolean {
  const [one, two] = [wordsOf(a), wordsOf(b)];
  let both = 0;
  for (const word of one) if (two.has(word)) both++;
  return both > 0 && both * 2 >= one.size + two.size - both;
}
const wordsOf = (message: string): Set<string> =>
  new Set(
    shapeText(message)
      .toLowerCase()
      .match(/\p{L}+/gu),
  );

/** Values in which two records of one shape differ, the telling ones first; names of their strands and plain numbers left out. */
function differing(own: Side, mine: number, other: Side, theirs: number): DifferingValue[] {
  const found: DifferingValue[] = [];
  const [a, b] = [own.records[mine]!, other.records[theirs]!];
  const isName = (value: string): boolean => own.names.has(value) || other.names.has(value);
  const add = (field: string, before: string, after: string, telling: boolean): void => {
    if (before === after || found.some((one) => one.own === before && one.other === after)) return;
    if (before.length > LONGEST || after.length > LONGEST || isName(before) || isName(after)) return;
    if (!telling && NUMBER.test(before) && NUMBER.test(after)) return;
    found.push({ field, own: before, other: after, telling });
  };
  const told = traitsIn(b.traits);
  for (const [field, value] of traitsIn(a.traits)) add(field, value, told.get(field) ?? '', true);
  for (const [field, value] of told) if (!traitsIn(a.traits).has(field)) add(field, '', value, true);
  const [fields, others] = [own.fields[mine] ?? {}, other.fields[theirs] ?? {}];
  for (const field in fields) if (field in others && !isLaneField(field)) add(field, String(fields[field]), String(others[field]), false);
  if (a.shape !== b.shape) return found; // their words differ, and are shown
  const parts = variableParts(b.message);
  variableParts(a.message).forEach((part, i) => add('', part, parts[i] ?? '', false));
  return found.sort((x, y) => Number(y.telling) - Number(x.telling)).slice(0, MOST_VALUES);
}
const traitsIn = (traits: string): Map<string, string> =>
  new Map(traits === '' ? [] : traits.split(' ').map((part) => [part.slice(0, part.indexOf('=')), part.slice(part.indexOf('=') + 1)]));
