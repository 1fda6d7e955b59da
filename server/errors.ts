import type { Middleware } from 'koa';
import { DocumentError } from '@jinx/core/document';
import { FormatError } from '@jinx/core/formats';
import type { Logger } from 'pino';
import { isUnreachable, OutcomeUnknown } from './database.ts';

/** An answer that is not what was asked for: a status, a code for programs and a sentence for people. */
export class Refusal extends Error {
  readonly status: number;
  readonly code: string;
  readonly more: Record<string, unknown>;
  constructor(status: number, code: string, sentence: string, more: Record<string, unknown> = {}) {
    super(sentence);
    this.status = status;
    this.code = code;
    this.more = more;
  }
}

/**
 * What PostgreSQL refuses of what was sent, by the code of its error; the rest is a fault of ours. Routes check what is sent
 * before; this is behind them.
 */
const REFUSED_BY_DATABASE: Readonly<Record<string, () => Refusal>> = {
  '22021': () => new Refusal(400, 'letters', 'A text that was sent has characters that cannot be kept.'),
  '22P05': () => new Refusal(400, 'letters', 'A text that was sent has characters that cannot be kept.'),
  '22003': () => new Refusal(400, 'number', 'A number that was sent is larger than any that is kept.'),
  '22001': () => new Refusal(400, 'long', 'A text that was sent is longer than may be kept.'),
  '23505': () => new Refusal(409, 'known', 'Something else has the id that was sent: send it with another.'),
  '53100': () => new Refusal(507, 'disk', 'The disk of the server is full: make room on it. Nothing was changed.'),
  '57014': () => new Refusal(503, 'slow', 'This took the database too long: try again in a moment.', { seconds: 5 }),
};

export const refusalByDatabase = (error: unknown): Refusal | null =>
  Object.hasOwn(REFUSED_BY_DATABASE, String((error as { code?: unknown }).code))
    ? REFUSED_BY_DATABASE[(error as { code: string }).code]!()
    : null;

export const notFound = (what: string): Refusal =>
  new Refusal(404, 'not-found', `There is no such ${what}: it may have been deleted.`);

/** What of an error goes into the log: what PostgreSQL tells of rows stays out of it. */
export function forLog(error: unknown): Record<string, unknown> {
  const { name, code, stack, routine } = error as Partial<Record<string, string>>;
  const frames = stack?.split('\n').filter((line) => line.startsWith('    at '));
  return { name, code, routine, stack: frames?.join('\n') };
}

/** The one place where errors become answers. */
export const answerErrors =
  (log: Logger): Middleware =>
  async (context, next) => {
    try {
      await next();
    } catch (error) {
      // Who asked has gone, or has a part of the answer already: there is nobody to tell.
      if (context.headerSent || context.req.socket.destroyed)
        return log.info(forLog(error), 'an answer was not heard out');
      const say = (status: number, body: Record<string, unknown>) => {
        if (typeof body['seconds'] === 'number') context.set('Retry-After', String(body['seconds']));
        context.status = status;
        context.body = body;
      };
      const refusal = error instanceof Refusal ? error : refusalByDatabase(error);
      if (refusal) {
        if (refusal.status >= 500) log.warn({ code: refusal.code, cause: forLog(error) }, 'a request was put off');
        return say(refusal.status, { code: refusal.code, sentence: refusal.message, ...refusal.more });
      }
      if (error instanceof DocumentError)
        return say(422, { code: error.code, sentence: error.message, path: error.path });
      if (error instanceof FormatError) return say(422, { code: error.code, sentence: error.message });
      log.error(forLog(error), 'a request failed');
      if (error instanceof OutcomeUnknown)
        return say(503, {
          code: 'outcome.unknown',
          sentence:
            'The database went away while this was written down, so it may be kept or not: send the same again.',
          seconds: 3,
        });
      if (isUnreachable(error))
        return say(503, {
          code: 'database',
          sentence: 'The database does not answer: run ./jinx start again. Nothing was changed.',
        });
      return say(500, {
        code: 'server',
        sentence: 'The server failed at this; its log says why. Nothing was changed.',
      });
    }
  };
