import { BLANK_STORE, blankStoreLine } from '../components/blank-store.ts';
import { EDGE, edgeLine } from '../components/edge.ts';
import { LABDB, labdbLine } from '../components/labdb.ts';
import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { RELAY, relayLine } from '../components/relay.ts';
import { RX_CHECK, rxEvent } from '../components/rx-check.ts';
import { SHOP_PORTAL, portalLine } from '../components/shop-portal.ts';
import type { ReserveFault } from '../stories/story.ts';
import { MS, SECOND, type Micros } from '../writing/times.ts';
import { MATERIALS, SHOPS, type World } from '../world.ts';
import { askForFrame } from './frame-request.ts';
import { lensWork } from './lens-work.ts';
import { deadlock, lockTimeout, update, type Order, type Session } from './lens-order-faults.ts';

type Everyday = 'none' | 'refused' | 'lost' | 'deadlock' | 'retried';

/** An optician's order: portal, order desk, message to the store of blanks, reservation in the database, release. */
export function lensOrder(world: World, start: Micros): void {
  const { random, sink, numbers } = world;
  const id = numbers.nextOrder();
  const trace = random.hex(32);
  const shop = random.pick(SHOPS);
  const fault = world.stories.map((story) => story.reserve?.(start, random.next()) ?? null).find((one) => one !== null) ?? null;
  const everyday = fault ? 'none' : everydayFault(world);
  const order: Order = {
    id,
    trace,
    shop,
    kind: random.chance(0.2) ? 'rush' : 'standard',
    material: random.pick(MATERIALS),
    thread: `exec-${random.whole(1, 24)}`,
    open: sink.open({
      flow: 'lens-order',
      businessId: id,
      startedAt: start,
      story: fault?.story ?? null,
      outcome: outcomeOf(fault, everyday),
      identifiers: [
        { kind: 'order', value: id },
        { kind: 'trace', value: trace },
      ],
      attributes: { shop },
      cause: null,
    }),
  };
  let intake = place(world, order, start, everyday === 'refused');
  if (everyday !== 'refused' && random.chance(0.25)) intake = askForFrame(world, order, intake);
  if (everyday === 'refused') refuse(world, order, intake);
  else reserve(world, order, intake, fault, everyday);
  sink.close(order.open);
}

function everydayFault({ random, faultRate }: World): Everyday {
  const chance = random.next();
  if (chance < faultRate * 0.35) return 'refused';
  if (chance < faultRate * 0.5) return 'lost';
  if (chance < faultRate * 0.65) return 'deadlock';
  return chance < faultRate ? 'retried' : 'none';
}
function outcomeOf(fault: ReserveFault | null, everyday: Everyday): string {
  if (fault || everyday === 'deadlock') return 'failed';
  return everyday === 'refused' ? 'refused' : everyday === 'lost' ? 'stalled' : 'done';
}

/** The request at the door and the registration behind it. */
function place({ random, sink }: World, order: Order, start: Micros, refused: boolean): Micros {
  const { open, id, trace, shop } = order;
  let at = start + random.around(3 * MS);
  const lenses = random.whole(1, 2);
  sink.emit(
    SHOP_PORTAL,
    at,
    portalLine(at, 'info', `order accepted ${id}`, trace, random.hex(16), { order: { number: id, kind: order.kind, lenses }, shop }),
    open,
  );
  at += random.around(14 * MS);
  sink.emit(
    ORDER_DESK,
    at,
    orderDeskLine(
      at,
      'INFO',
      order.thread,
      'o.b.OrderIntake',
      `registered ${id}, ${lenses === 1 ? '1 lens' : '2 lenses'}, shop ${shop}, trace ${trace}`,
    ),
    open,
  );
  // what a thread says while it works on the order need not name it
  const priced = at + random.around(3 * MS);
  sink.emit(ORDER_DESK, priced, orderDeskLine(priced, 'INFO', order.thread, 'o.b.Pricing', `price group ${random.whole(1, 9)} found, ${random.whole(8, 41)} rules`), open); // prettier-ignore
  at += random.around(9 * MS);
  const sphere = (random.whole(-24, 16) / 4).toFixed(2);
  const cylinder = (-random.whole(0, 8) / 4).toFixed(2);
  const worker = `rx-${random.whole(1, 4)}`;
  sink.emit(
    RX_CHECK,
    at,
    rxEvent(at, 'INFO', worker, `checking sph ${sphere} cyl ${cylinder}`, { order: id, trace, material: order.material }),
    open,
  );
  at += random.around(6 * MS);
  if (!refused)
    sink.emit(
      RX_CHECK,
      at,
      rxEvent(at, 'INFO', worker, `prescription in range, took ${random.whole(2, 9)} ms`, { order: id, trace, rules: '41' }),
      open,
    );
  else sink.emit(RX_CHECK, at, rxEvent(at, 'WARN', worker, 'prescription out of range', { order: id, trace, rule: 'R-17' }), open);
  at += random.around(3 * MS);
  if (!refused) sink.emit(ORDER_DESK, at, orderDeskLine(at, 'INFO', order.thread, 'o.b.Prescription', `prescription of ${id} checked`), open);
  const answered = at + random.around(4 * MS);
  sink.emit(
    EDGE,
    answered,
    edgeLine(answered, {
      id: trace,
      method: 'POST',
      path: '/orders',
      status: 202,
      micros: answered - start,
      bytes: 214,
      shop,
      client: `198.51.100.${random.whole(2, 250)}`,
    }),
    open,
    false,
    start,
  );
  return at;
}

