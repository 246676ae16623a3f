import type { Told } from './types.ts';

/** Fields that so few pairs have say nothing. */
const FEWEST = 5;
const AGREEING = 0.8;

/**
 * Whether fields of one name hold the same in both of each pair: the same value, one that contains the other, or one that stands for it throughout (a level by number
 * and by word, “sent” and “received”). The address of a caller and that of the proxy before him are not the same.
 *
 * @param one it is one program: a value that never changes may be written otherwise too
 */
export function fieldsAgree(pairs: readonly [Told, Told][], one: boolean): boolean {
  const values = new Map<string, [string, string][]>();
  for (const [a, b] of pairs)
    for (const name in a.fields) {
      if (!(name in b.fields)) continue;
      const own = values.get(name) ?? [];
      own.push([String(a.fields[name]), String(b.fields[name])]);
      values.set(name, own);
    }
  return [...values.values()].every((own) => own.length < FEWEST || agreeing(own, one) >= AGREEING * own.length);
}

function agreeing(values: readonly [string, string][], one: boolean): number {
  const there = usualOf(values);
  const back = usualOf(values.map(([a, b]) => [b, a]));
  const standing = one || there.size > 1;
  return values.filter(([a, b]) => a.includes(b) || b.includes(a) || (standing && there.get(a) === b && back.get(b) === a)).length;
}
/** What stands with each value most often. */
function usualOf(values: readonly (readonly [string, string])[]): Map<string, string> {
  const counts = new Map<string, Map<string, number>>();
  for (const [a, b] of values) {
    const own = counts.get(a) ?? new Map<string, number>();
    counts.set(a, own.set(b, (own.get(b) ?? 0) + 1));
  }
  return new Map([...counts].map(([a, own]) => [a, [...own].reduce((most, one) => (one[1] > most[1] ? one : most))[0]]));
}
