import type { Effect, Layer } from '@jinx/core/document';
import type { Hand } from '../hand.ts';

/** An effect of an ordinary day, made through the interface alone, from an empty one in a project with the kit. */
export interface Task {
  readonly id: string;
  readonly what: string;
  /** Actions that the first counting took, before the interface was worked over. */
  readonly before: number;
  readonly make: (hand: Hand) => Promise<void>;
  /** What the document must hold for the task to be done: each with whether it does. */
  readonly asked: (effect: Effect) => Readonly<Record<string, boolean>>;
}

/** What was asked for and is not there. */
export const missing = (task: Task, effect: Effect): string[] =>
  Object.entries(task.asked(effect)).flatMap(([what, isThere]) => (isThere ? [] : [what]));

export const layersOf = ({ layers }: Effect): Layer[] => layers.order.map((id) => layers.byId[id]!);

/** A setting of anything that has settings, by its name: a force, a surface, a step of a look, what a layer is drawn as. */
export const settingOf = (of: object | undefined, name: string): AnySetting | undefined =>
  (of as { readonly settings?: Readonly<Record<string, AnySetting>> } | undefined)?.settings?.[name];
interface AnySetting {
  readonly base: Base;
  readonly shapers: { readonly order: readonly string[] };
}

type Base = { readonly kind: string; readonly value?: unknown; readonly low?: unknown; readonly high?: unknown };
/** Whether a setting begins with a value, or with a spread between two. */
export function is(setting: { readonly base: unknown } | undefined, ...values: readonly unknown[]): boolean {
  const base = setting?.base as Base | undefined;
  const has = base?.kind === 'spread' ? [base.low, base.high] : [base?.value];
  return JSON.stringify(has.map(rounded)) === JSON.stringify(values.map(rounded));
}
const rounded = (value: unknown): unknown =>
  typeof value === 'number' ? Number(value.toPrecision(3)) : Array.isArray(value) ? value.map(rounded) : value;
/** Whether a number lies within a tenth of what was asked for. */
export const near = (value: unknown, asked: number): boolean =>
  typeof value === 'number' && Math.abs(value - asked) <= Math.abs(asked) * 0.1 + 1e-6;
export const isShaped = (setting: { readonly shapers: { readonly order: readonly string[] } } | undefined): boolean =>
  (setting?.shapers.order.length ?? 0) > 0;
/** The number with which a setting begins; of a spread none. */
export const numberOf = (setting: { readonly base: unknown } | undefined): number =>
  Number((setting?.base as Base | undefined)?.value);
/** The number with which a setting begins, by its measure where it has one. */
export function measured({ measures }: Effect, setting: { readonly base: unknown } | undefined): number {
  const base = setting?.base as (Base & { readonly measure?: string }) | undefined;
  return base?.kind === 'measure' ? (measures.byId[base.measure!]?.value ?? NaN) : Number(base?.value);
}
