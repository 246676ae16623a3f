import { utcText, type Micros } from '../writing/times.ts';

export const BLANK_STORE = 'blank-store/blank-store.jsonl';
/** JSON lines, flat, UTC. */
export const blankStoreLine = (at: Micros, severity: string, msg: string, more: Record<string, unknown>): string =>
  JSON.stringify({ ts: utcText(at) + 'Z', severity, msg, host: 'app-3', ...more });
