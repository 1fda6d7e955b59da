import * as z from '../../zod/index.ts';
import { ref, type RefRule } from '../../settings/index.ts';

/** Births at one instant: `count` to `most` of them, `at` seconds after the start of a stretch, or after a signal; and again if wanted. */
export const burstSchema = z.strictObject({
  /** Which signal it waits for; then its stretch says nothing. */
  signal: ref('signals', { whenGone: 'value' }).nullable(),
  stretch: z.enum(['opening', 'hold', 'closing']),
  at: z.number().min(0).max(3600),
  count: z.number().int().min(0).max(1_000_000),
  most: z.number().int().min(0).max(1_000_000),
  times: z.number().int().min(1).max(1000),
  /** Seconds from one time to the next. */
  every: z.number().min(0.01).max(600),
  muted: z.boolean(),
});
export type Burst = z.infer<typeof burstSchema>;

/** A moment of the effect's time: so many seconds, or a measure, after a border of its stretches or an event of a layer. */
const momentOf = (use: string, whenGone: RefRule['whenGone']) =>
  z.strictObject({
    after: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('border'), border: z.enum(['start', 'hold', 'letGo', 'end']) }),
      z.strictObject({
        kind: z.literal('layer'),
        layer: ref('layers', { whenGone, lost: 'on which births hung' }),
        event: z.enum(['firstBirth', 'lastBirth', 'lastDeath']),
      }),
    ]),
    seconds: z.number().min(-3600).max(3600),
    measure: ref('measures', { whenGone: 'value', use }).nullable(),
  });
export const beginning = momentOf('when births begin', () => ({ kind: 'border', border: 'start' }));
export const ending = momentOf('when births end', 'null');
export type Moment = z.infer<typeof beginning>;
