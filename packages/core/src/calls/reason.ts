import { header } from './headers.ts';
import type { SipMessage } from './message.ts';

/** Why a call ended, as Reason (RFC 3326) or Warning (RFC 3261, section 20.43) tell it. */
export interface Reason {
  /** `Q.850`, `SIP`, or `Warning`. */
  protocol: string;
  code: number | null;
  text: string;
}

/** null where a message tells none. */
export function reasonOf(message: SipMessage | null): Reason | null {
  if (!message) return null;
  const reason = header(message.headers, 'reason');
  if (reason !== null) {
    const protocol = /^\s*([^\s;,]{1,40})/.exec(reason)?.[1] ?? '';
    const code = /;\s*cause\s*=\s*(\d{1,4})/i.exec(reason)?.[1];
    const text = /;\s*text\s*=\s*(?:"((?:[^"\\]|\\.)*)"|([^;,]*))/i.exec(reason);
    if (protocol !== '')
      return { protocol, code: code === undefined ? null : Number(code), text: (text?.[1] ?? text?.[2] ?? '').trim().slice(0, 200) };
  }
  const warning = /^(\d{3})\s+\S+\s+"((?:[^"\\]|\\.)*)"/.exec(header(message.headers, 'warning') ?? '');
  return warning ? { protocol: 'Warning', code: Number(warning[1]), text: warning[2]!.slice(0, 200) } : null;
}
