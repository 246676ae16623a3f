import { hash53 } from '../identifiers/hash.ts';
import { isOwnFrame, originOf, ownByName, tracesIn, type Thrown } from '../structure/index.ts';

/** Calls of one's own that tell an origin, the innermost first. */
const MOST_CALLS = 2;
const MOST_TYPES = 6;

/** Where an error comes from: the same whatever values, line numbers, threads and generated names stand in the record. */
export interface Origin {
  /** 0 to 2^53 - 1. */
  key: number;
  component: string;
  /** What was thrown, the outermost first; empty where no trace tells. */
  types: string[];
  /** Topmost calls of one's own in which the innermost came up, the innermost first. */
  calls: string[];
  /** Of the record's first line, where no trace tells; 0 else. */
  shape: number;
  /** Values that tell results apart (a status, a code), where no trace tells. */
  traits: string;
  /** By which people parted it from others of the same origin; '' where nobody did. */
  words: string;
}

/**
 * The origin of an error, by its record: what was thrown along the causes with the topmost calls of one's own; where no trace tells it, what is said – the shape of its first line with the
 * telling values – and by whom.
 *
 * @param record its message (an excerpt is enough that holds both ends), shape and traits as reading found them
 */
export function faultOrigin(record: { message: string; component: string; shape: number; traits: string }): Origin {
  const { message, component, shape, traits } = record;
  const trace = message.includes('\n') ? tracesIn(message)[0]?.trace : undefined;
  if (trace) {
    const chain = trace.thrown.filter(({ relation }) => relation !== 'suppressed');
    const types = chain.map(({ type }) => stable(type.split('.').at(-1)!)).filter((one) => one !== '').slice(-MOST_TYPES); // prettier-ignore
    const calls = callsOf(chain, ownByName([trace], component, null));
    if (types.length > 0 || calls.length > 0) return keyed({ component, types, calls, shape: 0, traits: '' });
  }
  return keyed({ component, types: [], calls: [], shape, traits });
}

/** Of the innermost that was thrown and has calls of one's own; else where it began. */
function callsOf(chain: readonly Thrown[], own: readonly string[]): string[] {
  for (const { frames } of [...chain].reverse()) {
    const mine = frames.filter((frame) => isOwnFrame(frame, own) && !frame.code.includes('<anonymous>'));
    // one that calls itself again and again is one
    const distinct = [...new Set(mine.map(({ code }) => stable(code)))];
    if (distinct.length > 0) return distinct.slice(0, MOST_CALLS);
  }
  const begin = originOf(chain, own);
  const frame = begin && chain[begin.thrown]?.frames[begin.frame];
  return frame && frame.code !== '' ? [stable(frame.code)] : [];
}

/** A name without what a compiler or a runtime adds to it and what may be otherwise tomorrow: numbers and addresses. */
const stable = (name: string): string =>
  name
    .replace(/0x[0-9a-f]+/gi, '#')
    .replace(/(?<=\$\$?|_)[0-9a-f]{6,}/gi, '#')
    .replace(/\d+/g, '#')
    .trim();

function keyed(origin: Omit<Origin, 'key' | 'words'>): Origin {
  const { component, types, calls, shape, traits } = origin;
  return { key: hash53(JSON.stringify([component, types, calls, shape, traits])), words: '', ...origin };
}
