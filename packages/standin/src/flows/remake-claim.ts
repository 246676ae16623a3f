import { EDGE, edgeLine } from '../components/edge.ts';
import { calcLine, LENS_CALC } from '../components/lens-calc.ts';
import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { SHOP_PORTAL, portalLine } from '../components/shop-portal.ts';
import { silent } from '../writing/sink.ts';
import { MATERIALS, SHOPS, type World } from '../world.ts';
import { MS, type Micros } from '../writing/times.ts';
import { hop } from './lens-work.ts';
import type { Order } from './order.ts';

const REASONS = ['scratched', 'coating peels', 'wrong axis', 'edge chipped'];

/** A shop asks for a lens to be made again: the claim is registered, the surface is computed once more, and it is decided. */
export function remakeClaim(world: World, start: Micros, of: string): void {
  const { sink, numbers } = world;
  const id = numbers.nextClaim();
  const random = world.random.fork(`claim ${id}`);
  const trace = random.hex(32);
  const shop = random.pick(SHOPS);
  const refused = random.chance(0.1);
  const thread = `exec-${random.whole(1, 24)}`;
  const open = sink.open({
    flow: 'remake-claim',
    businessId: id,
    startedAt: start,
    story: null,
    outcome: refused ? 'refused' : 'done',
    identifiers: [
      { kind: 'claim', value: id },
      { kind: 'trace', value: trace },
    ],
    attributes: { shop },
    cause: refused ? { failedIn: 'order-desk', component: 'order-desk', record: null, accepted: [] } : null,
  });
  let at = start + random.around(3 * MS);
  const portal = (message: string): void =>
    sink.emit(SHOP_PORTAL, at, portalLine(at, 'info', message, trace, random.hex(16), { claim: { number: id }, shop }), open);
  const desk = (level: string, message: string, cause = false): void => sink.emit(ORDER_DESK, at, orderDeskLine(at, level, thread, 'o.b.Claims', message), open, cause); // prettier-ignore
  portal(`claim accepted ${id}`);
  at += random.around(12 * MS);
  desk('INFO', `registered ${id}, remake of ${of}, reason ${random.pick(REASONS)}, trace ${trace}`);
  at += random.around(9 * MS);
  const answered = at + random.around(4 * MS);
  sink.emit(EDGE, answered, edgeLine(answered, { id: trace, method: 'POST', path: '/claims', status: 202, micros: answered - start, bytes: 180, shop, client: `198.51.100.${random.whole(2, 250)}` }), open, false, start); // prettier-ignore
  at += random.around(30 * MS);
  if (refused) desk('WARN', `refused ${id}: the lens is older than two years`, true);
  else {
    const order: Order = { id, trace, shop, kind: 'standard', material: random.pick(MATERIALS), prism: 0, thread, open };
    const sent = hop({ ...world, random, stories: [] }, order, at, 'calc.request', 'lens-calc');
    const worker = `calc-${random.whole(1, 6)}`;
    at = sent.at + random.around(4 * MS);
    sink.emit(LENS_CALC, at, calcLine(at, 'INFO', worker, `message ${sent.message}: surface of ${id}, material ${order.material}`), open);
    const took = random.around(420 * MS, 0.5);
    at += took;
    sink.emit(LENS_CALC, at, calcLine(at, 'INFO', worker, `surface of ${id} computed, ${random.whole(38_000, 52_000)} points, took ${Math.round(took / MS)} ms`), open); // prettier-ignore
    at += random.around(20 * MS);
    desk('INFO', `${id} decided: remake granted`);
  }
  at += random.around(15 * MS);
  portal(`shop told: ${id} ${refused ? 'refused' : 'granted'}`);
  if (sink !== silent) sink.close(open);
}
