import type { Duration, Microseconds } from '../units.ts';
import { joinStretches, type Stretch } from './stretches.ts';

/** What our evidence of a component says about a moment, and a time behind it in which something was to come. */
export interface Reach {
  (
    component: string,
    at: Microseconds,
    within: Duration,
  ): { kind: 'there' | 'unknown' } | { kind: 'hole'; from: Microseconds | null; to: Microseconds };
  /** When the component was heard last, where that is known. */
  until?(component: string): Microseconds | undefined;
}

/** Every component is heard at any time. */
export const EVERYWHERE: Reach = () => ({ kind: 'there' });

/**
 * How far the evidence of components reaches, by the sources that hold it. Between two sources of one component, and before its first, lies a hole: nothing is known
 * of what it said then. A silence within a source is none, and neither is the time behind the last one: a component that died says nothing either.
 *
 * @param spans first and last record of each source
 * @param near sources that follow each other more closely are one
 */
export function reachOf(spans: readonly (Stretch & { component: string })[], near: number): Reach {
  const own = new Map<string, Stretch[]>();
  for (const { component, from, to } of spans) {
    const list = own.get(component);
    if (list) list.push({ from, to });
    else own.set(component, [{ from, to }]);
  }
  for (const [component, list] of own) own.set(component, joinStretches(list, near));
  const reach: Reach = (component, at, within) => {
    const list = own.get(component);
    if (!list) return { kind: 'unknown' };
    const behind = list.find((one) => one.from > at);
    const before = list.findLast((one) => one.from <= at);
    if (!behind || (before && before.to >= at) || behind.from - at < within) return { kind: 'there' };
    return { kind: 'hole', from: before?.to ?? null, to: behind.from };
  };
  reach.until = (component) => own.get(component)?.at(-1)!.to;
  return reach;
}

/**
 * Until when any of some components was heard: what others say, another system's among them, tells nothing of how far their evidence reaches.
 *
 * @param end of all evidence, which holds where nothing is known of them
 */
export function endOf(components: Iterable<string>, end: Microseconds, { until }: Reach): Microseconds {
  const ends = [...components].flatMap((one) => until?.(one) ?? []);
  return ends.length > 0 ? Math.min(end, Math.max(...ends)) : end;
}
