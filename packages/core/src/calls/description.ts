import { parse } from 'sdp-transform';

export type MediaDirection = 'sendrecv' | 'sendonly' | 'recvonly' | 'inactive';
/** One kind of media that a side offers or takes (RFC 8866). */
export interface Media {
  kind: string;
  /** Where it wants to be sent to. */
  address: string;
  /** 0 where it does not take it. */
  port: number;
  /** Names of codecs in order of preference, in upper case, without events and comfort noise. */
  codecs: string[];
  direction: MediaDirection;
}

/** Static payload types of audio and video (RFC 3551, section 6). */
const STATIC: Record<number, string> = { 0: 'PCMU', 3: 'GSM', 4: 'G723', 5: 'DVI4', 6: 'DVI4', 7: 'LPC', 8: 'PCMA', 9: 'G722', 10: 'L16', 11: 'L16', 12: 'QCELP', 13: 'CN', 14: 'MPA', 15: 'G728', 18: 'G729', 26: 'JPEG', 28: 'NV', 31: 'H261', 32: 'MPV', 33: 'MP2T', 34: 'H263' }; // prettier-ignore
/** They carry no speech. */
const NO_SPEECH = /^(?:TELEPHONE-EVENT|CN|RED|RTX|ULPFEC)$/;
const DIRECTIONS: readonly MediaDirection[] = ['sendrecv', 'sendonly', 'recvonly', 'inactive'];
const MOST_MEDIA = 16;

/** The media of a description of a session, also one among several parts of a body; empty where there is none. */
export function mediaOf(body: string): Media[] {
  const from = body.search(/^v=0\s*$/m);
  const media = from < 0 ? body.search(/^m=/m) : from;
  if (media < 0) return [];
  const session = parse(body.slice(media).slice(0, 20_000));
  return session.media.slice(0, MOST_MEDIA).map((one) => {
    const names = new Map(one.rtp.map(({ payload, codec }) => [Number(payload), String(codec).toUpperCase()]));
    const payloads = String(one.payloads ?? '').split(/\s+/).filter((payload) => /^\d+$/.test(payload)).map(Number); // prettier-ignore
    // a type that the sides agree on by name, and nobody names, is none that can be told
    const codecs = payloads.flatMap((payload) => names.get(payload) ?? STATIC[payload] ?? (payload < 96 ? `type ${payload}` : []));
    const direction = one.direction ?? session.direction;
    return {
      kind: String(one.type ?? ''),
      address: String(one.connection?.ip ?? session.connection?.ip ?? ''),
      port: Number(one.port) || 0,
      codecs: [...new Set(codecs)].filter((name) => !NO_SPEECH.test(name)),
      direction: DIRECTIONS.find((known) => known === direction) ?? 'sendrecv',
    };
  });
}

/** Whether an address is one of a network by itself: it is not reached from another one (RFC 1918, 4193, 6598; loopback and link-local). */
export function isPrivate(address: string): boolean {
  return /^(?:10\.|127\.|192\.168\.|172\.(?:1[6-9]|2\d|3[01])\.|169\.254\.|100\.(?:6[4-9]|[7-9]\d|1[01]\d|12[0-7])\.|f[cd][0-9a-f]{2}:|fe80:|::1$)/i.test(address); // prettier-ignore
}
/** Media that is held: nothing is wanted there (RFC 3264, section 8.4, and its older way). */
export const isHeld = ({ address, direction }: Media): boolean => direction === 'sendonly' || direction === 'inactive' || address === '0.0.0.0';
