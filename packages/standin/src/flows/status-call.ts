import { sdp, sipMessage, SWITCH, type Party } from '../components/switch.ts';
import { VOICE_DESK, voiceLine } from '../components/voice-desk.ts';
import { asked } from '../stories/story.ts';
import { SHOPS, type World } from '../world.ts';
import { MS, SECOND, type Micros } from '../writing/times.ts';

const DESK: Party = { number: '+493023125100', address: '192.0.2.20:5062', agent: 'VoiceDesk 2.9' };
const AGENT: Party = { number: '+493023125140', address: '192.0.2.31:5060', agent: 'DeskPhone 7.1' };

/** Numbers reserved for fiction: 030 23125 000 to 999. */
export const callerNumber = (suffix: number): string => `+493023125${String(suffix).padStart(3, '0')}`;
const asDialled = (number: string): string => `0${number.slice(3, 5)} ${number.slice(5, 10)} ${number.slice(10)}`;

/** An optician's shop rings the voice line and asks for an order; some calls are passed on to a person. */
export function statusCall(world: World, start: Micros, knownOrder: string): void {
  const { random, sink } = world;
  const caller: Party = {
    number: callerNumber(200 + random.whole(0, 599)),
    address: `198.51.100.${random.whole(2, 250)}:5060`,
    agent: 'ShopPhone 4.2',
  };
  const callId = `${random.hex(12)}@tel-1.brillmoor.example`;
  const drop = asked(world.stories, (story) => story.call?.(start, random.next()));
  const transferred = drop !== null || random.chance(0.25);
  const ring = drop ? null : asked(world.stories, (story) => story.ring?.(start, random.fork(`ring ${callId}`).next()));
  const busy = !transferred && random.chance(0.03);
  const open = sink.open({
    flow: 'status-call',
    businessId: callId,
    startedAt: start,
    story: drop?.story ?? (busy ? null : (ring?.story ?? null)),
    outcome: drop ? 'failed' : busy ? 'refused' : ring ? 'slow' : 'done',
    identifiers: [
      { kind: 'call', value: callId },
      { kind: 'phone', value: caller.number },
    ],
    attributes: { caller: caller.number, shop: random.pick(SHOPS) },
    cause: drop
      ? { failedIn: 'switch', component: 'switch', record: null, accepted: ['voice-desk'] }
      : busy
        ? { failedIn: 'switch', component: 'switch', record: null, accepted: [] }
        : ring
          ? { failedIn: 'voice-desk', component: 'voice-desk', record: null, accepted: ['switch'] }
          : null,
  });
  const dialog = { callId, from: caller, to: DESK, fromTag: random.hex(6), toTag: '', cseq: '1 INVITE' };
  const answered = { ...dialog, toTag: random.hex(6) };
  const ok = 'SIP/2.0 200 OK';
  let at = start;
  const sip = (direction: 'recv' | 'send', peer: Party, line: string, dlg: typeof dialog, more: string[] = [], body = '', cause = false): void =>
    sink.emit(SWITCH, at, sipMessage(at, direction, peer, line, dlg, more, body), open, cause);
  const voice = (level: string, message: string, from = at, cause = false): void =>
    sink.emit(VOICE_DESK, at, voiceLine(at, level, callId, message), open, cause, from);
  const later = (ms: number): number => (at += random.around(ms * MS));

  sip(
    'recv',
    caller,
    `INVITE sip:${DESK.number}@voice.brillmoor.example SIP/2.0`,
    dialog,
    ['Content-Type: application/sdp'],
    sdp('198.51.100.9', 20_100, '8 0 101'),
  );
  later(3);
  sip('send', caller, 'SIP/2.0 100 Trying', dialog);
  later(4);
  sip(
    'send',
    DESK,
    `INVITE sip:${DESK.number}@192.0.2.20:5062 SIP/2.0`,
    dialog,
    ['Content-Type: application/sdp'],
    sdp('192.0.2.1', 20_100, '8 0 101'),
  );
  if (busy) {
    later(30);
    sip('recv', DESK, 'SIP/2.0 486 Busy Here', answered, [], '', true);
    later(2);
    sip('send', caller, 'SIP/2.0 486 Busy Here', answered);
    later(30);
    sip('recv', caller, `ACK sip:${DESK.number}@voice.brillmoor.example SIP/2.0`, { ...answered, cseq: '1 ACK' });
    sink.close(open);
    return;
  }
  later(25);
  sip('recv', DESK, 'SIP/2.0 180 Ringing', answered);
  later(2);
  sip('send', caller, 'SIP/2.0 180 Ringing', answered);
  later(1400);
  at += ring?.answer ?? 0;
  voice('INFO', `call from caller="${asDialled(caller.number)}" answered`, at, ring !== null);
  later(3);
  sip('recv', DESK, ok, answered, ['Content-Type: application/sdp'], sdp('192.0.2.20', 31_400, '8 101'));
  later(2);
  sip('send', caller, ok, answered, ['Content-Type: application/sdp'], sdp('192.0.2.1', 20_102, '8 101'));
  later(28);
  sip('recv', caller, `ACK sip:${DESK.number}@voice.brillmoor.example SIP/2.0`, { ...answered, cseq: '1 ACK' });
  later(9000);
  voice('INFO', `asked for order ${knownOrder}`);
  later(60);
  voice('INFO', `told status of ${knownOrder}`);
  if (transferred) {
    later(6000);
    voice('INFO', `transfer to agent ${AGENT.number.slice(-3)} requested`);
    later(40);
    const again = { ...answered, from: DESK, to: caller, fromTag: answered.toTag, toTag: answered.fromTag, cseq: '2 INVITE' };
    sip(
      'send',
      caller,
      `INVITE sip:${caller.number}@${caller.address} SIP/2.0`,
      again,
      ['Content-Type: application/sdp'],
      sdp('192.0.2.31', 40_200, drop ? '9 101' : '8 101'),
    );
    later(45);
    if (drop) {
      sip('recv', caller, 'SIP/2.0 488 Not Acceptable Here', again, ['Warning: 304 ShopPhone "media type not available"'], '', true);
      later(6);
      voice('WARN', 'transfer failed, caller hears nothing');
      at += random.around(2.5 * SECOND);
      sip('recv', caller, `BYE sip:${DESK.number}@voice.brillmoor.example SIP/2.0`, { ...answered, cseq: '3 BYE' });
      later(3);
      sip('send', caller, ok, { ...answered, cseq: '3 BYE' });
      later(5);
      voice('ERROR', 'call lost after transfer');
      sink.close(open);
      return;
    }
    sip('recv', caller, ok, again, ['Content-Type: application/sdp'], sdp('198.51.100.9', 20_100, '8 101'));
    later(8);
    voice('INFO', 'transfer completed');
    later(30_000);
  }
  later(8000);
  sip('recv', caller, `BYE sip:${DESK.number}@voice.brillmoor.example SIP/2.0`, { ...answered, cseq: '3 BYE' });
  later(3);
  sip('send', caller, ok, { ...answered, cseq: '3 BYE' });
  later(4);
  voice('INFO', `call ended after ${((at - start) / SECOND).toFixed(1)} s`, start);
  sink.close(open);
}
