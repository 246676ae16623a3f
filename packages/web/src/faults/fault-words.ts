import type { Fault, FaultDetail, FaultOrigin, FaultSaid, FaultState, StrandFault } from '@fadenweg/api';
import { count, day } from '../time/format.ts';

export const STATE_WORDS: Record<FaultState, string> = {
  new: 'new',
  'in-hand': 'in hand',
  mended: 'mended',
  tolerated: 'tolerated',
  returned: 'returned',
};

/** Why records stand together in it. */
export function whyTogether({ types, calls, component, traits, words }: FaultOrigin): string {
  const part = words === '' ? '' : ` Only what holds “${words}”.`;
  if (types.length === 0 && calls.length === 0)
    return `All that ${component} says in these words, whatever stands at ‹›${traits === '' ? '' : `, with ${traits}`}.${part}`;
  const thrown = types.length === 0 ? 'Broken off' : types.length === 1 ? `${types[0]} thrown` : `${types.join(', because of ')} thrown`;
  return `${thrown} in ${component}${calls.length === 0 ? '' : `, topmost calls of its own ${calls.join(' from ')}`}; line numbers, values and generated names do not count.${part}`;
}

/** What of strands it hit. */
export function hitWords({ strands, before, follows, unharmed, records }: Fault): string {
  const parts = [
    strands > 0 ? `${count(strands)} failed by it, ${before === 0 ? 'none' : count(before)} in as long before` : 'no strand failed by it',
    ...(unharmed > 0 ? [`${count(unharmed)} went on all the same`] : []),
    ...(follows > 0 ? [`in ${count(follows)} it followed from another`] : []),
    ...(records > 0 ? [`${count(records)} ${records === 1 ? 'record' : 'records'}`] : []),
  ];
  return parts.join(' · ');
}

/** What somebody said of it, in a line. */
export function saidWords({ state, owner, note, ticket, version, since, until, who, at }: FaultSaid): string {
  const what =
    state === 'mended'
      ? `mended ${version !== '' ? `in ${version}` : since === null ? '' : `since ${day(since)}`}`
      : state === 'tolerated'
        ? `tolerated ${until === null ? 'for good' : `until ${day(until)}`}`
        : STATE_WORDS[state];
  return [`${day(at)} ${who}: ${what.trim()}`, owner === '' ? '' : `by ${owner}`, note, ticket].filter((one) => one !== '').join(' · ');
}

/** What somebody did with it by hand, in a line. */
export function handWords({ kind, words, who, at }: FaultDetail['byHand'][number]): string {
  const what = kind === 'together' ? 'put together' : kind === 'parted' ? `parted what holds “${words}”` : `parted it from another, by “${words}”`;
  return `${day(at)} ${who}: ${what}`;
}

/** In which state it is, by whom, and what was said of it last. */
export const standingWords = ({ state, owner, ticket, note }: StrandFault): string =>
  `${STATE_WORDS[state]}${owner === '' ? '' : ` by ${owner}`}${ticket === '' ? '' : `, ticket ${ticket}`}${note === '' ? '' : `: ${note}`}`;
