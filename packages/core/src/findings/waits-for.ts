import type { StrandRecord } from '../path/types.ts';

/** Shorter names are words as well. */
const SHORTEST = 4;

/**
 * Who waits for whom, by what they say: a component that names another one (`asking stock`, `answer of stock after 3 ms`) and is not named by it has called it.
 *
 * @returns whether the first waits for the second, directly or by others
 */
export function waitsFor(records: readonly StrandRecord[]): (one: string, other: string) => boolean {
  const components = [...new Set(records.map((record) => record.component))].filter((name) => name.length >= SHORTEST);
  const named = new Map<string, Set<string>>();
  for (const { component, message } of records)
    for (const other of components)
      if (other !== component && stands(message, other)) named.set(component, (named.get(component) ?? new Set()).add(other));
  const called = new Map([...named].map(([one, others]) => [one, [...others].filter((other) => !named.get(other)?.has(one))]));
  return (one, other) => {
    const seen = new Set([one]);
    const open = [one];
    for (let next = open.pop(); next !== undefined; next = open.pop())
      for (const callee of called.get(next) ?? []) {
        if (callee === other) return true;
        if (!seen.has(callee)) open.push(callee);
        seen.add(callee);
      }
    return false;
  };
}

/** The name stands there as a word of its own. */
function stands(message: string, name: string): boolean {
  for (let at = message.indexOf(name); at >= 0; at = message.indexOf(name, at + 1))
    if (!isPart(message[at - 1]) && !isPart(message[at + name.length])) return true;
  return false;
}
const isPart = (letter: string | undefined): boolean => letter !== undefined && /[\p{L}\d_-]/u.test(letter);
