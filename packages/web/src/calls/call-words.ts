import type { Call, CallStateName, CallTie, CallSummary } from '@fadenweg/api';
import { ms } from '../strands/duration-text.ts';
import { count } from '../time/format.ts';

export const CALL_STATES: Record<CallStateName, string> = { asked: 'asked', ringing: 'ringing', talking: 'talking', ended: 'put through', refused: 'turned away', 'given-up': 'given up' }; // prettier-ignore

/** How a call went, in a word or two with its status. */
export const wentWords = ({ state, status, phrase }: Pick<CallSummary, 'state' | 'status' | 'phrase'>): string =>
  state === 'refused' || state === 'given-up'
    ? `${CALL_STATES[state]}${status === null ? '' : `, ${`${status} ${phrase}`.trim()}`}`
    : CALL_STATES[state];
/** Whom it was for: as dialled, where that reads otherwise; and who was reached, where that is somebody else. */
export function calledWords({ called, final }: Pick<CallSummary, 'called' | 'final'>): string {
  const digits = (text: string): string => text.replace(/[^\d*#a-z]/gi, '');
  const dialled = called.written !== '' && digits(called.written) !== digits(called.name) ? ` (dialled ${called.written})` : '';
  return `${called.name || 'unknown'}${dialled}${final !== '' && final !== called.name ? ` → ${final}` : ''}`;
}
/** Who ended it and why; '' as long as it goes on. */
export function endWords({ endedBy, state, reason }: Pick<Call, 'endedBy' | 'state' | 'reason'>): string {
  if (endedBy === null) return '';
  const who = state === 'ended' ? `${endedBy === 'caller' ? 'the caller' : 'the called side'} hung up` : endedBy === 'caller' ? 'the caller gave up' : 'the called side turned it away'; // prettier-ignore
  if (reason === null) return who;
  const code = [reason.protocol, reason.code === null ? '' : String(reason.code), reason.text].filter((one) => one !== '').join(' ');
  return `${who}: ${code}${reason.meaning === '' ? '' : `, ${reason.meaning}`}`;
}
const TIED_BY: Record<CallTie['how'], string> = {
  session: 'both bear one session identifier (RFC 7989)',
  header: 'a header of one names the other',
  records: 'records name both',
  numbers: 'numbers and times agree, and of no other',
};
/** How two dialogs are told to be of one call. */
export const tieWords = ({ how, sure }: CallTie): string => `${TIED_BY[how]}; sure to ${Math.round(sure * 100)} %`;
const time = (value: number | null, what: string): string[] => (value === null ? [] : [`${what} ${ms(value)}`]);
/** Its times in one line. */
export const timesWords = ({ postDialMs, ringingMs, talkingMs }: CallSummary): string =>
  [...time(postDialMs, 'first heard after'), ...time(ringingMs, 'rang for'), ...time(talkingMs, 'talked for')].join(', ');
/** A call for a ticket. */
export const callText = (call: CallSummary): string =>
  [
    `Call: from ${call.caller.name || 'unknown'}${call.caller.display ? ` (${call.caller.display})` : ''} to ${calledWords(call)}, ${wentWords(call)}`,
    timesWords(call),
    ...(call.repeated > 0 ? [`${count(call.repeated)} ${call.repeated === 1 ? 'message was' : 'messages were'} sent again`] : []),
  ]
    .filter((one) => one !== '')
    .join('; ');
