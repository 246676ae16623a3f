import { wireMessage } from '../components/dispatch.ts';
import { FRAME_GATE, FRAME_PARTNER } from '../components/frame-gate.ts';
import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { MS, type Micros } from '../writing/times.ts';
import type { World } from '../world.ts';
import type { Order } from './lens-order-faults.ts';

/** An order with a frame: the supplier is asked for it. Returns when the answer is there. */
export function askForFrame({ random, sink }: World, order: Order, from: Micros): Micros {
  const { open, id } = order;
  const model = `FR-${random.whole(1000, 9999)}`;
  let at = from + random.around(6 * MS);
  sink.emit(ORDER_DESK, at, orderDeskLine(at, 'INFO', order.thread, 'o.b.FrameStep', `frame ${model} for ${id} asked of its supplier`), open);
  at += random.around(4 * MS);
  sink.emit(
    FRAME_GATE,
    at,
    wireMessage(at, 'sent', FRAME_PARTNER, 'POST /orders/frames HTTP/1.1', [`Host: ${FRAME_PARTNER}`, `X-Request-Id: ${order.trace}`], ['<FrameOrder>', `  <Reference>${id}</Reference>`, `  <Model>${model}</Model>`, '</FrameOrder>']),
    open,
  ); // prettier-ignore
  at += random.around(180 * MS, 0.5);
  sink.emit(
    FRAME_GATE,
    at,
    wireMessage(at, 'received', FRAME_PARTNER, 'HTTP/1.1 200 OK', [`X-Request-Id: ${order.trace}`], ['<FrameAnswer>', `  <Reference>${id}</Reference>`, `  <Delivery days="${random.whole(1, 4)}"/>`, '</FrameAnswer>']),
    open,
  ); // prettier-ignore
  at += random.around(3 * MS);
  sink.emit(ORDER_DESK, at, orderDeskLine(at, 'INFO', order.thread, 'o.b.FrameStep', `frame ${model} for ${id} confirmed`), open);
  return at;
}
