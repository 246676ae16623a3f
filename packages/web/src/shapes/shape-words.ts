import type { DifferentShape, DifferentShapes, NumberSpread, ShapeDetail, ShapeKind } from '@fadenweg/api';
import { count } from '../time/format.ts';

export const KINDS: { kind: ShapeKind; title: string; means: string }[] = [
  { kind: 'new', title: 'New', means: 'never said before' },
  { kind: 'surging', title: 'Surging', means: 'said at least three times as often as usual' },
  { kind: 'fading', title: 'Fading', means: 'said at most a third as often as usual' },
  { kind: 'gone', title: 'Gone', means: 'usually said, and now not once, though its component speaks' },
];
const many = (n: number): string => (n < 10 ? (Math.round(n * 10) / 10).toLocaleString('en') : count(Math.round(n)));

/** How often, and how often usually. */
export function oftenWords({ kind, count: now, expected }: Pick<DifferentShape, 'kind' | 'count' | 'expected'>): string {
  if (kind === 'new') return now === 1 ? 'once' : `${count(now)} times`;
  return `${kind === 'gone' ? 'none' : count(now)}, usually ${many(expected)}`;
}

/** What it is compared with. */
export function comparedWords({ stretches, since, shift }: DifferentShapes, baseline: string, day: (iso: string) => string): string {
  if (stretches === 0 || since === null) return 'nothing was collected before to compare with';
  const many = `${stretches} ${stretches === 1 ? 'stretch' : 'stretches'} as long`;
  const what =
    baseline === 'days'
      ? `the same hours of ${stretches} earlier ${stretches === 1 ? 'day' : 'days'}`
      : baseline === 'window'
        ? `${many} of another time`
        : baseline === 'environment'
          ? 'another environment at the same time'
          : baseline === 'host'
            ? 'all other hosts at the same time'
            : `${many} before it`;
  const moved =
    shift === null
      ? ''
      : `; most is said ${shift >= 1 ? `${shift.toFixed(1)} times` : `${Math.round(100 * shift)} % as`} as often, each is compared after that`;
  return `compared with ${what}, since ${day(since)}${moved}`;
}

/** A search for its records. */
export const searchOf = ({ text, component }: Pick<DifferentShape, 'text' | 'component'>): string => {
  const quoted = (value: string): string => `'${value.replaceAll("'", "''")}'`;
  return `where shape = ${quoted(text)}${component === '' ? '' : ` and component = ${quoted(component)}`}`;
};

/** How numbers lie. */
export const spreadWords = ({ min, p50, p90, max }: NumberSpread): string => `least ${number(min)}, middle ${number(p50)}, nine of ten up to ${number(p90)}, most ${number(max)}`; // prettier-ignore
const number = (value: number): string => value.toLocaleString('en', { maximumFractionDigits: 2 });

/** What its strands end with. */
export function endsWords({ strands, failed, usuallyFailed }: ShapeDetail): string {
  const share = (part: number): string => (part === 0 ? 'none' : part < 0.01 ? 'less than 1\u00a0%' : `${Math.round(100 * part)}\u00a0%`);
  return `${count(failed)} of ${count(strands)} that were looked at failed; of all strands of these flows ${share(usuallyFailed)}.`;
}

/** A search for one value of a parameter that has a name. */
export const valueSearch = (name: string, value: string): string => `where ${name} = '${value.replaceAll("'", "''")}'`;

/** Words of a shape that might be parameters, each with the text that it would be then. */
export function wordPlaces(text: string): { word: string; text: string }[] {
  return [...text.matchAll(/[\p{L}_][\p{L}\d_@.+:-]*/gu)].map((hit) => ({ word: hit[0], text: `${text.slice(0, hit.index)}‹›${text.slice(hit.index + hit[0].length)}` })); // prettier-ignore
}
