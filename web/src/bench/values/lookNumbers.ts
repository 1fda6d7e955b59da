import {
  stepSettings,
  structuredCopy,
  type Effect,
  type HolderAddress,
  type NumberSetting,
  type PartOf,
} from '@jinx/core/document';

type StepAddress = PartOf<'step'>;

/** Whether a number of a step differs in its layer from the look that the layer uses; null where it uses none. */
export function differsHere(effect: Effect, of: HolderAddress, name: string): boolean | null {
  if (of.kind !== 'step') return null;
  const look = effect.layers.byId[of.layer]?.look;
  return look?.kind === 'named' ? look.changes[of.id]?.[name] !== undefined : null;
}

/** Lets a number of a look differ in one layer, beginning as it is, or be again as the look has it. */
export function setDiffering(draft: Effect, { layer, id }: StepAddress, name: string, differs: boolean): void {
  const look = draft.layers.byId[layer]?.look;
  const step = look?.kind === 'named' ? draft.looks.byId[look.look]?.steps.byId[id] : null;
  if (look?.kind !== 'named' || !step) return;
  if (differs) {
    look.changes[id] ??= {};
    look.changes[id][name] = structuredCopy(stepSettings(step)[name]) as NumberSetting;
    return;
  }
  delete look.changes[id]?.[name];
  if (look.changes[id] && Object.keys(look.changes[id]).length === 0) delete look.changes[id];
}
