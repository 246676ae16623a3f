import type { Change } from './types.ts';

/** Counts of strands before and since an instant, in stretches of the same flow: those with a fault, and all. */
export interface BeforeAndSince {
  before: { faulty: number; all: number };
  since: { faulty: number; all: number };
}
export interface SinceChange {
  /** How much more likely the fault is since, as a factor of the odds. */
  factor: number;
  /** Beyond chance: three standard errors from equal odds. */
  sure: boolean;
}
const SURE = 3;

/** How much more likely a fault is since an instant. Log-odds with half a strand added to each cell (Haldane and Anscombe); null where there is nothing on one side. */
export function likelierSince({ before, since }: BeforeAndSince): SinceChange | null {
  if (before.all === 0 || since.all === 0) return null;
  const a = since.faulty + 0.5;
  const b = since.all - since.faulty + 0.5;
  const c = before.faulty + 0.5;
  const d = before.all - before.faulty + 0.5;
  const log = Math.log((a * d) / (b * c));
  return { factor: Math.exp(log), sure: log / Math.sqrt(1 / a + 1 / b + 1 / c + 1 / d) >= SURE };
}

/**
 * Changes that may have to do with a fault, the latest first: in a component or on a host that it touches, or that name one of them, and before it began.
 *
 * @param changes in order of time
 * @param components those in which the fault shows
 * @param hosts those on which these run
 */
export function changesBefore(
  changes: readonly Change[],
  at: number,
  components: readonly string[],
  hosts: readonly string[],
  most: number,
): Change[] {
  const touched = new Set([...components, ...hosts].filter((name) => name !== '').map((name) => name.toLowerCase()));
  // what is said on a host about a component tells where that runs
  for (const { host, names } of changes) if (host !== '' && names.some((name) => touched.has(name))) touched.add(host.toLowerCase());
  const found: Change[] = [];
  for (let i = changes.length - 1; i >= 0 && found.length < most; i--) {
    const change = changes[i]!;
    if (change.at > at) continue;
    const everywhere = change.kind === 'registered' && change.component === '' && change.host === '';
    const place = change.component === '' ? change.host : change.component;
    if (everywhere || touched.has(place.toLowerCase()) || change.names.some((name) => touched.has(name))) found.push(change);
  }
  return found;
}