function refuse({ random, sink }: World, order: Order, intake: Micros): void {
  const at = intake + random.around(5 * MS);
  order.open.truth.cause = { failedIn: 'order-desk', component: 'order-desk', record: null, accepted: [] };
  sink.emit(
    ORDER_DESK,
    at,
    orderDeskLine(at, 'WARN', order.thread, 'o.b.Prescription', `refused ${order.id}: prescription out of range for material ${order.material}`),
    order.open,
    true,
  );
  const told = at + random.around(20 * MS);
  sink.emit(
    SHOP_PORTAL,
    told,
    portalLine(told, 'info', `shop told: ${order.id} refused`, order.trace, random.hex(16), { order: { number: order.id }, shop: order.shop }),
    order.open,
  );
}

function reserve(world: World, order: Order, intake: Micros, fault: ReserveFault | null, everyday: Everyday): void {
  const { random, sink } = world;
  const { open, id } = order;
  const message = `m-${random.hex(8)}`;
  open.truth.identifiers.push({ kind: 'message', value: message });
  let at = intake + random.around(6 * MS);
  sink.emit(ORDER_DESK, at, orderDeskLine(at, 'INFO', order.thread, 'o.b.OrderIntake', `hand ${id} to relay, message ${message}`), open);
  at += random.around(3 * MS);
  sink.emit(RELAY, at, relayLine(at, 'info', 'enqueued', 'orders.in', message, ` size=${random.whole(900, 2400)}`), open, everyday === 'lost');
  if (everyday === 'lost') {
    open.truth.cause = { failedIn: 'relay', component: 'relay', record: null, accepted: ['blank-store'] };
    return;
  }
  at += random.around(45 * MS, 0.7);
  sink.emit(RELAY, at, relayLine(at, 'info', 'delivered', 'orders.in', message, ' consumer=blank-store'), open);
  at += random.around(4 * MS);
  const used = at;
  // a session is one order's alone as long as the database works or waits for it
  const wait = fault ? 8 * SECOND : everyday === 'deadlock' ? 1.2 * SECOND : 0;
  const session = world.pool.take(used - 5 * MS, used + wait + 400 * MS);
  open.truth.identifiers.push({ kind: 'db-session', value: session.id });
  const blank = `B-${order.material}`;
  sink.emit(
    BLANK_STORE,
    at,
    blankStoreLine(at, 'info', `reserve blank ${blank} for ${id}`, { order: id, message, traceId: order.trace, db: { session: session.id } }),
    open,
  );
  if (fault) lockTimeout(world, order, session, at, message, fault, blank);
  else if (everyday === 'deadlock') deadlock(world, order, session, at, message, blank);
  else release(world, order, session, at, message, blank, everyday === 'retried');
}

function release(world: World, order: Order, session: Session, from: Micros, message: string, blank: string, retried: boolean): void {
  const { random, sink } = world;
  const { open, id, trace } = order;
  let at = from + random.around(3 * MS);
  if (retried) {
    sink.emit(
      BLANK_STORE,
      at,
      blankStoreLine(at, 'error', `reserve attempt 1 of 3 failed: connection reset by peer`, {
        order: id,
        traceId: trace,
        db: { session: session.id },
      }),
      open,
    );
    at += random.around(60 * MS);
    sink.emit(
      BLANK_STORE,
      at,
      blankStoreLine(at, 'warn', `reserve attempt 2 of 3 for ${id}`, { order: id, traceId: trace, db: { session: session.id } }),
      open,
    );
    at += random.around(3 * MS);
  }
  const took = random.around(2.8 * MS);
  at += took;
  sink.emit(
    LABDB,
    at,
    labdbLine(at, session, {
      severity: 'LOG',
      message: `duration: ${(took / 1000).toFixed(3)} ms  execute <unnamed>: ${update(blank)}`,
      detail: `parameters: $1 = '${blank}'`,
    }),
    open,
    false,
    at - took,
  );
  at += random.around(3 * MS);
  sink.emit(
    BLANK_STORE,
    at,
    blankStoreLine(at, 'info', `reserved blank ${blank}`, {
      order: id,
      message,
      traceId: trace,
      db: { session: session.id, ms: Number((took / 1000).toFixed(1)) },
      took: Number(((at - from) / 1000).toFixed(1)),
    }),
    open,
  );
  at += random.around(3 * MS);
  const second = `m-${random.hex(8)}`;
  open.truth.identifiers.push({ kind: 'message', value: second });
  sink.emit(BLANK_STORE, at, blankStoreLine(at, 'debug', `answer sent to relay`, { order: id, message: second, traceId: trace }), open);
  at += random.around(2 * MS);
  sink.emit(RELAY, at, relayLine(at, 'info', 'enqueued', 'orders.in', second), open);
  at += random.around(40 * MS, 0.7);
  sink.emit(RELAY, at, relayLine(at, 'info', 'delivered', 'orders.in', second, ' consumer=order-desk'), open);
  at += random.around(5 * MS);
  const thread = `exec-${random.whole(1, 24)}`;
  sink.emit(ORDER_DESK, at, orderDeskLine(at, 'INFO', thread, 'o.b.OrderFlow', `message ${second}: ${id} has its blank`), open);
  at += random.around(900 * MS, 0.25);
  sink.emit(ORDER_DESK, at, orderDeskLine(at, 'INFO', thread, 'o.b.OrderFlow', `${id} released to surfacing`), open);
  at += random.around(12 * MS);
  sink.emit(
    SHOP_PORTAL,
    at,
    portalLine(at, 'info', `shop told: ${id} in work`, trace, random.hex(16), { order: { number: id }, shop: order.shop }),
    open,
  );
  lensWork(world, order, at);
}
