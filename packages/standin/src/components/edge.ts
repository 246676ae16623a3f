import { utcText, type Micros } from '../writing/times.ts';

export const EDGE = 'edge/access.log';
/** Reverse proxy: one line at the end of each request, key=value, UTC. */
export function edgeLine(
  end: Micros,
  request: { id: string; method: string; path: string; status: number; micros: number; bytes: number; shop?: string; client: string },
): string {
  const { id, method, path, status, micros, bytes, shop, client } = request;
  return `time=${utcText(end)}Z host=gate-1 client=${client} method=${method} path=${path} status=${status} request=${id} rt=${(micros / 1e6).toFixed(3)} bytes=${bytes}${shop ? ` shop=${shop}` : ''}`;
}
