import type { RequestHandler } from 'express';
import { HttpRefusal } from './http-refusal.ts';
import { isOwnHost, isOwnOrigin } from './loopback.ts';

/**
 * Answers only to this machine and those that reach it by a name it knows, and of web pages only to Suvok's own. A
 * browser says where a request comes from (Fetch-Metadata); a link to a page
 * of Suvok may be opened from anywhere, and nothing else may be asked for from
 * another site, reading neither. What sends no such words is held against Host and Origin.
 */
export const fromOwnPages =
  (outside: readonly string[]): RequestHandler =>
  (request, _response, next) => {
    const { headers, method } = request;
    const reads = method === 'GET' || method === 'HEAD';
    if (!(reads ? isOwnHost(request, outside) : isOwnOrigin(request, outside)))
      throw new HttpRefusal(403, 'Suvok answers only under its own names; open it by one of them.');
    const site = headers['sec-fetch-site'];
    if (site === undefined || site === 'same-origin' || site === 'none') return next();
    const opensPage = reads && headers['sec-fetch-mode'] === 'navigate' && headers['sec-fetch-dest'] === 'document';
    if (opensPage && !request.path.startsWith('/api/')) return next();
    throw new HttpRefusal(403, 'A page of another site asked for this. Open Suvok by its own address.');
  };
