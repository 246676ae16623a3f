import type { Fields } from '../reading/types.ts';
import type { Role } from './types.ts';
import { formOf, labelOf, patternOfForms } from './forms.ts';

/** A record as the search for unknown identifiers sees it. */
export interface SuggestRecord {
  component: string;
  text: string;
  fields: Fields;
  /** Values that declared kinds have found in it. */
  known: readonly { value: string; role: Role; /** Number of its kind. */ kind: number }[];
}
/** A kind of identifier that the data seem to hold, with the figures that speak for it. */
export interface Suggestion {
  name: string;
  label: string;
  role: Role;
  patterns: string[];
  fields: string[];
  /** Distinct values in what was looked at. */
  values: number;
  /** Records that name one. */
  records: number;
  recordsPerValue: number;
  components: string[];
  /** Share of the values that more than one component names, 0 to 1. */
  across: number;
  /** Business identifiers that a value stands together with, in the mean; NaN where none is declared. */
  joins: number;
  examples: string[];
}

interface Value {
  records: number;
  components: Set<string>;
  business: Set<string>;
}
interface Group {
  form: string;
  values: Map<string, Value>;
  records: number;
  known: number;
  components: Set<string>;
  fields: Map<string, number>;
  inText: number;
}

/** What stands in a text like a name with a number. */
export const TOKEN =
  /(?<![\p{L}\d_.:/@=%+-])[\p{L}][\p{L}\d]{0,11}[-_#:]?\d[\p{L}\d]*(?:[-_.][\p{L}\d]+){0,5}(?![\p{L}\d_@/%])|(?<![\p{L}\d_.:/-])[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}(?![\p{L}\d-])/gu;
/** Fields whose values are measures, places or words rather than identifiers. */
const MEASURES =
  /(?:^|[._-])(?:pid|port|line|status|code|bytes|size|length|duration|took|elapsed|ms|us|rt|time|ts|date|count|rows?|read|written|level|severity|version|thread|attempt|retry|depth|queue|percent|cpu|mem|uri|url|path|agent|protocol|method|facility|priority|lenses|price|amount|quantity|qty|weight|latitude|longitude|seq|cseq|offset|position|index|number_of.*|session_line|xid|vxid)$/i;
const MOST_VALUES = 20_000;
const FEWEST_VALUES = 5;

/**
 * Kinds of identifiers that nobody declared, by what recurs: values of one form, or of one field, that several records and components name.
 *
 * @param records in stretches that follow each other in time, so that values can recur
 * @returns the likeliest first
 */
export function suggestKinds(records: Iterable<SuggestRecord>): Suggestion[] {
  const byForm = new Map<string, Group>();
  const byField = new Map<string, Group>();
  let business = false;
  for (const record of records) {
    const known = new Set(record.known.map((one) => bare(one.value)));
    const own = record.known.filter((one) => one.role === 'business').map((one) => one.value);
    business ||= own.length > 0;
    const seen = new Set<string>();
    const note = (groups: Map<string, Group>, key: string, value: string, field: string | null): void => {
      if (seen.has(`${key}\0${value}`)) return;
      seen.add(`${key}\0${value}`);
      let group = groups.get(key);
      if (!group)
        groups.set(
          key,
          (group = { form: formOf(value), values: new Map(), records: 0, known: 0, components: new Set(), fields: new Map(), inText: 0 }),
        );
      if (known.has(bare(value))) group.known++;
      group.records++;
      group.components.add(record.component);
      if (field === null) group.inText++;
      else group.fields.set(field, (group.fields.get(field) ?? 0) + 1);
      let about = group.values.get(value);
      if (!about) {
        if (group.values.size >= MOST_VALUES) return;
        group.values.set(value, (about = { records: 0, components: new Set(), business: new Set() }));
      }
      about.records++;
      about.components.add(record.component);
      if (about.business.size < 20) for (const one of own) if (one !== value) about.business.add(one);
    };
    for (const name in record.fields) {
      const value = String(record.fields[name]);
      if (value.length < 4 || value.length > 64 || !/^[\p{L}\d][\p{L}\d_.:#-]*$/u.test(value) || !/\d/.test(value)) continue;
      const last = name.slice(name.lastIndexOf('.') + 1);
      if (isMeasure(last) || !isName(value)) continue;
      if (/\p{L}/u.test(value)) note(byForm, formOf(value), value, last);
      else note(byField, last.toLowerCase(), value, last);
    }
    for (const [value] of record.text.slice(0, 4000).matchAll(TOKEN))
      if (value.length >= 5 && value.length <= 64 && isName(value)) note(byForm, formOf(value), value, null);
  }
  return (
    [...byForm.values(), ...byField.values()]
      .filter(isLikely)
      .map((group) => suggestion(group, business))
      // numbers that one component writes and that stand beside nothing are counts
      .filter((one) => one.patterns.length > 0 || one.components.length > 1 || one.joins >= 0.5)
      .sort((a, b) => weight(b) - weight(a))
      .slice(0, 20)
  );
}

/** The field holds a measure, a place or a word rather than an identifier. */
export const isMeasure = (field: string): boolean => MEASURES.test(field);
/** A value without what its normal form may have taken away: case and separators. */
export const bare = (value: string): string => value.toLowerCase().replace(/[\s._/-]+/g, '');
/** Not a time, an address, a version or a measure with its unit. */
export const isName = (value: string): boolean =>
  !/^\d{1,2}[:.]\d\d(?:[:.,]\d+)*$|^\d{4}-\d\d-\d\d|^(?:\d{1,3}\.){3}\d|^[vV]?\d+(?:\.\d+)+$|^-?\d+(?:\.\d+)?(?:ms|us|s|kb|mb|gb|k|m|h|d|px|mm)$/i.test(
    value,
  ) && !/^(?:utf|iso|sha|md|http|tls|ssl|x|p|log|ipv|base|h|win|java|python)[-_]?\d{1,4}(?:[-_.]\d{1,3})?$/i.test(value);

function isLikely(group: Group): boolean {
  const values = group.values.size;
  if (values < FEWEST_VALUES || group.records < values * 1.5) return false;
  if (group.known > group.records * 0.5) return false;
  // names of threads, hosts and machines: few values that come again and again, everywhere
  return values >= 12 || group.records < values * 40;
}

function suggestion(group: Group, business: boolean): Suggestion {
  const values = [...group.values.values()];
  const across = values.filter((value) => value.components.size > 1).length / values.length;
  const joined = values.map((value) => value.business.size);
  const joins = business ? joined.reduce((sum, one) => sum + one, 0) / joined.length : NaN;
  const examples = [...group.values]
    .sort(([, a], [, b]) => b.components.size - a.components.size || b.records - a.records)
    .slice(0, 5)
    .map(([value]) => value);
  const texts = [...group.values.keys()];
  const forms = texts.every((value) => /\p{L}/u.test(value));
  const fields = [...group.fields].sort(([, a], [, b]) => b - a).map(([name]) => name);
  const label = labelOf(forms ? examples[0]! : '', fields);
  return {
    name: label.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'identifier',
    label,
    role: roleOf(group, across, joins, forms, fields),
    patterns: forms ? [patternOfForms(texts)] : [],
    fields: forms ? [] : fields.slice(0, 5),
    values: values.length,
    records: group.records,
    recordsPerValue: group.records / values.length,
    components: [...group.components].sort(),
    across,
    joins,
    examples,
  };
} // prettier-ignore

/** Of the values that people ask by, so many are named by several components, at least. */
export const ACROSS = 0.3;
/** Short enough to be said aloud, and no number of a machine. */
export const isSpoken = (form: string): boolean => form.length <= 14 && !/h{6,}/.test(form);

/** Joins many transactions: shared. Stands beside one: ties. Reaches several components and can be said aloud: what people ask by. */
function roleOf(group: Group, across: number, joins: number, forms: boolean, fields: readonly string[]): Role {
  if (joins > 2.5) return 'shared';
  const spoken = isSpoken(group.form);
  const asked = fields.some((name) => /(?:order|claim|ticket|case|booking|invoice|job|run|customer|contract|shipment|payment|policy)/i.test(name));
  if (spoken && across >= ACROSS && (Number.isNaN(joins) || joins < 0.5) && (forms || asked)) return 'business';
  return group.values.size < 30 && group.records / group.values.size > 20 ? 'shared' : 'link';
}

const weight = (one: Suggestion): number =>
  (one.role === 'business' ? 3 : one.role === 'link' ? 2 : 1) *
  (0.2 + one.across) *
  Math.log(2 + one.values) *
  Math.log(1 + one.recordsPerValue) *
  Math.sqrt(one.components.length);
