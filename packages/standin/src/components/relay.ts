import { utcText, type Micros } from '../writing/times.ts';

export const RELAY = 'relay/relay.log';
/** Message broker: logfmt, UTC with microseconds. */
export const relayLine = (at: Micros, level: string, event: string, queue: string, message: string, more = ''): string =>
  `ts=${utcText(at, 'T', '.', 6)}Z level=${level} broker=bus-1 event=${event} queue=${queue} message=${message}${more}`;
