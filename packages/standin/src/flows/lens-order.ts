import { BLANK_STORE, blankStoreLine } from '../components/blank-store.ts';
import { LABDB, labdbLine } from '../components/labdb.ts';
import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { RELAY, relayLine } from '../components/relay.ts';
import { SHOP_PORTAL, portalLine } from '../components/shop-portal.ts';
import { asked, type ReserveFault } from '../stories/story.ts';
import { silent } from '../writing/sink.ts';
import { MS, SECOND, type Micros } from '../writing/times.ts';
import { MATERIALS, SHOPS, type World } from '../world.ts';
import { askForFrame } from './frame-request.ts';
import { harmless } from './harmless.ts';
import { lensWork, there, type NoShape } from './lens-work.ts';
import { deadlock, lockTimeout, update, type Session } from './lens-order-faults.ts';
import { became, named, type Order } from './order.ts';
import { place, refuse, shutOut, type InFile } from './order-intake.ts';

type Everyday = 'none' | 'refused' | 'lost' | 'deadlock' | 'retried';

/** Prisms that prescriptions ask for, in dioptres. */
const PRISMS = [0.5, 1, 1.5, 2, 3];
const OUT_OF_RANGE = 'prescription out of range';

/**
 * An optician's order: portal, order desk, message to the store of blanks, reservation in the database, release, and the work on the lenses.
 *
 * @param by the shop that orders in files, and what is wrong with the file
 */
export function lensOrder(world: World, start: Micros, by?: { shop: string; inFile: InFile; doubled: number | null }): void {
  const { random, sink, numbers, stories } = world;
  const id = numbers.nextOrder();
  const trace = random.hex(32);
  const anyShop = random.pick(SHOPS);
  const shop = by?.shop ?? anyShop;
  const fault = asked(stories, (story) => story.reserve?.(start, random.next()))?.answer ?? null;
  const everyday = fault || by?.doubled ? 'none' : everydayFault(world);
  const own = random.fork(`prescription ${id}`);
  const order: Order = {
    id,
    trace,
    shop,
    kind: random.chance(0.2) ? 'rush' : 'standard',
    material: random.pick(MATERIALS),
    prism: own.chance(0.14) ? own.pick(PRISMS) : 0,
    thread: `exec-${random.whole(1, 24)}`,
    open: sink.open({
      flow: 'lens-order',
      businessId: id,
      startedAt: start,
      story: fault?.story ?? null,
      ...(everyday === 'none' ? {} : { kind: everyday }),
      outcome: outcomeOf(fault, everyday),
      identifiers: [
        { kind: 'order', value: id },
        { kind: 'trace', value: trace },
      ],
      attributes: { shop },
      cause: null,
    }),
  };
  if (by && by.doubled !== null) became(order.open, 'doubled', by.doubled, { failedIn: 'order-desk', component: 'order-desk', accepted: [] });
  const away = by ? null : asked(stories, (story) => story.away?.(start));
  if (away) shutOut(world, order, start, away.story);
  // whatever becomes of it, the rest of the world stays as it is
  goOn(away ? { ...world, sink: silent } : world, order, start, fault, everyday, by?.inFile ?? null);
  sink.close(order.open);
}

function goOn(world: World, order: Order, start: Micros, fault: ReserveFault | null, everyday: Everyday, inFile: InFile | null): void {
  const blocked = everyday === 'refused' ? null : asked(world.stories, (story) => story.check?.(start, order));
  const { open } = order;
  if (everyday === 'refused' && open.truth.story === null)
    open.truth.cause = { failedIn: 'order-desk', component: 'order-desk', record: null, accepted: ['rx-check'] };
  if (blocked && world.sink !== silent)
    became(open, 'refused', blocked.story, { failedIn: 'order-desk', component: 'rx-check', accepted: ['order-desk'] });
  const reason = everyday === 'refused' ? OUT_OF_RANGE : blocked ? 'material not allowed' : null;
  let intake = place(world, order, start, reason, inFile);
  if (reason) refuse(world, order, intake, reason);
  if (everyday === 'refused') return;
  const behind = blocked ? { ...world, sink: silent } : world;
  let noShape: NoShape = null;
  if (world.random.chance(0.25)) ({ at: intake, noShape } = askForFrame(behind, order, intake));
  harmless(behind, order, intake);
  reserve(behind, order, intake, fault, everyday, noShape);
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

function reserve(world: World, order: Order, intake: Micros, fault: ReserveFault | null, everyday: Everyday, noShape: NoShape): void {
  const { random, sink } = world;
  const { open, id } = order;
  const message = `m-${random.hex(8)}`;
  named(sink, open, 'message', message);
  let at = intake + random.around(6 * MS);
  sink.emit(ORDER_DESK, at, orderDeskLine(at, 'INFO', order.thread, 'o.b.OrderIntake', `hand ${id} to relay, message ${message}`), open);
  at += random.around(3 * MS);
  sink.emit(RELAY, at, relayLine(at, 'info', 'enqueued', 'orders.in', message, ` size=${random.whole(900, 2400)}`), open, everyday === 'lost');
  if (everyday === 'lost') {
    const cause = { failedIn: 'relay', component: 'relay', record: null, accepted: ['blank-store'] };
    if (sink !== silent) Object.assign(open.truth, { cause, next: ['relay', 'blank-store'] });
    return;
  }
  at += random.around(45 * MS, 0.7);
  sink.emit(RELAY, at, relayLine(at, 'info', 'delivered', 'orders.in', message, ' consumer=blank-store'), open);
  at += random.around(4 * MS);
  const used = at;
  // a session is one order's alone as long as the database works or waits for it
  const wait = fault ? 8 * SECOND : everyday === 'deadlock' ? 1.2 * SECOND : 0;
  const session = world.pool.take(used - 5 * MS, used + wait + 400 * MS);
  named(sink, open, 'db-session', session.id);
  const blank = `B-${order.material}`;
  sink.emit(
    BLANK_STORE,
    at,
    blankStoreLine(at, 'info', `reserve blank ${blank} for ${id}`, { order: id, message, traceId: order.trace, db: { session: session.id } }),
    open,
  );
  if (fault) lockTimeout(world, order, session, at, message, fault, blank);
  else if (everyday === 'deadlock') deadlock(world, order, session, at, message, blank);
  else release(world, order, session, at, message, blank, everyday === 'retried', noShape);
}

function release(
  world: World,
  order: Order,
  session: Session,
  from: Micros,
  message: string,
  blank: string,
  retried: boolean,
  noShape: NoShape,
): void {
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
  named(sink, open, 'message', second);
  sink.emit(BLANK_STORE, at, blankStoreLine(at, 'debug', `answer sent to relay`, { order: id, message: second, traceId: trace }), open);
  at += random.around(2 * MS);
  sink.emit(RELAY, at, relayLine(at, 'info', 'enqueued', 'orders.in', second), open);
  at += random.around(40 * MS, 0.7);
  sink.emit(RELAY, at, relayLine(at, 'info', 'delivered', 'orders.in', second, ' consumer=order-desk'), open);
  at = there(world, order, at + random.around(5 * MS));
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
  lensWork(world, order, at, noShape);
}
