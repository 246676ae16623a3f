import { BLANK_STORE, blankStoreLine } from '../components/blank-store.ts';
import { EDGE, EDGE_STATIC, edgeLine, staticLine } from '../components/edge.ts';
import { MESSAGES, messagesLine, SYSLOG, syslogLine } from '../components/hosts.ts';
import { LABDB, labdbLine, type Session } from '../components/labdb.ts';
import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { RELAY, relayLine } from '../components/relay.ts';
import { SHOP_PORTAL, portalLine } from '../components/shop-portal.ts';
import { asked } from '../stories/story.ts';
import { silent } from '../writing/sink.ts';
import { SHOPS, type World } from '../world.ts';
import { MS, type Micros } from '../writing/times.ts';

/** Everyday lines that belong to no transaction: health checks, catalogue pages, heartbeats, checkpoints. */
export function noise(world: World, at: Micros, server: Session): void {
  const { random } = world;
  const away = asked(world.stories, (story) => story.away?.(at)) !== null;
  const { sink } = world;
  const desk = away ? silent : sink;
  const chance = random.next();
  const trace = random.hex(32);
  if (chance < 0.3) {
    const took = random.around(MS);
    sink.emit(EDGE, at, edgeLine(at, { id: trace, method: 'GET', path: '/health', status: 200, micros: took, bytes: 2, client: '192.0.2.77' }));
  } else if (chance < 0.6) {
    const took = random.around(22 * MS);
    const shop = random.pick(SHOPS);
    sink.emit(
      SHOP_PORTAL,
      at + took * 0.8,
      portalLine(at + took * 0.8, 'info', 'catalogue page shown', trace, random.hex(16), { shop, page: random.whole(1, 40) }),
    );
    sink.emit(
      EDGE,
      at + took,
      edgeLine(at + took, {
        id: trace,
        method: 'GET',
        path: `/catalogue/${random.whole(1, 40)}`,
        status: random.chance(0.01) ? 404 : 200,
        micros: took,
        bytes: random.whole(4000, 30_000),
        shop,
        client: `198.51.100.${random.whole(2, 250)}`,
      }),
    );
  } else if (chance < 0.66) sink.emit(EDGE_STATIC, at, staticLine(at, random));
  else if (chance < 0.72) hostLine(world, at);
  else if (chance < 0.78)
    sink.emit(
      RELAY,
      at,
      relayLine(at, 'debug', 'sampled', random.pick(['orders.in', 'surfacing.jobs', 'dead']), '-', ` depth=${random.whole(0, 6)}`),
    );
  else if (chance < 0.89)
    sink.emit(
      BLANK_STORE,
      at,
      blankStoreLine(at, 'debug', 'cache of blanks refreshed', { entries: random.whole(1100, 1300), took: random.whole(2, 30) }),
    );
  else if (chance < 0.94)
    desk.emit(
      ORDER_DESK,
      at,
      orderDeskLine(at, 'DEBUG', `timer-${random.whole(1, 4)}`, 'o.b.Housekeeping', `swept ${random.whole(0, 12)} idle handles`),
    );
  // on threads that also work on orders, but not for one
  else if (chance < 0.97)
    desk.emit(
      ORDER_DESK,
      at,
      orderDeskLine(at, 'DEBUG', `exec-${random.whole(1, 24)}`, 'o.b.Session', `session of shop ${random.pick(SHOPS)} kept alive`),
    );
  else
    sink.emit(
      LABDB,
      at,
      labdbLine(at, server, {
        severity: 'LOG',
        command: '',
        message: `checkpoint complete: wrote ${random.whole(20, 900)} buffers (0.${random.whole(1, 9)}%); 0 WAL file(s) added`,
      }),
    );
}

/** What hosts say about themselves: the newer ones in one format, the older ones in another. */
function hostLine({ random, sink }: World, at: Micros): void {
  const pid = random.whole(300, 32_000);
  if (random.chance(0.5)) {
    const host = random.pick(['gate-1', 'app-1', 'app-2', 'app-3', 'db-1']);
    const [program, severity, message] = random.pick([
      ['cron', 6, '(lab) CMD (/opt/lab/bin/tidy)'],
      ['sshd', 6, `Accepted publickey for lab from 192.0.2.${random.whole(2, 250)} port ${random.whole(30_000, 60_000)}`],
      ['timesync', 6, `offset ${(random.next() * 0.002 - 0.001).toFixed(6)} s`],
      ['systemd', 6, 'Started lab-tidy.service'],
      ['kernel', 4, 'TCP: request_sock: possible overflow, sending cookies'],
    ] as const);
    sink.emit(SYSLOG, at, syslogLine(at, host, program, pid, severity, message));
  } else {
    const host = random.pick(['bus-1', 'cell-1', 'cell-2', 'tel-1', 'job-1']);
    const [program, message] = random.pick([
      ['crond', '(root) CMD (run-parts /etc/cron.hourly)'],
      ['ntpd', `adjusting local clock by ${(random.next() * 0.02 - 0.01).toFixed(6)}s`],
      ['smartd', 'Device: /dev/sda, SMART usage attribute 194 changed from 31 to 32'],
    ] as const);
    sink.emit(MESSAGES, at, messagesLine(at, host, program, pid, message));
  }
}
