import { patternOf, VARIABLE } from './twins.ts';
import { withoutFields } from './without-fields.ts';

export const PARAMETER_KINDS = ['number', 'with unit', 'time', 'address', 'identifier', 'quoted', 'word'] as const;
export type ParameterKind = (typeof PARAMETER_KINDS)[number];

/**
 * Reads what stands at each ‹› of a shape.
 *
 * @param text of the shape, or of shapes that were made one
 * @returns for a message its values in order, without quotes and units; null where it is of another shape
 */
export function parameterReader(text: string): (message: string) => string[] | null {
  const pattern = patternOf(text);
  return (message) => {
    const hit = pattern.exec(withoutFields(message));
    return hit && hit.slice(1).map(bare);
  };
}
const QUOTED = /^(?:"(.*)"|“(.*)”)$/s;
const WITH_UNIT = /^(-?\d+(?:\.\d+)?)(?:[a-zA-Zµ]{1,4}|%)$/;
function bare(part: string): string {
  const quoted = QUOTED.exec(part);
  if (quoted) return quoted[1] ?? quoted[2]!;
  const trimmed = part.replace(/[.:]+$/, '');
  return WITH_UNIT.exec(trimmed)?.[1] ?? trimmed;
}

const KINDS: readonly [ParameterKind, RegExp][] = [
  ['number', /^-?\d+(?:\.\d+)?$/],
  ['with unit', WITH_UNIT],
  ['time', /^(?:\d{4}-\d\d-\d\d(?:T.*)?|\d\d:\d\d(?::\d\d(?:[.]\d+)?)?)$/],
  ['address', /^(?:\d{1,3}(?:\.\d{1,3}){3}(?::\d+)?|[0-9a-f]{0,4}(?::[0-9a-f]{0,4}){2,7})$/i],
  ['identifier', /^(?=.*\d)[\p{L}\d_.:@+-]+$/u],
];
/** What values of a parameter are, as they stand in messages: the narrowest kind that nearly all of them are. */
export function parameterKind(parts: readonly string[]): ParameterKind {
  const nearly = parts.length * 0.95;
  if (parts.filter((part) => QUOTED.test(part)).length >= nearly) return 'quoted';
  return KINDS.find(([, form]) => parts.filter((part) => form.test(part)).length >= nearly)?.[0] ?? 'word';
}
/** The same as `parameterReader`, each part as it is written. */
export function writtenParts(text: string): (message: string) => string[] | null {
  const pattern = patternOf(text);
  return (message) => pattern.exec(withoutFields(message))?.slice(1) ?? null;
}

/** Words that name nothing, in English and German. */
const LITTLE = new Set(
  'a an the of in to for at by with on from and or is was as after before von in zu für bei mit auf aus und oder ist war als nach vor der die das im am um'.split(
    ' ',
  ),
);
/** What each ‹› of a text may be called: by the nearest word before it that names something; different ones differently. */
export function proposedNames(text: string): string[] {
  const names: string[] = [];
  const pieces = text.split(VARIABLE);
  for (const [i, before] of pieces.slice(0, -1).entries()) {
    const words = [...before.slice(-60).matchAll(/\p{L}[\p{L}\d_-]*/gu)].map(([one]) => one.toLowerCase());
    const word = words.findLast((one) => one.length > 1 && !LITTLE.has(one)) ?? `value-${i + 1}`;
    const name = names.includes(word) ? `${word}-${i + 1}` : word;
    names.push(name);
  }
  return names;
}
