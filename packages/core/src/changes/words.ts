import { durationWords } from '../findings/sentence.ts';
import type { Change } from './types.ts';

/** Whether a component tells it of itself, and not of something else that it looks after. */
export const isOfItself = ({ component, host, subject, text }: Pick<Change, 'component' | 'host' | 'subject' | 'text'>): boolean =>
  subject !== '' || host === '' || text.toLowerCase().includes(component.toLowerCase());

/** A change in a few words: `lens-calc is version 4.12.0 instead of 4.11.0`. */
export function changeWords({ kind, component, host, subject, before, after, away, text }: Change): string {
  const what = component || host || 'everything';
  const product = subject === '' ? '' : ` of ${subject}`;
  // of something else than the component that says it: in its own words
  if (!isOfItself({ component, host, subject, text }) && (kind === 'start' || kind === 'stop' || kind === 'restart'))
    return `${component}: “${text}”`;
  const version = after === '' ? '' : ` in version ${after}${product}`;
  switch (kind) {
    case 'version':
      return `${what} is version ${after}${product} instead of ${before}`;
    case 'setting':
      if (after === '') return `${what} reads its ${subject} anew`;
      return `${what}: ${subject} changed${before === '' ? '' : ` from ${before}`} to ${after}`;
    case 'restart':
      return `${what} restarted${version}${away === null ? '' : `, away for ${durationWords(away)}`}`;
    case 'start':
      return `${what} started${version}`;
    case 'stop':
      return `${what} stopped`;
    default:
      return text;
  }
}
