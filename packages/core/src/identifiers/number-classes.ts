import { formOf } from './forms.ts';
import { namesIn, type NameClass } from './name-classes.ts';
import { bare, isMeasure, type SuggestRecord } from './suggest.ts';

/** Values that may be of one kind, in all the spellings in which they stand. */
export interface NumberClass extends NameClass {
  /** Its values as they are written, by spelling. */
  spellings: { form: string; texts: string[] }[];
  /** By value without case and separators, the places of the records that name it, in order. */
  values: Map<string, number[]>;
  /** Fields that hold it, with how often. */
  fields: Map<string, number>;
  /** No value is longer or shorter than those that were seen: others of the form, but for that, are of another kind. */
  exact: boolean;
}

/** Spellings of one number: so many values of one class are those of the other one, but for case and separators. */
const SPELT = 0.3;

/**
 * What may name things in records, by form, field or word before it; classes that tell the same values otherwise (small letters, other separators or none) are one.
 *
 * @param fewest values of a class, at least
 */
export function numberClasses(records: readonly SuggestRecord[], fewest: number): NumberClass[] {
  const classes = new Map<string, NumberClass>();
  records.forEach((record, place) => {
    const seen = new Set<string>();
    for (const { value, field, classes: own } of namesIn(record)) {
      // what its form tells is told by that wherever it stands: a field may hold numbers of several kinds
      for (const one of own.some(({ by }) => by === 'form') ? own.filter(({ by }) => by === 'form') : own) {
        if (seen.has(`${one.key}\0${value}`)) continue;
        seen.add(`${one.key}\0${value}`);
        let known = classes.get(one.key);
        if (!known) classes.set(one.key, (known = { ...one, spellings: [], values: new Map(), fields: new Map(), exact: false }));
        const places = known.values.get(value);
        if (places) places.push(place);
        else known.values.set(value, [place]);
        if (field !== '' && !isMeasure(field)) known.fields.set(field, (known.fields.get(field) ?? 0) + 1);
      }
    }
  });
  return spelt([...classes.values()].flatMap(byWidth).filter((one) => one.values.size >= fewest));
}

/** Numbers of one form, some with four digits and others with six, are of two kinds; those of a counter come to every length between. */
function byWidth(one: NumberClass): NumberClass[] {
  if (one.by !== 'form' || /h/.test(one.form)) return [one];
  const widths = [...new Set([...one.values.keys()].map((value) => value.length))].sort((a, b) => a - b);
  const gap = widths.findIndex((width, i) => i > 0 && width > widths[i - 1]! + 1);
  if (gap < 0) return [one];
  const part = (key: string, of: (width: number) => boolean): NumberClass => ({ ...one, key: `${one.key} ${key}`, exact: true, values: new Map([...one.values].filter(([value]) => of(value.length))) }); // prettier-ignore
  const limit = widths[gap]!;
  return [part(`below ${limit}`, (width) => width < limit), ...byWidth(part(`from ${limit}`, (width) => width >= limit))];
}

function spelt(classes: readonly NumberClass[]): NumberClass[] {
  const found: NumberClass[] = [];
  const rank = ({ by }: NameClass): number => (by === 'form' ? 0 : by === 'field' ? 1 : 2);
  for (const one of [...classes].sort((a, b) => rank(a) - rank(b) || b.values.size - a.values.size || (a.key < b.key ? -1 : 1))) {
    const own: NumberClass = { ...one, spellings: spellingsOf([...one.values.keys()]), values: new Map() };
    for (const [value, places] of one.values) merge(own.values, bare(value), places);
    // what a form tells is told by letters; digits alone may be equal by chance
    const same = found.find((other) => other.by === 'form' && commonTo(other, own) >= SPELT * Math.min(other.values.size, own.values.size));
    if (!same) {
      found.push(own);
      continue;
    }
    for (const spelling of own.spellings) if (!same.spellings.some(({ form }) => form === spelling.form)) same.spellings.push(spelling);
    for (const [value, places] of own.values) merge(same.values, value, places);
    for (const [field, count] of own.fields) same.fields.set(field, (same.fields.get(field) ?? 0) + count);
  }
  return found;
}
function spellingsOf(texts: readonly string[]): NumberClass['spellings'] {
  const byForm = new Map<string, string[]>();
  for (const text of texts) {
    const own = byForm.get(formOf(text));
    if (own) own.push(text);
    else byForm.set(formOf(text), [text]);
  }
  return [...byForm].map(([form, own]) => ({ form, texts: own })).sort((a, b) => b.texts.length - a.texts.length);
}
function merge(values: Map<string, number[]>, value: string, places: readonly number[]): void {
  const own = values.get(value);
  values.set(value, own ? [...new Set([...own, ...places])].sort((a, b) => a - b) : [...places]);
}
const commonTo = (a: NumberClass, b: NumberClass): number => [...b.values.keys()].filter((value) => a.values.has(value)).length;
