import { Anchors } from './anchors.ts';
import { labelOf, patternOfForms } from './forms.ts';
import { ACROSS, bare, isSpoken, type SuggestRecord } from './suggest.ts';
import { namesIn, type NameClass } from './name-classes.ts';

/** A link that nobody declared, with the figures that speak for it. */
export interface Discovered {
  label: string;
  patterns: string[];
  fields: string[];
  /** Distinct values in what was looked at. */
  values: number;
  /** Of those that stand beside a known identifier: the share that stands beside what may be one transaction, 0 to 1. */
  single: number;
  /** Values that also stand in records which name nothing else: what the link brings in. */
  free: number;
  recordsPerValue: number;
  examples: string[];
}
interface Value {
  records: number;
  /** Parts of transactions beside which it stands. */
  parts: Set<string>;
  components: Set<string>;
  free: boolean;
}
interface Group extends NameClass {
  values: Map<string, Value>;
  records: number;
  fields: Map<string, number>;
}

/** Values that stand beside what may be one transaction, of those that stand beside anything. */
const SINGLE = 0.97;
/** Values from which anything is concluded, at least. */
const FEWEST = 20;
const FEWEST_ANCHORED = 12;
/** Of all values, so many come again: what is told once ties nothing. */
const RECURRING = 0.3;
/** Values that bring in records which name nothing else, or join parts that nothing else joins: at least so many, and at least this share. */
const FEWEST_USEFUL = 6;
const USEFUL_SHARE = 0.03;
/** A value that more records name is hardly one transaction's. */
const MOST_RECORDS = 60;
const MOST_VALUES = 20_000;
/** Parts of transactions of one value beyond which it names many. */
const MANY = 4;

/**
 * Links that the data show: values of one form, or of one field, that recur, stand beside parts of one transaction at most, and also stand in records that
 * name nothing else, so that these come to belong somewhere. Pieces of what is known are left out; where nobody has declared yet what people ask by, also what may be that.
 *
 * @param records in stretches that follow each other in time, with the values that declared kinds find in them
 */
export function discoverLinks(records: readonly SuggestRecord[]): Discovered[] {
  const groups = new Map<string, Group>();
  const anchors = new Anchors(records);
  let business = false;
  for (const record of records) {
    look(record, groups, anchors);
    business ||= record.known.some((one) => one.role === 'business');
  }
  const found: Discovered[] = [];
  const taken = new Set<string>();
  for (const group of [...groups.values()].sort((a, b) => rank(a) - rank(b) || b.records - a.records || (a.key < b.key ? -1 : 1))) {
    const one = concluded(group, anchors);
    if (!one || (!business && isAskedBy(group))) continue;
    const known = [...group.values.keys()].filter((value) => taken.has(value)).length;
    if (known > group.values.size / 2) continue;
    for (const value of group.values.keys()) taken.add(value);
    found.push(one);
  }
  return found;
}
/** A form of its own holds wherever it stands; a field's name only there. */
const rank = ({ by }: NameClass): number => (by === 'form' ? 0 : by === 'field' ? 1 : 2);

function look(record: SuggestRecord, groups: Map<string, Group>, anchors: Anchors): void {
  const seen = new Set<string>();
  const tying = record.known.filter((one) => one.role !== 'shared');
  const parts = [...new Set(tying.map((one) => anchors.partOf(one)))];
  const known = record.known.map((one) => bare(one.value));
  for (const name of namesIn(record)) {
    const { value, field } = name;
    const small = bare(value);
    if (known.some((one) => one.includes(small) || small.includes(one))) continue;
    for (const own of name.classes) {
      const place = `${own.key}\0${value}`;
      if (seen.has(place)) continue;
      seen.add(place);
      let group = groups.get(own.key);
      if (!group) groups.set(own.key, (group = { ...own, values: new Map(), records: 0, fields: new Map() }));
      group.records++;
      if (field !== '') group.fields.set(field, (group.fields.get(field) ?? 0) + 1);
      let about = group.values.get(value);
      if (!about) {
        if (group.values.size >= MOST_VALUES) continue;
        group.values.set(value, (about = { records: 0, parts: new Set(), components: new Set(), free: false }));
      }
      about.records++;
      about.components.add(record.component);
      for (const part of parts) if (about.parts.size < MANY) about.parts.add(part);
      about.free ||= tying.length === 0;
    }
  }
}

/** What people may ask by: where no such number is known yet, it is suggested and not tied to what happens to stand beside it. */
function isAskedBy({ values, form }: Group): boolean {
  const across = [...values.values()].filter(({ components }) => components.size > 1).length;
  return isSpoken(form) && across >= ACROSS * values.size;
}

function concluded({ by, field, values, records, fields }: Group, anchors: Anchors): Discovered | null {
  if (values.size < FEWEST || records > values.size * MOST_RECORDS) return null;
  let [anchored, single, free, joining, recurring] = [0, 0, 0, 0, 0];
  for (const one of values.values()) {
    if (one.records > 1) recurring++;
    if (one.parts.size === 0) continue;
    anchored++;
    if (one.parts.size < MANY && anchors.agree(one.parts)) {
      single++;
      if (one.parts.size > 1) joining++;
    }
    if (one.free) free++;
  }
  if (anchored < FEWEST_ANCHORED || recurring < Math.max(FEWEST_ANCHORED, RECURRING * values.size) || single < SINGLE * anchored) return null;
  if (Math.max(free, joining) < Math.max(FEWEST_USEFUL, USEFUL_SHARE * anchored)) return null;
  const texts = [...values.keys()];
  const examples = [...values].sort(([, a], [, b]) => b.records - a.records).slice(0, 5).map(([value]) => value); // prettier-ignore
  const named = [...fields].sort(([, a], [, b]) => b - a).map(([name]) => name);
  return {
    label: labelOf(examples[0]!, named.length > 0 ? named : [field]),
    patterns: by === 'field' ? [] : by === 'word' ? [`${field}[ :=#]{1,2}(${patternOfForms(texts)})`] : [patternOfForms(texts)],
    fields: by === 'field' ? [field] : [],
    values: values.size,
    single: single / anchored,
    free,
    recordsPerValue: records / values.size,
    examples,
  };
}
