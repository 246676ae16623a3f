import { RELAY, relayLine } from '../components/relay.ts';
import { sipMessage, SWITCH, type Party } from '../components/switch.ts';
import type { World } from '../world.ts';
import type { Random } from '../writing/random.ts';
import { MS, SECOND, type Micros } from '../writing/times.ts';

const SWITCH_ITSELF: Party = { number: 'switch', address: '192.0.2.1:5060', agent: 'lab-switch' };
const DESK: Party = { number: 'voice-desk', address: '192.0.2.20:5062', agent: 'VoiceDesk 2.9' };

/** What recurs in each minute: heartbeats of the queues, a ping of the voice desk, a phone that registers. `random` is its own, so that the rest of the world stays as it is. */
export function recurring({ sink }: World, random: Random, minute: Micros): void {
  for (const [i, queue] of ['orders.in', 'surfacing.jobs', 'dead'].entries()) {
    const at = minute + 10 * SECOND + i * 3 * MS + random.whole(0, 200) * MS;
    sink.emit(
      RELAY,
      at,
      relayLine(
        at,
        'info',
        'heartbeat',
        queue,
        '-',
        ` depth=${random.whole(0, 6)} consumers=${random.whole(1, 4)} uptime=${Math.floor(at / SECOND) % 1_000_000}s`,
      ),
    );
  }
  exchange('OPTIONS', DESK, 'send', minute + 20 * SECOND);
  const extension = String(140 + random.whole(0, 19));
  exchange(
    'REGISTER',
    { number: `+493023125${extension}`, address: `192.0.2.${extension}:5060`, agent: 'DeskPhone 7.1' },
    'recv',
    minute + random.whole(25, 55) * SECOND,
  );

  function exchange(method: string, peer: Party, direction: 'recv' | 'send', at: Micros): void {
    const dialog = { callId: `${random.hex(12)}@tel-1.brillmoor.example`, from: direction === 'send' ? SWITCH_ITSELF : peer, to: peer, fromTag: random.hex(6), toTag: '', cseq: `1 ${method}` }; // prettier-ignore
    sink.emit(SWITCH, at, sipMessage(at, direction, peer, `${method} sip:voice.brillmoor.example SIP/2.0`, dialog));
    const answered = at + random.around(2 * MS);
    sink.emit(
      SWITCH,
      answered,
      sipMessage(answered, direction === 'send' ? 'recv' : 'send', peer, 'SIP/2.0 200 OK', { ...dialog, toTag: random.hex(6) }),
    );
  }
}
