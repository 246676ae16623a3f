import type { StrandRecord } from '../path/types.ts';
import { withTraits } from './failed.ts';
import { because } from './reason.ts';
import { said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { BORNE_OUT, SAID } from './sure.ts';
import type { Finding } from './types.ts';

/**
 * A leg that was turned away for a business reason.
 *
 * @param index of the record that says so
 * @param telling index of an earlier record of another component that tells this leg from the good ones: there it was decided
 */
export function refusal(records: readonly StrandRecord[], index: number, telling: number | undefined): Finding {
  const refusing = records[index]!;
  const root = telling ?? index;
  const record = records[root]!;
  const about = { kind: 'refused' as const, failedIn: refusing.component, component: record.component, missingNext: null };
  return {
    ...about,
    rank: 1,
    record: root,
    confidence: record.component === refusing.component ? SAID : BORNE_OUT,
    evidence: root === index ? [index] : [root, index],
    sentence: [
      words('Refused by '),
      ...said(refusing, index),
      ...because(refusing, index),
      ...(root === index ? [] : [words(', after '), ...said(record, root), ...because(record, root), ...withTraits(record)]),
      words('.'),
    ],
    excess: null,
    signature: signatureOf(about, record),
  };
}
