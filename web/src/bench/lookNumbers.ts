import { stepSettings, structuredCopy, type Effect, type Id, type NumberSetting } from '@jinx/core/document';

const stepOf = (of: string | undefined): Id | null => (of?.startsWith('step/') ? of.slice(5) : null);

/** Whether a number of a look differs in one layer from the look it uses; null where it has no such look. */
export function differsHere(effect: Effect, layerId: Id, of: string | undefined, name: string): boolean | null {
  const step = stepOf(of);
  const look = effect.layers.byId[layerId]?.look;
  return step === null || look?.kind !== 'named' ? null : look.changes[step]?.[name] !== undefined;
}

/** Lets a number of a look differ in one layer, beginning as it is, or be again as the look has it. */
export function setDiffering(
  draft: Effect,
  layerId: Id,
  of: string | undefined,
  name: string,
  differs: boolean,
): void {
  const step = stepOf(of);
  const look = draft.layers.byId[layerId]?.look;
  const looked = look?.kind === 'named' && step !== null ? draft.looks.byId[look.look]?.steps.byId[step] : null;
  if (look?.kind !== 'named' || step === null || !looked) return;
  if (differs) {
    look.changes[step] ??= {};
    look.changes[step][name] = structuredCopy(stepSettings(looked)[name]) as NumberSetting;
    return;
  }
  delete look.changes[step]?.[name];
  if (look.changes[step] && Object.keys(look.changes[step]).length === 0) delete look.changes[step];
}
