import type { StrandRecord } from '../path/types.ts';
import type { Finding } from './types.ts';

/** The same for findings that are alike: of one kind, in the same components, told by the same saying. */
export function signatureOf(
  { kind, failedIn, component, missingNext }: Pick<Finding, 'kind' | 'failedIn' | 'component' | 'missingNext'>,
  { shape, traits }: StrandRecord,
): string {
  // prettier-ignore
  return [kind, failedIn, component, missingNext ?? '', shape.toString(36), traits].join('|');
}
