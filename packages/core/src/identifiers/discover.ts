import { formOf, labelOf, patternOfForms } from './forms.ts';
import { ACROSS, bare, isMeasure, isName, isSpoken, TOKEN, type SuggestRecord } from './suggest.ts';

/** A link that nobody declared, with the figures that speak for it. */
export interface Discovered {
  label: string;
  patterns: string[];
  fields: string[];
  /** Distinct values in what was looked at. */
  values: number;
  /** Of those that stand beside a known identifier: the share that stands beside just one, 0 to 1. */
  single: number;
  /** Values that also stand in records which name nothing else: what the link brings in. */
  free: number;
  recordsPerValue: number;
  examples: string[];
}
interface Value {
  records: number;
  business: Set<string>;
  links: Set<string>;
  components: Set<string>;
  free: boolean;
}
interface Group {
  pattern: boolean;
  field: string;
  values: Map<string, Value>;
  records: number;
}

/** Values that stand beside one known identifier alone, of those that stand beside any. */
const SINGLE = 0.97;
/** Values from which anything is concluded, at least. */
const FEWEST = 20;
const FEWEST_ANCHORED = 12;
/** Values that bring in records which name nothing else: at least so many, and at least this share. */
const FEWEST_FREE = 6;
const FREE_SHARE = 0.03;
/** A value that more records name is hardly one transaction's. */
const MOST_RECORDS = 60;
const MOST_VALUES = 20_000;
/** Anchors of one value beyond which it does not matter how many there are. */
const MANY = 4;
const LONGEST_TEXT = 4000;

/**
 * Links that the data show: values of one form, or of one field, that recur, stand beside one known identifier at most, and also stand in records that
 * name nothing else, so that these come to belong somewhere. Bare numbers are left out, and so are pieces of what is known; where nobody has declared yet what people
 * ask by, also what may be that.
 *
 * @param records in stretches that follow each other in time, with the values that declared kinds find in them
 */
export function discoverLinks(records: Iterable<SuggestRecord>): Discovered[] {
  const groups = new Map<string, Group>();
  let business = false;
  for (const record of records) {
    look(record, groups);
    business ||= record.known.some((one) => one.role === 'business');
  }
  const found: Discovered[] = [];
  const taken = new Set<string>();
  for (const group of [...groups.values()].sort((a, b) => Number(b.pattern) - Number(a.pattern) || b.records - a.records)) {
    const one = concluded(group);
    if (!one || (!business && isAskedBy(group))) continue;
    const known = [...group.values.keys()].filter((value) => taken.has(value)).length;
    if (known > group.values.size / 2) continue;
    for (const value of group.values.keys()) taken.add(value);
    found.push(one);
  }
  return found;
}

function look({ component, text, fields, known }: SuggestRecord, groups: Map<string, Group>): void {
  const seen = new Set<string>();
  const business = known.filter((one) => one.role === 'business').map((one) => one.value);
  const links = known.filter((one) => one.role === 'link').map((one) => one.value);
  const note = (key: string, value: string, field: string, pattern: boolean): void => {
    if (seen.has(`${key}\0${value}`)) return;
    seen.add(`${key}\0${value}`);
    const small = bare(value);
    if (known.some((one) => bare(one.value).includes(small) || small.includes(bare(one.value)))) return;
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { pattern, field, values: new Map(), records: 0 }));
    group.records++;
    if (group.field === '') group.field = field;
    let about = group.values.get(value);
    if (!about) {
      if (group.values.size >= MOST_VALUES) return;
      group.values.set(value, (about = { records: 0, business: new Set(), links: new Set(), components: new Set(), free: false }));
    }
    about.records++;
    for (const one of business) if (about.business.size < MANY) about.business.add(one);
    about.components.add(component);
    for (const one of links) if (about.links.size < MANY) about.links.add(one);
    about.free ||= business.length + links.length === 0;
  };
  for (const name in fields) {
    const value = String(fields[name]);
    const last = name.slice(name.lastIndexOf('.') + 1);
    if (value.length < 5 || value.length > 64 || !/^[\p{L}\d][\p{L}\d_.:#-]*$/u.test(value) || !/\d/.test(value) || !/\p{L}/u.test(value)) continue;
    if (!isName(value)) continue;
    // where a thread or a size is told nothing is a link by the field's name, but may be by its form
    if (!isMeasure(last)) note(`field ${last}`, value, last, false);
    if (isTelling(formOf(value))) note(`form ${formOf(value)}`, value, last, true);
  }
  for (const [value] of text.slice(0, LONGEST_TEXT).matchAll(TOKEN))
    if (value.length >= 5 && value.length <= 64 && isName(value) && isTelling(formOf(value))) note(`form ${formOf(value)}`, value, '', true);
}

/** The form begins with letters of its own, so that a pattern made of it finds nothing else. */
const isTelling = (form: string): boolean => /^\p{L}+[-_#:]/u.test(form) && !/^[xh]+[-_#:]/.test(form);

/** What people may ask by: where no such number is known yet, it is suggested and not tied to what happens to stand beside it. */
function isAskedBy({ values }: Group): boolean {
  const [first] = values.keys();
  const across = [...values.values()].filter(({ components }) => components.size > 1).length;
  return isSpoken(formOf(first!)) && across >= ACROSS * values.size;
}

function concluded({ pattern, field, values, records }: Group): Discovered | null {
  if (values.size < FEWEST || records > values.size * MOST_RECORDS) return null;
  let [anchored, single, free, recurring] = [0, 0, 0, 0];
  for (const one of values.values()) {
    if (one.records > 1) recurring++;
    const anchors = one.business.size > 0 ? one.business.size : one.links.size;
    if (anchors === 0) continue;
    anchored++;
    if (anchors === 1) single++;
    if (one.free) free++;
  }
  if (anchored < FEWEST_ANCHORED || recurring < FEWEST_ANCHORED || single < SINGLE * anchored) return null;
  if (free < Math.max(FEWEST_FREE, FREE_SHARE * anchored)) return null;
  const texts = [...values.keys()];
  const examples = [...values].sort(([, a], [, b]) => b.records - a.records).slice(0, 5).map(([value]) => value); // prettier-ignore
  return {
    label: labelOf(examples[0]!, field === '' ? [] : [field]),
    patterns: pattern ? [patternOfForms(texts)] : [],
    fields: pattern ? [] : [field],
    values: values.size,
    single: single / anchored,
    free,
    recordsPerValue: records / values.size,
    examples,
  };
}
