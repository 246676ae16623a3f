import type { StrandRecord } from '../path/types.ts';
import type { Usual } from '../usual/index-of.ts';
import { firstLine } from './sentence.ts';

/** Statuses of HTTP (RFC 9110, section 15.5) that tell of the time it took, or of too much at once, and not that what was asked for is wrong. */
const NOT_THE_ASKER = new Set([408, 425, 429, 499]);
/** An answer of SIP is the word of who gives it, not a report (RFC 3261). */
const SIP = /^SIP\/2\.0 /;
const IN_WORDS = /\b(?:status|result|code|http)["']?\s?[=: ]\s?["']?([1-5]\d\d)\b/i;

/** The status of HTTP that a record states as how an answer went, NaN for none. */
export function answerStatus({ traits, message }: Pick<StrandRecord, 'traits' | 'message'>): number {
  for (const part of traits === '' ? [] : traits.split(' ')) {
    const value = part.slice(part.lastIndexOf('=') + 1);
    if (/^[1-5]\d\d$/.test(value)) return Number(value);
  }
  return Number(IN_WORDS.exec(firstLine(message))?.[1] ?? NaN);
}

/** What was asked for was turned away: who asked would have to ask otherwise. */
export const turnsAway = (status: number): boolean => status >= 400 && status < 500 && !NOT_THE_ASKER.has(status);

/**
 * The last answer of a leg, where that turns it away and good legs do not have it.
 *
 * @returns its index; -1 where there is none
 */
export function turnedAway(records: readonly StrandRecord[], usual: Usual | null): number {
  const last = records.findLastIndex((record) => !Number.isNaN(answerStatus(record)));
  if (last < 0 || !turnsAway(answerStatus(records[last]!))) return -1;
  return (usual?.sayingOf(records[last]!)?.legs ?? 0) > 0 ? -1 : last;
}

/**
 * Records that only pass on how another one's answer went: they state a status of failure, or name one that another component states. What went wrong is told by others.
 *
 * @returns by index
 */
export function reports(records: readonly StrandRecord[]): ReadonlySet<number> {
  const by = new Map<string, Set<string>>();
  const found = new Set<number>();
  records.forEach((record, index) => {
    const status = answerStatus(record);
    if (!(status >= 400) || SIP.test(record.message)) return;
    found.add(index);
    const own = by.get(String(status)) ?? new Set();
    by.set(String(status), own.add(record.component));
  });
  if (by.size === 0) return found;
  records.forEach((record, index) => {
    for (const [number] of firstLine(record.message).matchAll(/(?<![\p{L}\d.:-])[45]\d\d(?![\p{L}\d]|[.:-]\d)/gu)) {
      const speakers = by.get(number);
      if (speakers && (speakers.size > 1 || !speakers.has(record.component))) found.add(index);
    }
  });
  return found;
}
