import { formOf } from './forms.ts';
import { isMeasure, isName, type SuggestRecord } from './suggest.ts';

/** What values may be of one kind by: their form, the name of their field, the word before them. */
export interface NameClass {
  key: string;
  by: 'form' | 'field' | 'word';
  /** The field or the word. */
  field: string;
  form: string;
}
/** Something in a record that may name it. */
export interface Name {
  value: string;
  /** Last part of the name of the field that holds it, '' in the text. */
  field: string;
  classes: NameClass[];
}

/** Runs of letters and digits, joined by single signs, with what stands before them. */
const RUN =
  /(?:(?<![\p{L}\d_])(\p{L}[\p{L}\d_]{1,30})[ :=#]{1,2})?(?<![\p{L}\d_.:/@=%+-])((?=[^\s,;()[\]{}"'<>|]*\d)[\p{L}\d]+(?:[-_.#:/][\p{L}\d]+){0,6})(?![\p{L}\d_@%])/gu;
const AFTER_EQUALS = /(?<=[=:])((?=[^\s,;()[\]{}"'<>|]*\d)[\p{L}\d]+(?:[-_.#:/][\p{L}\d]+){0,6})(?![\p{L}\d_@%])/gu;
const LONGEST_TEXT = 4000;
const LONGEST = 64;
/** Bare numbers have so many digits before they name anything. */
const FEWEST_DIGITS = 5;

/** All that may be a name in a record: values of fields, and runs with a digit in its text. */
export function namesIn({ text, fields }: SuggestRecord): Name[] {
  const found: Name[] = [];
  for (const name in fields) {
    const value = String(fields[name]);
    if (value.length < 4 || value.length > LONGEST || !/^[\p{L}\d][\p{L}\d_.:#/-]*$/u.test(value) || !/\d/.test(value) || !isName(value)) continue;
    const field = name.slice(name.lastIndexOf('.') + 1);
    const classes = classesOf(value, '');
    // where a thread or a size is told nothing is a link by the field's name, but may be by its form
    if (!isMeasure(field) && (/\p{L}/u.test(value) || value.length >= FEWEST_DIGITS))
      classes.push({ key: `field ${field.toLowerCase()}`, by: 'field', field, form: formOf(value) });
    if (classes.length > 0) found.push({ value, field, classes });
  }
  const start = text.slice(0, LONGEST_TEXT);
  for (const [, word, value] of start.matchAll(RUN)) add(found, value!, word ?? '');
  for (const [value] of start.matchAll(AFTER_EQUALS)) add(found, value, '');
  return found;
}
function add(found: Name[], value: string, word: string): void {
  if (value.length < 4 || value.length > LONGEST || !isName(value)) return;
  const classes = classesOf(value, word);
  if (classes.length > 0) found.push({ value, field: '', classes });
}

function classesOf(value: string, word: string): NameClass[] {
  const form = formOf(value);
  if (isTelling(form)) return [{ key: `form ${form}`, by: 'form', field: '', form }];
  const digits = /^\d+$/.test(value);
  if (word === '' || isMeasure(word) || (digits ? value.length < FEWEST_DIGITS : !/\p{L}/u.test(value))) return [];
  return [{ key: `word ${word}`, by: 'word', field: word, form }];
}

/**
 * The form tells its kind, so that a pattern made of it finds little else: letters of its own before digits, or so long a mixture of letters and digits that two of them are
 * never alike by chance.
 */
export function isTelling(form: string): boolean {
  const mixed = (form.match(/h+/g) ?? []).reduce((most, run) => Math.max(most, run.length), 0);
  if (mixed >= 8) return true;
  if (/^\p{L}+[-_#:.]?9/u.test(form) && !/^[xh]+[-_#:.]?9/.test(form)) return true;
  return /^\p{L}+[-_#:]/u.test(form) && !/^[xh]+[-_#:]/.test(form);
}
