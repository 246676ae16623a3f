import { localText, offsetText, type Micros } from '../writing/times.ts';

export const SHOP_PORTAL = 'shop-portal/portal.jsonl';
/** JSON lines, nested, local time with offset. */
export function portalLine(at: Micros, level: string, message: string, trace: string, span: string, more: Record<string, unknown>): string {
  return JSON.stringify({
    '@timestamp': localText(at, 'T') + offsetText(at),
    level,
    message,
    service: { name: 'shop-portal', host: 'app-1' },
    http: { traceparent: `00-${trace}-${span}-01` },
    ...more,
  });
}
