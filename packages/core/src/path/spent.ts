import type { Duration } from '../units.ts';
import type { Path } from './types.ts';

/** What a strand's time went into, as series compare it. */
export interface Spent {
  /** Work and lock waits of databases. */
  inDatabase: Duration;
  /** Queues, and gaps in which no component worked: on the way from one to the next. */
  inTransit: Duration;
}

/** @param isDatabase whether a component is a database server */
export function spentOf(path: Pick<Path, 'time'>, isDatabase: (component: string) => boolean): Spent {
  const spent: Spent = { inDatabase: 0, inTransit: 0 };
  for (const { component, kind, time } of path.time) {
    if (kind === 'queue' || kind === 'gap') spent.inTransit += time;
    else if (component !== null && isDatabase(component) && kind !== 'waiting') spent.inDatabase += time;
  }
  return spent;
}

/** How long each component worked, by name; a database's lock waits are work of it. */
export function workedOf(path: Pick<Path, 'time'>): Map<string, Duration> {
  const worked = new Map<string, Duration>();
  for (const { component, kind, time } of path.time)
    if (component !== null && (kind === 'work' || kind === 'lock-wait')) worked.set(component, (worked.get(component) ?? 0) + time);
  return worked;
}
