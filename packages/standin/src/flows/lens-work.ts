import { cellLine, COATING_CELL, SURFACING_CELL } from '../components/cells.ts';
import { DISPATCH, dispatchLine, PARTNER_WIRE, wireMessage } from '../components/dispatch.ts';
import { calcLine, LENS_CALC } from '../components/lens-calc.ts';
import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { RELAY, relayLine } from '../components/relay.ts';
import { SHOP_PORTAL, portalLine } from '../components/shop-portal.ts';
import { MS, SECOND, type Micros } from '../writing/times.ts';
import type { World } from '../world.ts';
import type { Order } from './lens-order-faults.ts';

const CARRIER = 'carrier.example';

/** From the released order to the parcel: computed, surfaced, coated, handed to the carrier. */
export function lensWork(world: World, order: Order, from: Micros): void {
  let at = compute(world, order, from);
  at = surface(world, order, at);
  handOver(world, order, at);
  at = coat(world, order, at);
  dispatch(world, order, at);
}

/** A message through the broker. Returns its number and when it is delivered. */
function hop({ random, sink }: World, order: Order, from: Micros, queue: string, consumer: string): { message: string; at: Micros } {
  const message = `m-${random.hex(8)}`;
  order.open.truth.identifiers.push({ kind: 'message', value: message });
  let at = from + random.around(3 * MS);
  sink.emit(RELAY, at, relayLine(at, 'info', 'enqueued', queue, message, ` size=${random.whole(900, 2400)}`), order.open);
  at += random.around(35 * MS, 0.7);
  sink.emit(RELAY, at, relayLine(at, 'info', 'delivered', queue, message, ` consumer=${consumer}`), order.open);
  return { message, at };
}

function compute(world: World, order: Order, from: Micros): Micros {
  const { random, sink } = world;
  const { open, id } = order;
  const sent = hop(world, order, from, 'calc.request', 'lens-calc');
  const worker = `calc-${random.whole(1, 6)}`;
  let at = sent.at + random.around(4 * MS);
  sink.emit(LENS_CALC, at, calcLine(at, 'INFO', worker, `message ${sent.message}: surface of ${id}, material ${order.material}`), open);
  const took = random.around(420 * MS, 0.5);
  const rounds = random.whole(1, 3);
  for (let round = 1; round <= rounds; round++) {
    const refined = at + (took * round) / (rounds + 1);
    sink.emit(LENS_CALC, refined, calcLine(refined, 'DEBUG', worker, `grid refined, residual ${(random.next() / 100 / round).toFixed(5)}`), open);
  }
  at += took;
  const points = random.whole(38_000, 52_000);
  sink.emit(LENS_CALC, at, calcLine(at, 'INFO', worker, `surface of ${id} computed, ${points} points, took ${Math.round(took / MS)} ms`), open);
  return at;
}

function surface(world: World, order: Order, from: Micros): Micros {
  const { random, sink } = world;
  const sent = hop(world, order, from, 'surfacing.jobs', 'surfacing-cell');
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
  return at;
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
    order.open.truth.identifiers.push({ kind: 'message', value: message });
    at += own.around(60 * MS);
    sink.emit(fileOf(sender), at, cellLine(at, sender, lane, order.id, `${word} ${message} sent to ${receiver}`), order.open);
    at += own.around(18 * MS, 0.5);
    sink.emit(fileOf(receiver), at, cellLine(at, receiver, lane, order.id, `${word} ${message} received`), order.open);
  }
}
const fileOf = (cell: 'cell-1' | 'cell-2'): string => (cell === 'cell-1' ? SURFACING_CELL : COATING_CELL);

function coat({ random, sink }: World, order: Order, from: Micros): Micros {
  const lane = random.whole(1, 2);
  let at = from;
  for (const [message, wait] of [
    ['loaded', 20 * SECOND],
    ['cleaned', 30 * SECOND],
    [`coated, ${random.whole(4, 7)} layers`, 70 * SECOND],
    ['unloaded', 15 * SECOND],
  ] as const) {
    at += random.around(wait, 0.2);
    sink.emit(COATING_CELL, at, cellLine(at, 'cell-2', lane, order.id, message), order.open);
  }
  return at + random.around(5 * SECOND, 0.2);
}

function dispatch(world: World, order: Order, from: Micros): void {
  const { random, sink } = world;
  const { open, id, trace } = order;
  const sent = hop(world, order, from, 'dispatch.labels', 'dispatch');
  const parcel = `PX${random.whole(10_000_000, 99_999_999)}`;
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
  at += random.around(14 * MS);
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
