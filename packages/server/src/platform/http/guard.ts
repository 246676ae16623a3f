import type { RequestHandler } from 'express';
import { Refusal } from './problems.ts';

const LOOPBACK = new Set(['localhost', '127.0.0.1', '[::1]']);

/**
 * Refuses requests that a foreign web page could make: a Host that is not ours (a name that was pointed at this machine),
 * and changes whose Origin is another one, or that a browser says to come from elsewhere. Programs send neither and pass.
 *
 * @param hosts names besides loopback under which the server may be reached
 */
export function sameOriginOnly(hosts: readonly string[]): RequestHandler {
  const allowed = new Set([...LOOPBACK, ...hosts.map((host) => host.toLowerCase())]);
  const nameOf = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');
  return (request, _response, next) => {
    const host = request.headers.host ?? '';
    if (!allowed.has(nameOf(host)))
      throw new Refusal(
        421,
        'Not for this host',
        `“${host.slice(0, 100)}” is not a name of this server.`,
        'Open it by the address that it printed when it started.',
      );
    const { origin } = request.headers;
    const safe = request.method === 'GET' || request.method === 'HEAD';
    if (!safe && origin !== undefined) {
      // “null” and the like have no host: foreign
      const originHost = URL.canParse(origin) ? new URL(origin).host : '';
      if (originHost.toLowerCase() !== host.toLowerCase())
        throw new Refusal(403, 'Foreign origin', 'Another web page tried to change something here.', 'Use the application’s own page.');
    }
    // a browser tells from where a request comes also where it sends no origin
    const site = request.headers['sec-fetch-site'];
    if (!safe && site !== undefined && site !== 'same-origin' && site !== 'none')
      throw new Refusal(403, 'Foreign origin', 'Another web page tried to change something here.', 'Use the application’s own page.');
    next();
  };
}
