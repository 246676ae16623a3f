import type { StrandRecord } from '../path/types.ts';
import { callFacts, type CallFacts } from './facts.ts';
import { beginsSip, sipMessage } from './message.ts';
import type { SeenMessage } from './transactions.ts';

/** A strand that begins otherwise is none of a call, though calls may be about it. */
const FIRST = 3;
/** More messages of one strand are not read. */
const MOST = 2000;

type Said = Pick<StrandRecord, 'at' | 'message' | 'component' | 'host'>;

/** The messages of SIP among the records of a strand, in order of time; of a trace, its host and component are the place. */
export function messagesOf(records: readonly Said[]): SeenMessage[] {
  const messages: SeenMessage[] = [];
  for (let record = 0; record < records.length && messages.length < MOST; record++) {
    const { at, message: text, component, host } = records[record]!;
    const message = beginsSip(text) ? sipMessage(text) : null;
    if (message) messages.push({ record, at, place: `${host}\n${component}`, message });
  }
  return messages;
}
/** The facts of a strand that is a call; null for one that is none. */
export function callOf(records: readonly Said[]): CallFacts | null {
  return records.slice(0, FIRST).some(({ message }) => beginsSip(message)) ? callFacts(messagesOf(records)) : null;
}
