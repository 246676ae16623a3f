import type { LogRecord } from '@fadenweg/api';
import { weightWords, type Weight } from '@fadenweg/core/weights';

/** A text cut where words make it weigh; 0 for what lies between them. */
export function weighedParts(text: string): { text: string; weight: Weight }[] {
  const parts: { text: string; weight: Weight }[] = [];
  let reached = 0;
  for (const { from, to, weight } of weightWords(text)) {
    if (from > reached) parts.push({ text: text.slice(reached, from), weight: 0 });
    parts.push({ text: text.slice(from, to), weight });
    reached = to;
  }
  if (reached < text.length) parts.push({ text: text.slice(reached), weight: 0 });
  return parts;
}

/** What makes a record weigh, in words; '' where it is only its level. */
export function weightReason({ message }: Pick<LogRecord, 'message'>): string {
  const words = [...new Set(weightWords(message).map(({ from, to }) => `“${message.slice(from, to)}”`))];
  if (words.length === 0) return '';
  return `${words.length === 1 ? 'one word weighs' : `${words.length} words weigh`}: ${words.slice(0, 5).join(', ')}`;
}
