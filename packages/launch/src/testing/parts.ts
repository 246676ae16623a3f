import type { FoundPage, GroupsPart, TimelinePart } from '@fadenweg/api';

/** Answers that come part after part as time allows, put together to the whole as the page does: a busy machine gives more parts of the same. */
type Ask = <T>(path: string) => Promise<T>;
async function parts<Part extends { next: string | null }>(ask: Ask, path: string): Promise<Part[]> {
  const all: Part[] = [];
  for (let next: string | null = ''; next !== null;) {
    const part: Part = await ask<Part>(`${path}${next === '' ? '' : `&after=${encodeURIComponent(next)}`}`);
    all.push(part);
    next = part.next;
  }
  return all;
}
const summed = (all: readonly Partial<Record<string, number>>[]): Record<string, number> => {
  const sums: Record<string, number> = {};
  for (const one of all) for (const [name, count] of Object.entries(one)) sums[name] = (sums[name] ?? 0) + (count ?? 0);
  return sums;
};

/** All records that a search finds. @param path with a query */
export async function wholeFound(ask: Ask, path: string): Promise<FoundPage> {
  const all = await parts<FoundPage>(ask, path);
  const whole: FoundPage = { ...all[0]!, items: [], hidden: [], hiddenAfter: 0, next: null };
  for (const { items, hidden, hiddenAfter } of all) {
    whole.items.push(...items);
    whole.hidden.push(...hidden.map((count, i) => (i === 0 ? count + whole.hiddenAfter : count)));
    whole.hiddenAfter = items.length === 0 ? whole.hiddenAfter + hiddenAfter : hiddenAfter;
  }
  return whole;
}
export async function wholeTally(ask: Ask, path: string): Promise<TimelinePart> {
  const all = await parts<TimelinePart>(ask, path);
  const slots = new Map<number, TimelinePart['slots'][number]>();
  for (const { slot, counts } of all.flatMap((one) => one.slots)) slots.set(slot, { slot, counts: summed([slots.get(slot)?.counts ?? {}, counts]) });
  return {
    total: all.reduce((sum, one) => sum + one.total, 0),
    slots: [...slots.values()],
    hidden: summed(all.map((one) => one.hidden)),
    next: null,
    searched: all.at(-1)!.searched,
  };
}
/** Parts come from the latest back: of a group the first part tells its last record. */
export async function wholeGroups(ask: Ask, path: string): Promise<GroupsPart> {
  const all = await parts<GroupsPart>(ask, path);
  const groups = new Map<string, GroupsPart['groups'][number]>();
  const strands = new Map<string, GroupsPart['strands'][number]>();
  for (const part of all) {
    for (const one of part.groups) {
      const known = groups.get(one.value);
      groups.set(one.value, known ? { ...known, count: known.count + one.count, firstAt: one.firstAt } : one);
    }
    for (const one of part.strands) strands.set(one.id, one);
  }
  return {
    ...all[0]!,
    groups: [...groups.values()],
    strands: [...strands.values()],
    total: all.reduce((sum, one) => sum + one.total, 0),
    without: all.reduce((sum, one) => sum + one.without, 0),
    hidden: summed(all.map((one) => one.hidden)),
    next: null,
  };
}
