import type { StrandRecord } from '../path/types.ts';
import { isResult } from '../shapes/traits.ts';
import { lowerShare } from '../statistics/share.ts';
import type { Usual } from '../usual/index-of.ts';
import type { JudgedLeg } from './leg.ts';
import { said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { LIKELY } from './sure.ts';
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

/** What nearly all good legs state where a record states another result, null where it states none, or one that is usual. */
function usualResult(record: StrandRecord, usual: Usual): { result: string; legs: number; of: number } | null {
  const own = resultsOf(record.traits);
  if (own === '') return null;
  const alike = usual.alike(record).filter((one) => one.legs > 0 && resultsOf(one.traits) !== '');
  const legs = new Map<string, number>();
  for (const one of alike) legs.set(resultsOf(one.traits), (legs.get(resultsOf(one.traits)) ?? 0) + one.legs);
  const all = [...legs.values()].reduce((sum, count) => sum + count, 0);
  const [most] = [...legs].sort(([, a], [, b]) => b - a);
  if (!most || most[0] === own || lowerShare(most[1], all) < ONE_RESULT || (legs.get(own) ?? 0) > all * HARDLY_ANY) return null;
  return { result: most[0], legs: most[1], of: all };
}

const isBetter = (later: StrandRecord, record: StrandRecord, usual: Usual): boolean =>
  later.component === record.component && later.shape === record.shape && resultsOf(later.traits) !== '' && usualResult(later, usual) === null;

/** The traits that state how something went, without statuses that tell of nothing amiss. */
const resultsOf = (traits: string): string =>
  traits === '' ? '' : traits.split(' ').filter((part) => isResult(part.slice(0, part.indexOf('='))) && !FINE.test(part.slice(part.indexOf('=') + 1))).join(' '); // prettier-ignore

function findingOf(records: readonly StrandRecord[], index: number, { result, legs, of }: { result: string; legs: number; of: number }): Finding {
  const record = records[index]!;
  const about = { kind: 'odd-result' as const, failedIn: record.component, component: record.component, missingNext: null };
  return {
    ...about,
    rank: 1,
    record: index,
    confidence: LIKELY,
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
