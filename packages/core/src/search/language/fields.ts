import type { Condition, Search } from './tree.ts';

/** The names of all fields that a search asks about, in its order. */
export function fieldNames(search: Search): string[] {
  const names: string[] = [];
  const walk = (condition: Condition): void => {
    if ('parts' in condition) condition.parts.forEach(walk);
    else if ('part' in condition) walk(condition.part);
    else names.push(condition.field.name);
  };
  if (search.condition) walk(search.condition);
  return names;
}
