import { unmeasured, type Effect, type Id, type NumberSetting } from '@jinx/core/document';

type Base = NumberSetting['base'];

/** Measures that were changed already, by the draft in which: several numbers that share one change it once. */
const changedIn = new WeakMap<object, Set<Id>>();

/** Changes what a number begins with. Of one that is measured the measure is changed, and with it all that share it; a spread is its own. */
export function changeBase(draft: Effect, setting: NumberSetting, to: (base: Base) => Base): void {
  const { base } = setting;
  const measure = base.kind === 'measure' ? draft.measures.byId[base.measure] : undefined;
  if (base.kind !== 'measure' || !measure) {
    setting.base = to(base);
    return;
  }
  const done = changedIn.get(draft) ?? new Set<Id>();
  changedIn.set(draft, done);
  if (done.has(base.measure)) return;
  const next = to(unmeasured(base, draft));
  if (next.kind !== 'fixed') {
    setting.base = next;
    return;
  }
  done.add(base.measure);
  measure.value = next.value;
}
