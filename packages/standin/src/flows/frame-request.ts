import { wireMessage } from '../components/dispatch.ts';
import { FRAME_GATE, FRAME_PARTNER } from '../components/frame-gate.ts';
import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { asked } from '../stories/story.ts';
import { silent } from '../writing/sink.ts';
import { MS, type Micros } from '../writing/times.ts';
import { SHOPS, type World } from '../world.ts';
import type { NoShape } from './lens-work.ts';
import { became, type Order } from './order.ts';

/** The order desk compares each frame of a catalogue with each other one: so long a pair, in microseconds. */
const A_PAIR = 5;
const framesOf = (shop: string): number => 40 + ((SHOPS.indexOf(shop) * 29) % 90);

/** An order with a frame: it is looked for in the shop's catalogue, and its supplier is asked for it. Returns when that is done, and whether its shape is missing. */
export function askForFrame({ random, sink, stories }: World, order: Order, from: Micros): { at: Micros; noShape: NoShape } {
  const { open, id, shop } = order;
  const own = random.fork(`frame ${id}`);
  const model = `FR-${random.whole(1000, 1119)}`;
  let at = from + random.around(6 * MS);
  const say = (message: string, cause = false): void => sink.emit(ORDER_DESK, at, orderDeskLine(at, 'INFO', order.thread, 'o.b.FrameStep', message), open, cause); // prettier-ignore
  const walked = asked(stories, (story) => story.catalogue?.(from, shop));
  const frames = walked?.answer ?? framesOf(shop);
  at += own.around(frames * frames * A_PAIR, 0.1);
  say(`frame ${model} found in the catalogue of shop ${shop}, ${frames} frames`, walked !== null);
  if (walked && sink !== silent) became(open, 'slow', walked.story, { failedIn: 'order-desk', component: 'order-desk', accepted: [] });
  at += own.around(3 * MS);
  say(`frame ${model} for ${id} asked of its supplier`);
  at += random.around(4 * MS);
  const wire = (way: 'sent' | 'received', start: string, headers: string[], body: string[], cause = false): void =>
    sink.emit(FRAME_GATE, at, wireMessage(at, way, FRAME_PARTNER, start, [...headers, `X-Request-Id: ${order.trace}`], body), open, cause);
  wire('sent', 'POST /orders/frames HTTP/1.1', [`Host: ${FRAME_PARTNER}`], ['<FrameOrder>', `  <Reference>${id}</Reference>`, `  <Model>${model}</Model>`, '</FrameOrder>']); // prettier-ignore
  at += random.around(180 * MS, 0.5);
  const refused = asked(stories, (story) => story.frame?.(from, own.next()));
  const days = random.whole(1, 4);
  const answer = refused
    ? ['  <Status code="F-204">model withdrawn</Status>']
    : ['  <Status code="F-000">ordered</Status>', `  <Delivery days="${days}"/>`];
  wire('received', 'HTTP/1.1 200 OK', [], ['<FrameAnswer>', `  <Reference>${id}</Reference>`, ...answer, '</FrameAnswer>'], refused !== null);
  at += random.around(3 * MS);
  say(`frame ${model} for ${id} confirmed`);
  return { at, noShape: refused && sink !== silent ? { story: refused.story, model } : null };
}
