import { cellLine, COATING_CELL, SURFACING_CELL } from '../components/cells.ts';
import { DISPATCH, dispatchLine, PARTNER_WIRE, wireMessage } from '../components/dispatch.ts';
import { calcLine, LENS_CALC, offTheGrid } from '../components/lens-calc.ts';
import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { RELAY, relayLine } from '../components/relay.ts';
import { SHOP_PORTAL, portalLine } from '../components/shop-portal.ts';
import { asked } from '../stories/story.ts';
import { silent } from '../writing/sink.ts';
import { MINUTE, MS, SECOND, type Micros } from '../writing/times.ts';
import type { World } from '../world.ts';
import { hold } from './lens-order-faults.ts';
import { became, named, type Order } from './order.ts';

const CARRIER = 'carrier.example';

/** A frame whose supplier refused it without the order desk noticing: its shape never comes. */
export type NoShape = { story: number; model: string } | null;

/** From the released order to the parcel: computed, surfaced, coated, handed to the carrier. */
export function lensWork(world: World, order: Order, from: Micros, noShape: NoShape): void {
  const muted = (stopped: boolean): void => void (stopped && (world = { ...world, sink: silent }));
  const computed = compute(world, order, from, noShape);
  muted(computed.stopped);
  const surfaced = surface(world, order, computed.at, computed.job);
  muted(surfaced.stopped);
  handOver(world, order, surfaced.at);
  dispatch(world, order, coat(world, order, surfaced.at));
}

/** Nothing is said to the order desk before it is there. */
export function there({ stories, random, sink }: World, order: Order, at: Micros): Micros {
  const away = asked(stories, (story) => story.away?.(at));
  if (!away) return at;
  if (sink !== silent) became(order.open, 'slow', away.story, { failedIn: 'order-desk', component: 'order-desk', accepted: [] });
  return away.answer + random.fork(`back ${order.id}`).around(3 * SECOND);
}

interface Sent {
  message: string;
  at: Micros;
  /** It goes no further, or not as it should. */
  fault: { story: number; answer: 'lost' | 'poisoned' } | null;
}
/** A message through the broker: its number, and when it is delivered. */
export function hop(world: World, order: Order, from: Micros, queue: string, consumer: string, message = `m-${world.random.hex(8)}`): Sent {
  const { random, sink, stories } = world;
  named(sink, order.open, 'message', message);
  let at = from + random.around(3 * MS);
  const fault = asked(stories, (story) => story.queue?.(at, queue, order));
  const lost = fault?.answer === 'lost';
  sink.emit(RELAY, at, relayLine(at, 'info', 'enqueued', queue, message, ` size=${random.whole(900, 2400)}`), order.open, lost && sink !== silent);
  at += random.around(35 * MS, 0.7);
  if (!lost) sink.emit(RELAY, at, relayLine(at, 'info', 'delivered', queue, message, ` consumer=${consumer}`), order.open);
  return { message, at, fault };
}

