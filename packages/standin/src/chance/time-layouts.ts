import type { Random } from '../writing/random.ts';
import { localText, offsetText, SECOND, utcText, type Micros } from '../writing/times.ts';
import type { TimeLayout } from './types.ts';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const dotted = (text: string): string => `${text.slice(8, 10)}.${text.slice(5, 7)}.${text.slice(0, 4)}${text.slice(10)}`;
const named = (text: string): string => `${text.slice(8, 10)}-${MONTHS[Number(text.slice(5, 7)) - 1]!}-${text.slice(0, 4)}${text.slice(10)}`;
const compact = (text: string): string => text.slice(0, 10).replaceAll('-', '') + ' ' + text.slice(11).replaceAll(':', '');

/** How times are written: the zone is told, or is that of the town without a word of it, or world time without a word. */
const LAYOUTS: readonly TimeLayout[] = [
  { text: (at) => `${utcText(at)}Z`, grain: 1000 },
  { text: (at) => `${utcText(at, 'T', '.', 6)}Z`, grain: 1 },
  { text: (at) => localText(at, 'T') + offsetText(at), grain: 1000 },
  { text: (at) => `${localText(at, ' ', ',')} ${offsetText(at, '')}`, grain: 1000 },
  { text: (at) => localText(at, ' ', ','), grain: 1000 },
  { text: (at) => localText(at).slice(0, 19), grain: SECOND },
  { text: (at) => dotted(localText(at)), grain: 1000 },
  { text: (at) => named(localText(at)), grain: 1000 },
  { text: (at) => utcText(at, ' '), grain: 1000 },
  { text: (at) => utcText(at, ' ').replaceAll('-', '/'), grain: 1000 },
  { text: (at) => compact(utcText(at, ' ')), grain: 1000 },
  { text: (at) => String(Math.floor(at / 1000)), grain: 1000 },
  { text: (at) => (at / SECOND).toFixed(3), grain: 1000 },
];
export const drawnTime = (random: Random): TimeLayout => random.pick(LAYOUTS);
/** Fields of records: there an offset is told more often than not. */
export const drawnFieldTime = (random: Random): TimeLayout => (random.chance(0.8) ? LAYOUTS[random.pick([0, 1, 2, 11])]! : random.pick(LAYOUTS));
export const SYSLOG_3164: TimeLayout = {
  text: (at: Micros) => {
    const text = localText(at);
    return `${MONTHS[Number(text.slice(5, 7)) - 1]!} ${String(Number(text.slice(8, 10))).padStart(2)} ${text.slice(11, 19)}`;
  },
  grain: SECOND,
};
export const SYSLOG_5424: TimeLayout = { text: (at: Micros) => localText(at, 'T', '.', 6) + offsetText(at), grain: 1 };
export const ACCESS: TimeLayout = {
  text: (at: Micros) => {
    const text = localText(at);
    return `${text.slice(8, 10)}/${MONTHS[Number(text.slice(5, 7)) - 1]!}/${text.slice(0, 4)}:${text.slice(11, 19)} ${offsetText(at, '')}`;
  },
  grain: SECOND,
};
