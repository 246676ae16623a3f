import { EDGE, edgeLine } from '../components/edge.ts';
import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { RX_CHECK, rxEvent } from '../components/rx-check.ts';
import { SHOP_PORTAL, portalLine } from '../components/shop-portal.ts';
import { MS, SECOND, type Micros } from '../writing/times.ts';
import type { World } from '../world.ts';
import { became, type Order } from './order.ts';

/** An order that comes with a file of many. */
export interface InFile {
  file: string;
  line: number;
  /** The shop's own number of it. */
  reference: string;
}
const client = (last: number): string => `198.51.100.${last}`;

/**
 * The request at the door, or the line of a file, and the registration behind it.
 *
 * @param refused why the prescription is turned away, null where it is in order
 */
export function place({ random, sink }: World, order: Order, start: Micros, refused: string | null, inFile: InFile | null): Micros {
  const { open, id, trace, shop } = order;
  let at = start + random.around(3 * MS);
  const lenses = random.whole(1, 2);
  const door = random.hex(16);
  if (!inFile)
    sink.emit(
      SHOP_PORTAL,
      at,
      portalLine(at, 'info', `order accepted ${id}`, trace, door, { order: { number: id, kind: order.kind, lenses }, shop }),
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
      `${inFile ? `file ${inFile.file} line ${inFile.line}: ` : ''}registered ${id}, ${lenses === 1 ? '1 lens' : '2 lenses'}, shop ${shop}, ${inFile ? `its number ${inFile.reference}, ` : ''}trace ${trace}`,
    ),
    open,
    open.truth.outcome === 'doubled',
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
    rxEvent(at, 'INFO', worker, `checking sph ${sphere} cyl ${cylinder}${prismOf(order)}`, { order: id, trace, material: order.material }),
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
  else
    sink.emit(
      RX_CHECK,
      at,
      rxEvent(at, 'WARN', worker, refused, { order: id, trace, rule: refused.startsWith('material') ? 'R-31' : 'R-17' }),
      open,
      open.truth.story !== null,
    );
  at += random.around(3 * MS);
  if (!refused) sink.emit(ORDER_DESK, at, orderDeskLine(at, 'INFO', order.thread, 'o.b.Prescription', `prescription of ${id} checked`), open);
  const answered = at + random.around(4 * MS);
  const from = client(random.whole(2, 250));
  if (!inFile)
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
        client: from,
      }),
      open,
      false,
      start,
    );
  return at;
}

/** The order desk turns an order away. */
export function refuse({ random, sink }: World, order: Order, intake: Micros, reason: string): void {
  const at = intake + random.around(5 * MS);
  sink.emit(
    ORDER_DESK,
    at,
    orderDeskLine(at, 'WARN', order.thread, 'o.b.Prescription', `refused ${order.id}: ${reason} for material ${order.material}`),
    order.open,
    order.open.truth.story === null,
  );
  const told = at + random.around(20 * MS);
  sink.emit(
    SHOP_PORTAL,
    told,
    portalLine(told, 'info', `shop told: ${order.id} refused`, order.trace, random.hex(16), { order: { number: order.id }, shop: order.shop }),
    order.open,
  );
}
const prismOf = ({ prism }: Order): string => (prism === 0 ? '' : ` prism ${prism.toFixed(2)} base ${prism > 1 ? 90 : 270}`);

/** The order desk is away: the portal waits for it, gives up and tells the shop to try again. */
export function shutOut({ random, sink }: World, order: Order, start: Micros, story: number): void {
  const { open, id, trace, shop } = order;
  const own = random.fork(`shut out ${id}`);
  became(open, 'failed', story, { failedIn: 'shop-portal', component: 'order-desk', accepted: ['shop-portal'] });
  let at = start + own.around(3 * MS);
  sink.emit(SHOP_PORTAL, at, portalLine(at, 'info', `order accepted ${id}`, trace, own.hex(16), { order: { number: id, kind: order.kind, lenses: own.whole(1, 2) }, shop }), open); // prettier-ignore
  at += 3 * SECOND + own.around(2 * MS);
  sink.emit(SHOP_PORTAL, at, portalLine(at, 'error', `order-desk does not answer, order ${id} not placed: connect timeout after 3000 ms`, trace, own.hex(16), { order: { number: id }, shop }), open, true); // prettier-ignore
  at += own.around(3 * MS);
  sink.emit(EDGE, at, edgeLine(at, { id: trace, method: 'POST', path: '/orders', status: 503, micros: at - start, bytes: 96, shop, client: client(own.whole(2, 250)) }), open, false, start); // prettier-ignore
}
