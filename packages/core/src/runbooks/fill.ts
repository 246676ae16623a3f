import type { FindingPart, StepSum } from './types.ts';

const PLACE = /\{([a-z0-9][a-z0-9-]*)(?:\.([a-z]+))?\}/g;
/** How many values a text names. */
const NAMED = 5;
const quoted = (value: string): string => `'${value.replaceAll("'", "''")}'`;
const number = (value: number): string => value.toLocaleString('en');

/** What a template may name besides blanks: parts of what a step came to. */
export const STEP_PARTS = ['count', 'first', 'last', 'values', 'top', 'sentence'] as const;
export type StepPart = (typeof STEP_PARTS)[number];

/** The names in a template, each with its part. */
export function placesIn(template: string): { name: string; part: string | null }[] {
  return [...template.matchAll(PLACE)].map((hit) => ({ name: hit[1]!, part: hit[2] ?? null }));
}

/**
 * A search with its blanks filled in. A value stands in quotes whatever it holds, so that it never becomes a part of the condition; the values of a
 * step stand with commas between them, for `in (…)`.
 *
 * @returns null where the values of a step are asked for and there are none
 */
export function filledSearch(template: string, blanks: Readonly<Record<string, string>>, steps: Readonly<Record<string, StepSum>>): string | null {
  let empty = false;
  const filled = template.replace(PLACE, (_place, name: string, part: string | undefined, at: number) => {
    const inside = (template.slice(0, at).split("'").length - 1) % 2 === 1;
    if (part === undefined) return inside ? (blanks[name] ?? '').replaceAll("'", "''") : quoted(blanks[name] ?? '');
    const values = steps[name]?.values ?? [];
    if (values.length === 0) empty = true;
    return values.map(({ value }) => quoted(value)).join(', ');
  });
  return empty ? null : filled;
}

/** A text with its blanks, and what steps came to, filled in. Times are written by `clock`. */
export function filledText(
  template: string,
  blanks: Readonly<Record<string, string>>,
  steps: Readonly<Record<string, StepSum>>,
  clock: (iso: string) => string,
): string {
  return template.replace(PLACE, (place, name: string, part: string | undefined) => {
    if (part === undefined) return blanks[name] ?? place;
    const sum = steps[name];
    if (!sum) return place;
    const listed = (few: readonly { value: string; count: number }[], counted: boolean): string =>
      few.map(({ value, count }) => (counted ? `${value} (${number(count)})` : value)).join(', ');
    switch (part as StepPart) {
      case 'count':
        return `${sum.partial ? 'at least ' : ''}${number(sum.count)}`;
      case 'first':
        return sum.first === null ? 'never' : clock(sum.first);
      case 'last':
        return sum.last === null ? 'never' : clock(sum.last);
      case 'values': {
        const more = sum.values.length - NAMED;
        return `${listed(sum.values.slice(0, NAMED), false)}${more > 0 ? ` and ${number(more)} more` : ''}`;
      }
      case 'top':
        return listed(sum.values.slice(0, NAMED), true);
      case 'sentence':
        return sum.sentences[0]?.value ?? '';
      default:
        return place;
    }
  });
}

/** The text of what a runbook found: of its parts those whose steps came to what they ask for; null while none of the steps that they name was run. */
export function findingText(
  parts: readonly FindingPart[],
  blanks: Readonly<Record<string, string>>,
  steps: Readonly<Record<string, StepSum>>,
  clock: (iso: string) => string,
): string | null {
  const told = parts.filter(({ when, has }) => when === '' || (steps[when] !== undefined && steps[when].count > 0 === (has === 'found')));
  if (!told.some(({ when }) => when !== '')) return null;
  return told.map(({ text }) => filledText(text, blanks, steps, clock)).join(' ');
}
