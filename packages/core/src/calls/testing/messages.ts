import { sipMessage } from '../message.ts';
import type { SeenMessage } from '../transactions.ts';

/** A dialog in the manner of RFC 3665: alice calls bob. */
export interface Talk {
  callId?: string;
  from?: string;
  to?: string;
  fromTag?: string;
  toTag?: string;
  via?: string;
}
export const ALICE = '"Alice" <sip:+4930231250@atlanta.example.com>';
export const BOB = '"Bob" <sip:bob@biloxi.example.com>';

/** The text of a message; lines end as in a log that was kept on a disk. */
export function text(start: string, cseq: string, talk: Talk = {}, more: string[] = [], body = ''): string {
  const { callId = '3848276298220188511@atlanta.example.com', from = ALICE, to = BOB, fromTag = '9fxced76sl', toTag, via = 'client.atlanta.example.com:5060;branch=z9hG4bK74bf9' } = talk; // prettier-ignore
  return [
    start,
    `Via: SIP/2.0/TCP ${via}`,
    'Max-Forwards: 70',
    `From: ${from};tag=${fromTag}`,
    `To: ${to}${toTag ? `;tag=${toTag}` : ''}`,
    `Call-ID: ${callId}`,
    `CSeq: ${cseq}`,
    ...more,
    ...(body === '' ? [] : ['Content-Type: application/sdp']),
    `Content-Length: ${body.length}`,
    '',
    body,
  ].join('\n');
}
export const sdp = (address: string, codecs = '0 8', direction = '', port = 49172): string =>
  ['v=0', `o=alice 2890844526 2890844526 IN IP4 ${address}`, 's=-', `c=IN IP4 ${address}`, 't=0 0', `m=audio ${port} RTP/AVP ${codecs}`, ...(direction ? [`a=${direction}`] : []), ''].join('\n'); // prettier-ignore

/** Messages at times in milliseconds, as one place saw them. */
export const seen = (told: [number, string, string?][]): SeenMessage[] =>
  told.map(([ms, message, place = 'proxy'], record) => ({ record, at: ms * 1000, place, message: sipMessage(message)! }));
const INVITE = 'INVITE sip:+493098765@biloxi.example.com SIP/2.0';

/** RFC 3665, section 3.1: taken, talked, hung up by bob. */
export function taken(more: [number, string][] = [], talk: Talk = {}, answer = sdp('192.0.2.201', '0')): [number, string][] {
  const both = { ...talk, toTag: '8321234356' };
  const bye: Talk = {
    ...talk,
    from: BOB,
    to: ALICE,
    fromTag: '8321234356',
    toTag: '9fxced76sl',
    via: 'client.biloxi.example.com:5060;branch=z9hG4bKnashds7',
  };
  return [
    [0, text(INVITE, '1 INVITE', talk, ['User-Agent: DeskPhone 7.1'], sdp('192.0.2.101'))],
    [20, text('SIP/2.0 100 Trying', '1 INVITE', talk)],
    [1200, text('SIP/2.0 180 Ringing', '1 INVITE', both, ['Server: Switch 3'])],
    [4200, text('SIP/2.0 200 OK', '1 INVITE', both, [], answer)],
    [4210, text('ACK sip:bob@client.biloxi.example.com SIP/2.0', '1 ACK', { ...both, via: 'client.atlanta.example.com:5060;branch=z9hG4bK74bd5' })],
    ...more,
    [64_210, text('BYE sip:alice@client.atlanta.example.com SIP/2.0', '1 BYE', bye, ['Reason: Q.850;cause=16;text="Normal call clearing"'])],
    [64_220, text('SIP/2.0 200 OK', '1 BYE', bye)],
  ];
}
/** An INVITE that is turned away. */
export function turnedAway(status: string, more: string[] = []): [number, string][] {
  const both = { toTag: '314159' };
  return [
    [0, text(INVITE, '1 INVITE', {}, [], sdp('192.0.2.101'))],
    [10, text('SIP/2.0 100 Trying', '1 INVITE')],
    [500, text('SIP/2.0 180 Ringing', '1 INVITE', both)],
    [9000, text(`SIP/2.0 ${status}`, '1 INVITE', both, more)],
    [9010, text('ACK sip:bob@biloxi.example.com SIP/2.0', '1 ACK', both)],
  ];
}
