import type { Middleware } from 'koa';
import { DocumentError } from '@jinx/core/document';
import { FormatError } from '@jinx/core/formats';
import type { Logger } from 'pino';
import { isUnreachable } from './database.ts';

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
      const say = (status: number, body: Record<string, unknown>) => {
        if (typeof body['seconds'] === 'number') context.set('Retry-After', String(body['seconds']));
        context.status = status;
        context.body = body;
      };
      if (error instanceof Refusal)
        return say(error.status, { code: error.code, sentence: error.message, ...error.more });
      if (error instanceof DocumentError)
        return say(422, { code: error.code, sentence: error.message, path: error.path });
      if (error instanceof FormatError) return say(422, { code: error.code, sentence: error.message });
      log.error(forLog(error), 'a request failed');
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
