import type { Change } from './types.ts';

/** A version of something, from when to when it was in force; without an end on the sides that nothing is told of. */
export interface VersionSpan {
  version: string;
  /** '' where it is not said. */
  host: string;
  from: number;
  to: number;
}

/**
 * When which version of a component was in force, host by host, by the changes that tell of versions.
 *
 * @param changes in order of time; those of other components and kinds are left out
 */
export function versionSpans(
  changes: readonly Pick<Change, 'kind' | 'at' | 'component' | 'host' | 'before' | 'after'>[],
  component: string,
): VersionSpan[] {
  const spans: VersionSpan[] = [];
  const open = new Map<string, VersionSpan>();
  for (const { kind, at, component: of, host, before, after } of changes) {
    const tells = kind === 'version' || kind === 'start' || kind === 'restart' || kind === 'deployment';
    if (of !== component || !tells || after === '') continue;
    const last = open.get(host);
    if (last?.version === after) continue;
    if (last) last.to = at;
    else if (before !== '') spans.push({ version: before, host, from: -Infinity, to: at });
    // what was first told of it when it began may have been in force before
    const now: VersionSpan = { version: after, host, from: last || before !== '' || kind !== 'start' ? at : -Infinity, to: Infinity };
    open.set(host, now);
    spans.push(now);
  }
  return spans;
}
