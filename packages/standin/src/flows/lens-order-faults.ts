import { BLANK_STORE, blankStoreLine } from '../components/blank-store.ts';
import { LABDB, labdbLine } from '../components/labdb.ts';
import { failedTrace, ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { RELAY, relayLine } from '../components/relay.ts';
import { SHOP_PORTAL, portalLine } from '../components/shop-portal.ts';
import type { ReserveFault } from '../stories/story.ts';
import { silent } from '../writing/sink.ts';
import { MS, SECOND, type Micros } from '../writing/times.ts';
import type { World } from '../world.ts';
import type { Order } from './order.ts';

export type Session = ReturnType<World['pool']['take']>;
export const update = (material: string): string => `update stock_blank set reserved = reserved + 1 where blank = '${material}' and free > 0`;

/** The statement waits for a row lock until it is cancelled. */
export function lockTimeout(world: World, order: Order, session: Session, from: Micros, message: string, fault: ReserveFault, blank: string): void {
  const { random, sink } = world;
  const { open, id, trace } = order;
  if (sink !== silent) open.truth.cause = { failedIn: 'blank-store', component: 'labdb', record: null, accepted: ['blank-store'] };
  const began = from + random.around(4 * MS);
  let at = began + SECOND + random.around(MS);
  sink.emit(
    LABDB,
    at,
    labdbLine(at, session, {
      severity: 'LOG',
      message: `process ${session.pid} still waiting for ShareLock on transaction ${fault.xid} after ${((at - began) / 1000).toFixed(3)} ms`,
      detail: `Process holding the lock: ${fault.holderPid}. Wait queue: ${session.pid}.`,
      context: 'while updating tuple (311,7) in relation "stock_blank"',
      query: update(blank),
    }),
    open,
    false,
    began,
  );
  at = began + 8 * SECOND + random.around(2 * MS);
  sink.emit(
    LABDB,
    at,
    labdbLine(at, session, {
      severity: 'ERROR',
      state: '55P03',
      message: 'canceling statement due to lock timeout',
      context: 'while updating tuple (311,7) in relation "stock_blank"',
      query: update(blank),
    }),
    open,
    true,
  );
  at += random.around(4 * MS);
  sink.emit(
    BLANK_STORE,
    at,
    blankStoreLine(at, 'error', `reserve failed, SQLSTATE 55P03, stock_blank ${blank}`, {
      order: id,
      message,
      traceId: trace,
      db: { session: session.id },
    }),
    open,
  );
  failReservation(world, order, at, message, 'canceling statement due to lock timeout', '55P03');
}

/** Two statements wait for each other; the server ends this one. */
export function deadlock(world: World, order: Order, session: Session, from: Micros, message: string, blank: string): void {
  const { random, sink } = world;
  if (sink !== silent) order.open.truth.cause = { failedIn: 'blank-store', component: 'labdb', record: null, accepted: ['blank-store'] };
  let at = from + random.around(1010 * MS, 0.02);
  sink.emit(
    LABDB,
    at,
    labdbLine(at, session, {
      severity: 'ERROR',
      state: '40P01',
      message: 'deadlock detected',
      detail: `Process ${session.pid} waits for ShareLock on transaction ${random.whole(60_000, 90_000)}; blocked by process ${session.pid + 3}.`,
      query: update(blank),
    }),
    order.open,
    true,
  );
  at += random.around(4 * MS);
  sink.emit(
    BLANK_STORE,
    at,
    blankStoreLine(at, 'error', `reserve failed, SQLSTATE 40P01, stock_blank ${blank}`, {
      order: order.id,
      message,
      traceId: order.trace,
      db: { session: session.id },
    }),
    order.open,
  );
  failReservation(world, order, at, message, 'deadlock detected', '40P01');
}

/** What follows a failed reservation: the loud exception, the dead queue, the order on hold. */
function failReservation(world: World, order: Order, from: Micros, message: string, cause: string, state: string): void {
  const at = from + world.random.around(28 * MS);
  const said = `step reserve of ${order.id} failed\n${failedTrace(order.id, cause, state)}`;
  world.sink.emit(ORDER_DESK, at, orderDeskLine(at, 'ERROR', order.thread, 'o.b.StepRunner', said), order.open);
  hold(world, order, at, { message, queue: 'orders.in', reason: 'RESERVATION' });
}

/** A message that nobody can deal with goes to the dead queue, and its order is put on hold. */
export function hold({ random, sink }: World, order: Order, from: Micros, what: { message: string; queue: string; reason: string }): void {
  const { open, id } = order;
  let at = from + random.around(12 * MS);
  sink.emit(RELAY, at, relayLine(at, 'warn', 'rejected', what.queue, what.message, ' to=dead'), open);
  at += random.around(36 * MS);
  sink.emit(ORDER_DESK, at, orderDeskLine(at, 'WARN', order.thread, 'o.b.OrderFlow', `${id} on hold, reason ${what.reason}`), open);
  at += random.around(20 * MS);
  sink.emit(
    SHOP_PORTAL,
    at,
    portalLine(at, 'warn', `shop told: ${id} on hold`, order.trace, random.hex(16), { order: { number: id }, shop: order.shop }),
    open,
  );
}
