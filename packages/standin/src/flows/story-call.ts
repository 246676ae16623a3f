import { sdp, sipMessage, SWITCH, type Party } from '../components/switch.ts';
import { VOICE_DESK, voiceLine } from '../components/voice-desk.ts';
import type { StoryCall } from '../stories/story.ts';
import type { World } from '../world.ts';
import { MS, SECOND, type Micros } from '../writing/times.ts';
import { callerNumber } from './status-call.ts';

const DESK: Party = { number: '+493023125100', address: '192.0.2.20:5062', agent: 'VoiceDesk 2.9' };
const OTHER_SHOP = '+493023125877';

/** A call of a story, made of chance of its own: the rest of the world stays as it is. */
export function storyCall({ random, sink }: World, story: number, start: Micros, course: StoryCall['course']): void {
  const own = random.fork(`call of story ${story} at ${start}`);
  const isOneWay = course === 'one-way';
  const caller: Party = { number: callerNumber(isOneWay ? 845 : 846), address: '198.51.100.77:5060', agent: 'ShopPhone 4.2' };
  const callId = `${own.hex(12)}@tel-1.brillmoor.example`;
  const open = sink.open({
    flow: 'status-call',
    businessId: callId,
    startedAt: start,
    story,
    outcome: isOneWay ? 'odd' : 'done',
    identifiers: [
      { kind: 'call', value: callId },
      { kind: 'phone', value: caller.number },
    ],
    attributes: { caller: caller.number },
    cause: isOneWay ? { failedIn: 'switch', component: 'switch', record: null, accepted: [] } : null,
  });
  const dialog = { callId, from: caller, to: DESK, fromTag: own.hex(6), toTag: '', cseq: '1 INVITE' };
  const answered = { ...dialog, toTag: own.hex(6) };
  const ok = 'SIP/2.0 200 OK';
  const media = ['Content-Type: application/sdp'];
  let at = start;
  const later = (ms: number): number => (at += own.around(ms * MS));
  const sip = (direction: 'recv' | 'send', peer: Party, line: string, dlg: typeof dialog, more: string[] = [], body = '', cause = false): void =>
    sink.emit(SWITCH, at, sipMessage(at, direction, peer, line, dlg, more, body), open, cause);
  const voice = (message: string): void => sink.emit(VOICE_DESK, at, voiceLine(at, 'INFO', callId, message), open);

  const offer = sdp(isOneWay ? '10.20.3.9' : '198.51.100.9', 20_100, '8 0 101');
  sip('recv', caller, `INVITE sip:${DESK.number}@voice.brillmoor.example SIP/2.0`, dialog, media, offer);
  later(3);
  sip('send', caller, 'SIP/2.0 100 Trying', dialog);
  later(4);
  sip('send', DESK, `INVITE sip:${DESK.number}@192.0.2.20:5062 SIP/2.0`, dialog, media, offer);
  later(25);
  sip('recv', DESK, 'SIP/2.0 180 Ringing', answered);
  later(2);
  sip('send', caller, 'SIP/2.0 180 Ringing', answered);
  later(1400);
  voice(`call from caller="${caller.number}" answered`);
  later(3);
  sip('recv', DESK, ok, answered, media, sdp('192.0.2.20', 31_400, '8 101'));
  later(2);
  sip('send', caller, ok, answered, media, sdp('192.0.2.20', 31_400, '8 101'), isOneWay);
  later(28);
  sip('recv', caller, `ACK sip:${DESK.number}@voice.brillmoor.example SIP/2.0`, { ...answered, cseq: '1 ACK' });
  later(6000);
  if (isOneWay) {
    voice('nothing was said');
    later(5000);
  } else {
    const asked = { ...answered, cseq: '2 REFER' };
    sip('recv', caller, `REFER sip:${DESK.number}@voice.brillmoor.example SIP/2.0`, asked, [`Refer-To: <sip:${OTHER_SHOP}@voice.brillmoor.example>`]);
    later(9);
    sip('send', caller, 'SIP/2.0 202 Accepted', asked);
    later(40);
    voice(`handed on to ${OTHER_SHOP}`);
    later(2600);
    const told = { ...answered, from: DESK, to: caller, fromTag: answered.toTag, toTag: answered.fromTag, cseq: '3 NOTIFY' };
    sip('send', caller, `NOTIFY sip:${caller.number}@${caller.address} SIP/2.0`, told, ['Event: refer', 'Subscription-State: terminated;reason=noresource', 'Content-Type: message/sipfrag'], ok); // prettier-ignore
    later(4);
    sip('recv', caller, ok, told);
    later(300);
  }
  const bye = { ...answered, cseq: '4 BYE' };
  sip('recv', caller, `BYE sip:${DESK.number}@voice.brillmoor.example SIP/2.0`, bye);
  later(3);
  sip('send', caller, ok, bye);
  later(4);
  voice(`call ended after ${((at - start) / SECOND).toFixed(1)} s`);
  sink.close(open);
}