function compute(world: World, order: Order, from: Micros, noShape: NoShape): { at: Micros; stopped: boolean; job: string } {
  const { random, sink, stories } = world;
  const { open, id } = order;
  const sent = hop(world, order, from, 'calc.request', 'lens-calc');
  const worker = `calc-${random.whole(1, 6)}`;
  let at = sent.at + random.around(4 * MS);
  const say = (when: Micros, level: string, message: string, cause = false): void => sink.emit(LENS_CALC, when, calcLine(when, level, worker, message), open, cause); // prettier-ignore
  say(
    at,
    'INFO',
    `message ${sent.message}: surface of ${id}, material ${order.material}${order.prism > 0 ? `, prism ${order.prism.toFixed(2)}` : ''}`,
  );
  const took = random.around(420 * MS, 0.5);
  const rounds = random.whole(1, 3);
  const broken = asked(stories, (story) => story.surface?.(at, order));
  const stopped = broken !== null || noShape !== null;
  for (let round = 1; round <= rounds; round++) {
    const refined = at + (took * round) / (rounds + 1);
    const residual = (random.next() / 100 / round).toFixed(5);
    if (!stopped) say(refined, 'DEBUG', `grid refined, residual ${residual}`);
  }
  at += took;
  const points = random.whole(38_000, 52_000);
  const job = `m-${random.fork(`job ${id}`).hex(8)}`;
  if (noShape) {
    if (sink !== silent)
      became(open, 'stalled', noShape.story, { failedIn: 'lens-calc', component: 'frame-gate', accepted: [] }, ['lens-calc', 'frame-gate']);
    say(sent.at + 8 * MS, 'INFO', `surface of ${id} waits for the shape of frame ${noShape.model}`);
  } else if (broken) {
    if (sink !== silent) became(open, 'failed', broken.story, { failedIn: 'lens-calc', component: 'lens-calc', accepted: [] });
    say(at, 'ERROR', `surface of ${id} failed\n${offTheGrid(order.prism)}`, true);
    hold(world, order, at, { message: sent.message, queue: 'calc.request', reason: 'CALCULATION' });
  } else say(at, 'INFO', `surface of ${id} computed, ${points} points, took ${Math.round(took / MS)} ms, job ${job}`);
  return { at, stopped, job };
}

function surface(world: World, order: Order, from: Micros, job: string): { at: Micros; stopped: boolean } {
  const { random } = world;
  const sent = hop(world, order, from, 'surfacing.jobs', 'surfacing-cell', job);
  const stopped = sent.fault !== null;
  if (sent.fault && world.sink !== silent)
    became(order.open, 'stalled', sent.fault.story, { failedIn: 'relay', component: 'relay', accepted: ['surfacing-cell'] }, [
      'relay',
      'surfacing-cell',
    ]);
  const sink = stopped ? silent : world.sink;
  const lane = random.whole(1, 4);
  let at = sent.at;
  for (const [message, wait] of [
    [`job ${sent.message} taken`, 4 * SECOND],
    ['blocked', 12 * SECOND],
    ['generated', 45 * SECOND],
    ['polished', 40 * SECOND],
    ['deblocked, to coating', 9 * SECOND],
  ] as const) {
    at += random.around(wait, 0.2);
    sink.emit(SURFACING_CELL, at, cellLine(at, 'cell-1', lane, order.id, message), order.open);
  }
  return { at, stopped };
}

/** The two cells tell each other over their own line, without the broker: in both directions, so that their clocks can be compared. */
function handOver({ random, sink }: World, order: Order, from: Micros): void {
  const own = random.fork(`handover ${order.id}`);
  const lane = own.whole(1, 2);
  let at = from;
  for (const [sender, receiver, word] of [
    ['cell-1', 'cell-2', 'blank'],
    ['cell-2', 'cell-1', 'ready'],
  ] as const) {
    const message = `m-${own.hex(8)}`;
    named(sink, order.open, 'message', message);
    at += own.around(60 * MS);
    sink.emit(fileOf(sender), at, cellLine(at, sender, lane, order.id, `${word} ${message} sent to ${receiver}`), order.open);
    at += own.around(18 * MS, 0.5);
    sink.emit(fileOf(receiver), at, cellLine(at, receiver, lane, order.id, `${word} ${message} received`), order.open);
  }
}
const fileOf = (cell: 'cell-1' | 'cell-2'): string => (cell === 'cell-1' ? SURFACING_CELL : COATING_CELL);

