import type Koa from 'koa';
import { Refusal } from '../errors.ts';
import type { Settings } from '../settings.ts';
import { networkOf } from './network.ts';

/** Behind a proxy, where connections do not tell who asks: limits the requests of one address that are under way. */
export function limitRequests({ isBehindProxy, connectionsPerAddress }: Settings): Koa.Middleware {
  const underWay = new Map<string, number>();
  return async (context, next) => {
    if (!isBehindProxy) return next();
    const network = networkOf(context.ip);
    const count = underWay.get(network) ?? 0;
    if (count >= connectionsPerAddress)
      throw new Refusal(
        429,
        'connections',
        'Too many requests of this address are under way: try again in a moment.',
        {
          seconds: 1,
        },
      );
    underWay.set(network, count + 1);
    try {
      await next();
    } finally {
      const left = underWay.get(network)! - 1;
      if (left > 0) underWay.set(network, left);
      else underWay.delete(network);
    }
  };
}
