import { hash53 } from '../identifiers/hash.ts';

/** Nanoseconds since 1970 as text, of ISO 8601 with microseconds. */
export function nanos(iso: string): string {
  const fraction = (/\.(\d+)/.exec(iso)?.[1] ?? '').padEnd(9, '0').slice(0, 9);
  return `${Math.floor(Date.parse(iso) / 1000)}${fraction}`;
}
const hex = (text: string, digits: 16 | 32): string => {
  const half = (seed: string): string => hash53(`${seed}${text}`).toString(16).padStart(14, '0');
  return `${half('a')}${half('b')}${half('c')}`.slice(0, digits);
};
/** The trace that a strand is, always the same one for the same strand; and a step of it, 0 for the whole. */
export const traceIdOf = (strand: string): string => hex(strand, 32);
export const spanIdOf = (strand: string, step: number): string => hex(`${strand} ${step}`, 16);

export const attribute = (key: string, value: string | number) => ({ key, value: typeof value === 'number' ? { doubleValue: value } : { stringValue: value } }); // prettier-ignore