function coat({ random, sink, stories }: World, order: Order, from: Micros): Micros {
  const lane = random.whole(1, 2);
  const queued = asked(stories, (story) => story.coating?.(from));
  if (queued && queued.answer > 2 * MINUTE && sink !== silent)
    became(order.open, 'slow', queued.story, { failedIn: 'coating-cell', component: 'coating-cell', accepted: ['surfacing-cell'] });
  if (queued && queued.answer < 3 * MINUTE) order.open.truth.alsoRight = ['done', 'slow'];
  let at = from + (queued?.answer ?? 0);
  for (const [message, wait] of [
    ['loaded', 20 * SECOND],
    ['cleaned', 30 * SECOND],
    [`coated, ${random.whole(4, 7)} layers`, 70 * SECOND],
    ['unloaded', 15 * SECOND],
  ] as const) {
    at += random.around(wait, 0.2);
    sink.emit(
      COATING_CELL,
      at,
      cellLine(at, 'cell-2', lane, order.id, message),
      order.open,
      message === 'loaded' && order.open.truth.story === queued?.story,
    );
  }
  return at + random.around(5 * SECOND, 0.2);
}

function dispatch(world: World, order: Order, from: Micros): void {
  const { random, sink } = world;
  const { open, id, trace } = order;
  const sent = hop(world, order, from, 'dispatch.labels', 'dispatch');
  const parcel = `PX${random.whole(10_000_000, 99_999_999)}`;
  if (sent.fault?.answer === 'poisoned') {
    goRound(world, order, sent, sent.fault.story);
    return;
  }
  let at = sent.at + random.around(5 * MS);
  sink.emit(
    DISPATCH,
    at,
    dispatchLine(at, 'info', `label for ${id} asked of the carrier`, { order: id, message: sent.message, traceId: trace }),
    open,
  );
  at += random.around(3 * MS);
  sink.emit(
    PARTNER_WIRE,
    at,
    wireMessage(at, 'sent', CARRIER, 'POST /labels HTTP/1.1', [`Host: ${CARRIER}`], ['<LabelRequest>', `  <Order>${id}</Order>`, `  <Shop>${order.shop}</Shop>`, '</LabelRequest>']),
    open,
  ); // prettier-ignore
  at += random.around(240 * MS, 0.4);
  sink.emit(
    PARTNER_WIRE,
    at,
    wireMessage(at, 'received', CARRIER, 'HTTP/1.1 200 OK', [], ['<LabelAnswer>', `  <Order>${id}</Order>`, `  <Parcel>${parcel}</Parcel>`, '</LabelAnswer>']),
    open,
  ); // prettier-ignore
  at += random.around(8 * MS);
  sink.emit(DISPATCH, at, dispatchLine(at, 'info', `${id} handed to the carrier`, { order: id, parcel, traceId: trace }), open);
  at = there(world, order, at + random.around(14 * MS));
  const thread = `exec-${random.whole(1, 24)}`;
  sink.emit(ORDER_DESK, at, orderDeskLine(at, 'INFO', thread, 'o.b.OrderFlow', `${id} finished, parcel ${parcel}`), open);
  at += random.around(12 * MS);
  sink.emit(
    SHOP_PORTAL,
    at,
    portalLine(at, 'info', `shop told: ${id} on its way`, trace, random.hex(16), { order: { number: id }, shop: order.shop, parcel }),
    open,
  );
}

/** A message that cannot be read is delivered again and again, and then put aside. */
function goRound(world: World, order: Order, { message, at: from }: Sent, story: number): void {
  const { random, sink } = world;
  const { open, id, trace } = order;
  if (sink !== silent) became(open, 'failed', story, { failedIn: 'dispatch', component: 'dispatch', accepted: [] });
  let at = from;
  for (let delivery = 1; delivery <= 3; delivery++) {
    if (delivery > 1) {
      at += random.around(5 * SECOND, 0.05);
      sink.emit(RELAY, at, relayLine(at, 'warn', 'redelivered', 'dispatch.labels', message, ` consumer=dispatch delivery=${delivery}`), open);
    }
    at += random.around(6 * MS);
    const said = `message of ${id} cannot be read: character 0x00 in the address`;
    sink.emit(DISPATCH, at, dispatchLine(at, 'error', said, { order: id, message, traceId: trace, delivery }), open, delivery === 1);
  }
  hold(world, order, at, { message, queue: 'dispatch.labels', reason: 'LABEL' });
}
