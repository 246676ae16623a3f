import type { Random } from '../writing/random.ts';
import { localText, offsetText, utcText, type Micros } from '../writing/times.ts';

export const EDGE = 'edge/access.log';
/** Reverse proxy: one line at the end of each request, key=value, UTC. */
export function edgeLine(
  end: Micros,
  request: { id: string; method: string; path: string; status: number; micros: number; bytes: number; shop?: string; client: string },
): string {
  const { id, method, path, status, micros, bytes, shop, client } = request;
  return `time=${utcText(end)}Z host=gate-1 client=${client} method=${method} path=${path} status=${status} request=${id} rt=${(micros / 1e6).toFixed(3)} bytes=${bytes}${shop ? ` shop=${shop}` : ''}`;
}

export const EDGE_STATIC = 'edge/static.log';
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
/** Pictures and styles of the catalogue: the combined format of web servers. */
export function staticLine(at: Micros, random: Random): string {
  const text = localText(at);
  const time = `${text.slice(8, 10)}/${MONTHS[Number(text.slice(5, 7)) - 1]!}/${text.slice(0, 4)}:${text.slice(11, 19)} ${offsetText(at, '')}`;
  const status = random.chance(0.02) ? 404 : random.chance(0.3) ? 304 : 200;
  const file = random.pick(['frames.css', 'lens.svg', 'shop.js', `frame-${random.whole(1000, 9999)}.jpg`]);
  return `198.51.100.${random.whole(2, 250)} - - [${time}] "GET /static/${file} HTTP/1.1" ${status} ${status === 304 ? 0 : random.whole(900, 90_000)} "https://portal.brillmoor.example/catalogue" "Shop/${random.whole(3, 5)}.${random.whole(0, 9)}"`;
}
