import { beginOf } from './lasting.ts';
import { MARK } from './marks.ts';
import type { StrandRecord } from './types.ts';

/**
 * The leg that each record belongs to, from 1 in the order in which legs begin.
 *
 * A new leg begins at an entry: a record of a component at which the strand was entered (where its first record stands, or the one that began
 * first), or one that is an entry by its mark, which names links of which none is tied to what ran before. What is tied to it by links belongs
 * to it. A link that shows first elsewhere (a message to the next component), and what names no link, belong where their component was at work last.
 *
 * @param records in order of (corrected) time
 * @param isLink whether a key ties technically (a trace, a message), neither business nor shared
 */
export function legsOf(records: readonly StrandRecord[], isLink: (key: number) => boolean): Int32Array {
  const legs = new Int32Array(records.length).fill(1);
  const links = records.map((record) => record.keys.filter(isLink));
  const groupOf = grouped(links);
  const doors = new Set<string>();
  if (records.length > 0) doors.add(records[0]!.component).add(earliest(records).component);
  const legOfGroup = new Map<number, number>();
  const lastOf = new Map<string, number>();
  let count = 1;
  let mainEnd = 0;
  records.forEach(({ component, marks }, i) => {
    if (links[i]!.length === 0) return;
    const group = groupOf(links[i]![0]!);
    let leg = legOfGroup.get(group);
    if (leg === undefined) {
      const entered = legOfGroup.size > 0 && (doors.has(component) || (marks & MARK.entry) !== 0);
      leg = entered ? ++count : (lastOf.get(component) ?? 1);
      legOfGroup.set(group, leg);
    }
    legs[i] = leg;
    lastOf.set(component, leg);
    if (leg === 1) mainEnd = i;
  });
  if (count === 1) return legs;
  // those without links: where their component was at work last; else the first leg while it is under way, then the latest
  lastOf.clear();
  let before = 1;
  records.forEach(({ component }, i) => {
    if (links[i]!.length === 0) legs[i] = lastOf.get(component) ?? (i < mainEnd ? 1 : before);
    lastOf.set(component, legs[i]!);
    before = legs[i]!;
  });
  return legs;
}

function earliest(records: readonly StrandRecord[]): StrandRecord {
  return records.reduce((first, record) => (beginOf(record) < beginOf(first) ? record : first));
}

/** By link, the number of the set of links that records name together. */
function grouped(links: readonly (readonly number[])[]): (link: number) => number {
  const parent = new Map<number, number>();
  const root = (link: number): number => {
    let top = link;
    for (let up = parent.get(top) ?? top; up !== top; up = parent.get(top) ?? top) top = up;
    parent.set(link, top);
    return top;
  };
  for (const named of links) for (const other of named.slice(1)) parent.set(root(named[0]!), root(other));
  return root;
}
