import { localText, type Micros } from '../writing/times.ts';

export const SWITCH = 'switch/sip.log';
export interface Party {
  number: string;
  address: string;
  agent: string;
}
/** One SIP message (RFC 3261) under a line with local time, direction and addresses; a blank line ends it. */
export function sipMessage(
  at: Micros,
  direction: 'recv' | 'send',
  peer: Party,
  start: string,
  dialog: { callId: string; from: Party; to: Party; fromTag: string; toTag: string; cseq: string },
  more: string[] = [],
  body = '',
): string {
  // an answer names the hop that its request came from
  const fromPeer = (direction === 'recv') !== start.startsWith('SIP/2.0 ');
  const arrow = direction === 'recv' ? `${peer.address} -> 192.0.2.1:5060` : `192.0.2.1:5060 -> ${peer.address}`;
  return [
    `${localText(at, ' ', '.', 6)} tel-1 ${direction} ${arrow} udp`,
    start,
    `Via: SIP/2.0/UDP ${fromPeer ? peer.address : '192.0.2.1:5060'};branch=z9hG4bK${dialog.callId.slice(0, 10)}${dialog.cseq.split(' ')[0]!}`,
    `From: <sip:${dialog.from.number}@voice.brillmoor.example>;tag=${dialog.fromTag}`,
    `To: <sip:${dialog.to.number}@voice.brillmoor.example>${dialog.toTag ? `;tag=${dialog.toTag}` : ''}`,
    `Call-ID: ${dialog.callId}`,
    `CSeq: ${dialog.cseq}`,
    // what is passed on says what its sender said
    `User-Agent: ${direction === 'recv' ? peer.agent : peer.number === dialog.from.number ? dialog.to.agent : dialog.from.agent}`,
    ...more,
    `Content-Length: ${body.length}`,
    '',
    ...(body === '' ? [] : [body]),
    ...(body === '' ? [] : ['']),
  ].join('\n');
}
export const sdp = (address: string, port: number, codecs: string): string =>
  [`v=0`, `o=- 3990 1 IN IP4 ${address}`, 's=-', `c=IN IP4 ${address}`, 't=0 0', `m=audio ${port} RTP/AVP ${codecs}`, 'a=sendrecv'].join('\n');
