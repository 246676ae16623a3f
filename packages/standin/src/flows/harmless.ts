import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { MS, type Micros } from '../writing/times.ts';
import type { World } from '../world.ts';
import type { Order } from './order.ts';

/** Errors that are loud and do no harm: good orders have them as often as others. */
export function harmless({ random, sink }: World, order: Order, from: Micros): void {
  const own = random.fork(`harmless ${order.id}`);
  if (!own.chance(0.04)) return;
  const at = from + own.around(2 * MS);
  sink.emit(
    ORDER_DESK,
    at,
    orderDeskLine(at, 'ERROR', order.thread, 'o.b.Statistics', `statistics of ${order.id} not sent: collector is away`),
    order.open,
  );
}
