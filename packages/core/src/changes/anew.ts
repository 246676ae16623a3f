import type { Change, ChangeKind } from './types.ts';

const ANEW: ReadonlySet<ChangeKind> = new Set<ChangeKind>(['restart', 'fail-over', 'start', 'stop']);
const GRAVEST: readonly ChangeKind[] = ['fail-over', 'restart', 'stop', 'start'];
/** What begins anew once in so many days is usual, counted over so many days before; in microseconds. */
const USUAL = 2;
const DAY = 86_400_000_000;
const BEFORE = 28 * DAY;
/** What follows within that belongs together. */
const TOGETHER = 600_000_000;

export type AnewChange = Pick<Change, 'kind' | 'at' | 'component' | 'host'>;
const place = ({ component, host }: AnewChange): string => (component === '' ? host : component);

/**
 * Machines and programs that began anew in a window, though they hardly ever do; what follows within some minutes is one group.
 *
 * @param all changes of the window and of four weeks before it, in order of time
 * @returns groups, each with that of it which is told first, and the places
 */
export function begunAnew<T extends AnewChange>(all: readonly T[], from: number, to: number): { told: T; all: T[]; places: string[] }[] {
  const anew = all.filter((one) => ANEW.has(one.kind));
  const before = new Map<string, number>();
  for (const one of anew) if (one.at < from) before.set(place(one), (before.get(place(one)) ?? 0) + 1);
  const length = Math.max(1, (to - from) / DAY);
  const usual = (one: T): boolean => (before.get(place(one)) ?? 0) * length * USUAL * DAY >= BEFORE;
  const groups: T[][] = [];
  for (const one of anew) {
    if (one.at < from || usual(one)) continue;
    const last = groups.at(-1)?.at(-1);
    if (last && one.at - last.at <= TOGETHER) groups.at(-1)!.push(one);
    else groups.push([one]);
  }
  return groups.map((own) => ({
    told: [...own].sort((a, b) => GRAVEST.indexOf(a.kind) - GRAVEST.indexOf(b.kind))[0]!,
    all: own,
    places: [...new Set(own.map(place))],
  }));
}
