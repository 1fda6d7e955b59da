import { deadSpans, presenceOf, sheetClock, type Presence, type Span } from '@jinx/core/checks';
import type { Effect } from '@jinx/core/document';
import type { EffectClock } from '@jinx/core/simulation';
import equal from 'fast-deep-equal';
import {
  computed,
  inject,
  onScopeDispose,
  provide,
  ref,
  shallowRef,
  watch,
  type ComputedRef,
  type InjectionKey,
  type Ref,
} from 'vue';

/** The time sheet as all rows share it. */
export interface TimeView {
  /** The effect as it is when let go after one turn of its hold. */
  readonly clock: ComputedRef<EffectClock>;
  /** Seconds that the sheet shows from its left end to its right. */
  readonly seconds: ComputedRef<number>;
  readonly presence: Readonly<Ref<ReadonlyMap<string, Presence>>>;
  /** Where nothing lives. */
  readonly dead: Readonly<Ref<readonly Span[]>>;
  /** Keeps the scale while a border is dragged, so that it stays under the pointer. */
  readonly keepScale: (isKept: boolean) => void;
}

const TIME_VIEW: InjectionKey<TimeView> = Symbol('time view');
export const STEP = 1 / 60;
/** Pixels within which what is dragged along the time sheet snaps. */
const SNAP = 5;

export function provideTimeView(effect: () => Effect): TimeView {
  const stretches = computed(() => effect().stretches);
  const clock = computed(() => sheetClock({ stretches: stretches.value }));
  const kept = ref<number | null>(null);
  const presence = shallowRef<ReadonlyMap<string, Presence>>(new Map());
  const dead = shallowRef<readonly Span[]>([]);
  /** What is as it was stays the same object, so that its row is not drawn anew. */
  function look(): void {
    const before = presence.value;
    const now = [...presenceOf(effect())].map(([id, own]) => {
      const known = before.get(id);
      return [id, known && isSame(known, own) ? known : own] as const;
    });
    presence.value = new Map(now);
    const spans = deadSpans(effect(), presence.value);
    if (!equal(spans, dead.value)) dead.value = spans;
  }
  look();
  let timer: ReturnType<typeof setTimeout> | undefined;
  // In a task of its own: it takes a few milliseconds, and the edit itself is to be drawn at once.
  watch(effect, () => {
    clearTimeout(timer);
    timer = setTimeout(look);
  });
  onScopeDispose(() => clearTimeout(timer));
  const view: TimeView = {
    clock,
    seconds: computed(() => Math.max(0.001, clock.value.length, kept.value ?? 0)),
    presence,
    dead,
    keepScale: (isKept) => (kept.value = isKept ? clock.value.length : null),
  };
  provide(TIME_VIEW, view);
  return view;
}

const isSame = (a: Presence, b: Presence): boolean =>
  (['born', 'alive', 'again'] as const).every((part) => a[part].every((cell, i) => cell === b[part][i]));

export const useTimeView = (): TimeView => inject(TIME_VIEW)!;

/** A time on the grid of steps; or one of `snaps` that is as near as a few pixels, each `perPixel` seconds wide. */
export function snappedTime(seconds: number, snaps: readonly number[], perPixel: number): number {
  const near = snaps.find((snap) => Math.abs(snap - seconds) <= SNAP * perPixel);
  return Number((near ?? Math.round(seconds / STEP) * STEP).toFixed(4));
}
