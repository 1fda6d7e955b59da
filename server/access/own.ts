import type { IncomingHttpHeaders } from 'node:http';
import { Refusal } from '../errors.ts';

/** Names this machine goes by to itself. */
const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];

/**
 * Refuses what does not come to Jinx by its own name, and changes that do not come from its own pages: so a page on another
 * origin, or a name that leads here by a trick, can read and change nothing.
 */
export function mustBeOwn(
  { host = '', origin }: Pick<IncomingHttpHeaders, 'host' | 'origin'>,
  isReading: boolean,
  names: readonly string[] = [],
): void {
  const name = host.replace(/:\d+$/, '').toLowerCase();
  if (!LOOPBACK.includes(name) && !names.includes(name))
    throw new Refusal(403, 'host', 'Jinx answers only to its own name: use localhost on this machine.');
  const isOwn = origin === `http://${host}` || origin === `https://${host}`;
  if (!isReading && origin !== undefined && !isOwn)
    throw new Refusal(403, 'origin', 'Changes are taken only from Jinx itself.');
}

/** The same as an answer, for what is no request yet. */
export function isOwnRequest(...request: Parameters<typeof mustBeOwn>): boolean {
  try {
    mustBeOwn(...request);
    return true;
  } catch (error) {
    if (error instanceof Refusal) return false;
    throw error;
  }
}
