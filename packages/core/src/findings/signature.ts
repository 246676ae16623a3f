import type { StrandRecord } from '../path/types.ts';
import { shapeHash } from '../shapes/shape.ts';
import { reasonOf } from './reason.ts';
import type { Finding } from './types.ts';

/** The same for findings that are alike: of one kind, in the same components, told by the same saying for the same reason. */
export function signatureOf(
  { kind, failedIn, component, missingNext }: Pick<Finding, 'kind' | 'failedIn' | 'component' | 'missingNext'>,
  record: StrandRecord,
): string {
  const { shape, traits } = record;
  const reason = reasonOf(record.message, record.component);
  // prettier-ignore
  return [kind, failedIn, component, missingNext ?? '', shape.toString(36), traits, ...(reason ? [shapeHash(reason.text).toString(36), reason.call ?? ''] : [])].join('|');
}
