import { localText, utcText, type Micros } from '../writing/times.ts';

export const DISPATCH = 'dispatch/dispatch.jsonl';
export const PARTNER_WIRE = 'dispatch/carrier-wire.log';
/** JSON lines, UTC. */
export const dispatchLine = (at: Micros, level: string, msg: string, more: Record<string, unknown>): string =>
  JSON.stringify({ time: utcText(at) + 'Z', level, app: 'dispatch', host: 'app-3', msg, ...more });

/** What went over the wire to a partner and back: HTTP with XML bodies over several lines. */
export function wireMessage(
  at: Micros,
  way: 'sent' | 'received',
  partner: string,
  start: string,
  headers: readonly string[],
  body: readonly string[],
): string {
  const content = body.join('\n');
  return [
    `${localText(at, ' ', ',')} INFO  wire ${partner} ${way}`,
    start,
    ...headers,
    'Content-Type: application/xml',
    `Content-Length: ${content.length}`,
    '',
    content,
  ].join('\n');
}
