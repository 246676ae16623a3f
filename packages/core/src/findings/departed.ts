import type { JudgedLeg } from './leg.ts';
import type { StrandRecord } from '../path/types.ts';
import { departures, type Departure } from '../usual/depart.ts';
import { whatTookIt } from './took-it.ts';
import type { Usual } from '../usual/index-of.ts';
import { firstLine, said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { BORNE_OUT, DIFFERS, LASTED } from './sure.ts';
import type { Finding, SentencePart } from './types.ts';

/** What departs from the usual in a leg that came to its end: what came late, and volumes out of what they usually are. */
export function departed({ records, usual }: Pick<JudgedLeg, 'records' | 'usual'>): Finding[] {
  if (!usual) return [];
  return departures(records, usual).map((one) =>
    one.kind === 'late'
      ? slowed(records, one, usual, whatTookIt(records, one, usual))
      : one.kind === 'volume'
        ? oddVolume(records, one, usual)
        : oddShare(records, one, usual),
  );
}

function slowed(
  records: readonly StrandRecord[],
  { record: index, since, took, usual: wait, excess }: Departure & { kind: 'late' },
  usual: Usual,
  cause: number | null,
): Finding {
  const record = records[index]!;
  const before = records[since]!;
  const root = cause ?? index;
  const about = { kind: 'slowed-by' as const, failedIn: record.component, component: records[root]!.component, missingNext: null };
  return {
    ...about,
    rank: 1,
    record: root,
    confidence: usual.sayingOf(records[root]!) ? LASTED : BORNE_OUT,
    evidence: [...new Set([since, root, index])].sort((a, b) => a - b),
    sentence: [
      ...(cause === null ? [words('Slow in ')] : [words('Slow by '), ...said(records[cause]!, cause), words('. ')]),
      ...said(record, index),
      words(' came '),
      { kind: 'duration', time: took },
      words(' after '),
      ...(before.component === record.component ? [] : [{ kind: 'component' as const, text: before.component }, words('’s ')]),
      { kind: 'quote', text: firstLine(before.message), record: since },
      words(', usually '),
      { kind: 'duration', time: wait.median },
      words(` (99 of 100 within `),
      { kind: 'duration', time: wait.p99 },
      words(`, learned from ${usual.of.legs.toLocaleString('en')}).`),
    ],
    excess,
    signature: signatureOf(about, records[root]!),
  };
}

function oddVolume(records: readonly StrandRecord[], { record, usual: volume }: Departure & { kind: 'volume' }, usual: Usual): Finding {
  const range = volume.least === volume.most ? `${volume.least.toLocaleString('en')}` : `${volume.least.toLocaleString('en')} to ${volume.most.toLocaleString('en')}`; // prettier-ignore
  return odd(records, record, [record], [words(`. Usually ${range} (${usual.of.legs.toLocaleString('en')} good ones).`)]);
}

function oddShare(
  records: readonly StrandRecord[],
  { record, value, other, of, usual: share }: Departure & { kind: 'share' },
  usual: Usual,
): Finding {
  const earlier = records[other]!;
  const hundred = (part: number): string => `${Math.round(part * 100).toLocaleString('en')} %`;
  const told = of === 0 ? '' : ` are ${hundred(value / of)}`;
  return odd(
    records,
    record,
    [other, record].sort((a, b) => a - b),
    [
      words(', of '),
      ...(earlier.component === records[record]!.component ? [] : [{ kind: 'component' as const, text: earlier.component }, words('’s ')]),
      { kind: 'quote', text: firstLine(earlier.message), record: other },
      words(`: ${value.toLocaleString('en')} of ${of.toLocaleString('en')}${told}, usually ${hundred(share.median)} (${usual.of.legs.toLocaleString('en')} good ones).`), // prettier-ignore
    ],
  );
}

/** That a number is odd though nothing failed. */
function odd(records: readonly StrandRecord[], index: number, evidence: number[], why: readonly SentencePart[]): Finding {
  const record = records[index]!;
  const about = { kind: 'odd-volume' as const, failedIn: record.component, component: record.component, missingNext: null };
  return {
    ...about,
    rank: 1,
    record: index,
    confidence: DIFFERS,
    evidence,
    sentence: [
      words('Ended without an error in '),
      { kind: 'component', text: record.component },
      words(', but '),
      { kind: 'time', at: record.at },
      words(': '),
      { kind: 'quote', text: firstLine(record.message), record: index },
      ...why,
    ],
    excess: null,
    signature: signatureOf(about, record),
  };
}
