import type { StrandRecord } from '../path/types.ts';
import { isResult } from '../shapes/traits.ts';
import { lowerShare } from '../statistics/share.ts';
import { keyOf } from '../usual/continuing.ts';
import type { Usual } from '../usual/index-of.ts';
import type { JudgedLeg } from './leg.ts';
import { said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { BORNE_OUT } from './sure.ts';
import type { Finding } from './types.ts';

/** Where so many good legs state one result, by the lower end of that share, another one that so few of them state is odd. */
const ONE_RESULT = 0.93;
const HARDLY_ANY = 0.02;
/** Statuses of HTTP (RFC 9110, section 15) that tell of nothing amiss. */
const FINE = /^[123]\d\d$/;

/**
 * Results that hardly any good leg states where nearly all state another one, and that the same component did not state better later: an answer in good manners whose content is none (`status=bounced`).
 */
export function oddResults({ records, usual }: Pick<JudgedLeg, 'records' | 'usual'>): Finding[] {
  if (!usual) return [];
  const odd = records.flatMap((record, index) => {
    const best = usualResult(record, usual);
    return best !== null && !records.slice(index + 1).some((later) => isBetter(later, record, usual)) ? [{ index, best }] : [];
  });
  return odd.map(({ index, best }) => findingOf(records, index, best));
}

/** What nearly all good legs state where a component says something in one shape, and how many state each result. */
interface Stated {
  result: string;
  legs: number;
  of: number;
  each: ReadonlyMap<string, number>;
}
/** Worked out once for each usual; null where no result is stated by nearly all. */
const known = new WeakMap<Usual, Map<string, Stated | null>>();

function statedBy(record: StrandRecord, usual: Usual): Stated | null {
  let own = known.get(usual);
  if (!own) known.set(usual, (own = new Map()));
  const key = keyOf(record);
  let stated = own.get(key);
  if (stated === undefined) own.set(key, (stated = learned(record, usual)));
  return stated;
}
function learned(record: StrandRecord, usual: Usual): Stated | null {
  const each = new Map<string, number>();
  for (const { traits, legs } of usual.alike(record)) {
    const result = resultsOf(traits);
    if (legs > 0 && result !== '') each.set(result, (each.get(result) ?? 0) + legs);
  }
  const of = [...each.values()].reduce((sum, count) => sum + count, 0);
  const [most] = [...each].sort(([, a], [, b]) => b - a);
  return most && lowerShare(most[1], of) >= ONE_RESULT ? { result: most[0], legs: most[1], of, each } : null;
}

/** What nearly all good legs state where a record states another result, null where it states none, or one that is usual. */
function usualResult(record: StrandRecord, usual: Usual): Stated | null {
  const own = resultsOf(record.traits);
  const stated = own === '' ? null : statedBy(record, usual);
  return stated && stated.result !== own && (stated.each.get(own) ?? 0) <= stated.of * HARDLY_ANY ? stated : null;
}

const isBetter = (later: StrandRecord, record: StrandRecord, usual: Usual): boolean =>
  later.component === record.component && later.shape === record.shape && resultsOf(later.traits) !== '' && usualResult(later, usual) === null;

/** The traits that state how something went, without statuses that tell of nothing amiss. */
const resultsOf = (traits: string): string =>
  traits === '' ? '' : traits.split(' ').filter((part) => isResult(part.slice(0, part.indexOf('='))) && !FINE.test(part.slice(part.indexOf('=') + 1))).join(' '); // prettier-ignore

function findingOf(records: readonly StrandRecord[], index: number, { result, legs, of }: Stated): Finding {
  const record = records[index]!;
  const about = { kind: 'odd-result' as const, failedIn: record.component, component: record.component, missingNext: null };
  return {
    ...about,
    rank: 1,
    record: index,
    confidence: BORNE_OUT,
    evidence: [index],
    sentence: [
      words('Ended without an error in '),
      ...said(record, index),
      words(` with ${resultsOf(record.traits)}. Usually ${result} (${legs.toLocaleString('en')} of ${of.toLocaleString('en')} good ones).`),
    ],
    excess: null,
    signature: signatureOf(about, record),
  };
}
