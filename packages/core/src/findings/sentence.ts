import type { Duration, Microseconds } from '../units.ts';
import type { SentencePart } from './types.ts';

/** A duration as a person says it: `3 ms`, `812 ms`, `8.0 s`, `4 min 10 s`, `2 h 5 min`. */
export function durationWords(time: Duration): string {
  const ms = time / 1000;
  if (ms < 1) return `${Math.round(ms * 1000) / 1000} ms`;
  if (ms < 10) return `${Math.round(ms * 10) / 10} ms`;
  if (ms < 999.5) return `${Math.round(ms)} ms`;
  const seconds = ms / 1000;
  if (seconds < 10) return `${seconds.toFixed(2)} s`;
  if (seconds < 59.95) return `${seconds.toFixed(1)} s`;
  const whole = Math.round(seconds);
  if (whole < 3600) return whole % 60 === 0 ? `${whole / 60} min` : `${Math.floor(whole / 60)} min ${whole % 60} s`;
  const minutes = Math.round(whole / 60);
  return minutes % 60 === 0 ? `${minutes / 60} h` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

/** The sentence for a list that shows times beside it: without its times. */
export const headline = (parts: readonly SentencePart[]): string =>
  sentenceText(parts, () => '')
    .replaceAll(', : ', ': ')
    .replaceAll('but : ', 'but: ')
    .replaceAll(', .', '.');

/** The sentence as plain text; times by the given writer. */
export function sentenceText(parts: readonly SentencePart[], time: (at: number) => string): string {
  return parts
    .map((part) => {
      switch (part.kind) {
        case 'words':
        case 'component':
          return part.text;
        case 'time':
          return time(part.at);
        case 'duration':
          return durationWords(part.time);
        case 'quote':
          return `“${part.text}”`;
      }
    })
    .join('');
}

/** A message's first line, cut to what a sentence can bear. */
export function firstLine(message: string): string {
  const breakAt = message.indexOf('\n');
  const line = breakAt < 0 ? message : message.slice(0, breakAt);
  return line.length > 160 ? line.slice(0, 159) + '…' : line;
}

/** A word or several, for a sentence. */
export const words = (text: string): SentencePart => ({ kind: 'words', text });
/** Where, when and in which words: `relay, 12:03:04: “enqueued …”`. */
export const said = ({ component, at, message }: { component: string; at: Microseconds; message: string }, record: number): SentencePart[] => [
  { kind: 'component', text: component },
  words(', '),
  { kind: 'time', at },
  words(': '),
  { kind: 'quote', text: firstLine(message), record },
];
