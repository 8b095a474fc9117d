import { AppError } from './app-error';

const LOCAL = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/**
 * Lets a request through only when it was addressed to this machine by name or number, and, if a page sent it, by a page
 * of this server: no other site can reach it, nor a name that was made to point here. Throws 403.
 */
export function guardRequest(headers: Headers): void {
  const host = headers.get('host') ?? '';
  if (!LOCAL.test(host)) throw new AppError(403, 'bad-host', 'Sundew answers only on this machine.');
  const origin = headers.get('origin');
  if (origin !== null && origin !== `http://${host}`) {
    throw new AppError(403, 'bad-origin', 'Sundew answers only its own pages.');
  }
  const site = headers.get('sec-fetch-site');
  if (site === 'cross-site' || site === 'same-site') {
    throw new AppError(403, 'bad-origin', 'Sundew answers only its own pages.');
  }
}
