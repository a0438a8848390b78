import type { IncomingMessage } from 'node:http';
import type { TLSSocket } from 'node:tls';
import { loopbackHosts } from '../recorder/outside/outside-place.ts';

type Asked = Pick<IncomingMessage, 'headers' | 'socket'>;

function hostOf(authority: string): string {
  return authority
    .replace(/:\d+$/, '')
    .replace(/^\[(.*)\]$/, '$1')
    .toLowerCase();
}

/** Whether a request came over TLS, as those from other machines do. */
export const fromOutside = ({ socket }: Pick<IncomingMessage, 'socket'>): boolean =>
  (socket as TLSSocket).encrypted === true;

/**
 * True for a request that names this machine as it was reached; another name means that a web page elsewhere sent it here.
 * @param outside names that others reach it by
 */
export function isOwnHost(request: Asked, outside: readonly string[]): boolean {
  const { host } = request.headers;
  if (typeof host !== 'string') return false;
  return (fromOutside(request) ? outside : loopbackHosts).includes(hostOf(host));
}

/** True for a request from a page of this server, or from no page at all. */
export function isOwnOrigin(request: Asked, outside: readonly string[]): boolean {
  if (!isOwnHost(request, outside)) return false;
  const { origin, host } = request.headers;
  if (origin === undefined) return true;
  return typeof origin === 'string' && origin.replace(/^https?:\/\//, '') === host;
}
