import {
  defaultSettings,
  listed,
  settingsByName,
  type Declaration,
  type Id,
  type NumberSetting,
  type Setting,
} from '../settings/index.ts';
import { STEP_SETTINGS, type StepKind } from './declarations/index.ts';
import type { Effect, Layer, LayerLook, Step } from './schema/index.ts';

export const stepTable = (kind: StepKind): Record<string, Declaration> => STEP_SETTINGS[kind];
export const stepSettings = (step: Pick<Step, 'settings'>): Record<string, Setting> => settingsByName(step);

/** A step of a kind, as it is by default. */
export function newStep<K extends StepKind>(kind: K): Extract<Step, { kind: K }> {
  const rest =
    kind === 'picture' || kind === 'dissolve'
      ? { picture: null }
      : kind === 'gradient'
        ? {
            stops: {
              order: ['start', 'end'],
              byId: {
                start: { at: { anchor: 'share', value: 0 }, colour: { hex: '#ffffff' } },
                end: { at: { anchor: 'share', value: 1 }, colour: { hex: '#ff8a3c' } },
              },
            },
          }
        : {};
  return { kind, muted: false, least: 'low', settings: defaultSettings(STEP_SETTINGS[kind]), ...rest } as never;
}

/** Sets a choice, a switch or a fixed number of a step in place: for demo scripts, tests and ready-made looks. */
export function setStep(
  step: Step,
  name: string,
  value: string | number | boolean | readonly [number, number],
): void {
  const setting = stepSettings(step)[name];
  if (!setting) throw new Error(`a step of kind ${step.kind} has no setting "${name}"`);
  const base = Array.isArray(value) ? { kind: 'spread', low: value[0], high: value[1] } : { kind: 'fixed', value };
  setting.base = base as Setting['base'];
}

/** The look of a drawn shape: what a new layer has. */
export function drawnLook(shape: string): LayerLook {
  const step = newStep('drawn');
  setStep(step, 'shape', shape);
  return { kind: 'own', steps: { order: ['shape'], byId: { shape: step } } };
}

/** The one drawn shape that a layer's own look is, where it is nothing else: what a new layer has. */
export function plainShape({ look }: Pick<Layer, 'look'>): Extract<Step, { kind: 'drawn' }> | null {
  const [only, ...others] = look.kind === 'own' ? listed(look.steps) : [];
  return others.length === 0 && only?.item.kind === 'drawn' ? only.item : null;
}

/** A soft dot is for what stands by itself, a band for what runs along: gives a layer's own look the one that fits. */
export function fitLook(layer: Layer, isRibbon: boolean): void {
  const step = plainShape(layer);
  if (!step) return;
  const { base } = step.settings.shape;
  const [from, to] = isRibbon ? ['soft dot', 'band'] : ['band', 'soft dot'];
  if (base.value === from) base.value = to!;
}

/** The steps of a layer's look in order, with what the layer changes of a named one. */
export function stepsOf(effect: Pick<Effect, 'looks'>, { look }: Pick<Layer, 'look'>): { id: Id; item: Step }[] {
  if (look.kind === 'own') return listed(look.steps);
  const named = effect.looks.byId[look.look];
  if (!named) return [];
  return listed(named.steps).map(({ id, item }) => {
    const changes = look.changes[id];
    return changes ? { id, item: { ...item, settings: { ...item.settings, ...changes } } as Step } : { id, item };
  });
}

/** A step of a layer's look that may be written into: of the layer's own, or of the look it uses, which others see too. */
export function stepToChange(draft: Effect, layerId: Id, stepId: Id): Step | null {
  const look = draft.layers.byId[layerId]?.look;
  if (!look) return null;
  const steps = look.kind === 'own' ? look.steps : draft.looks.byId[look.look]?.steps;
  return steps?.byId[stepId] ?? null;
}

/** A number of a step with what the layer changes of it, if it does. */
export const changedNumber = (look: LayerLook, stepId: Id, name: string): NumberSetting | undefined =>
  look.kind === 'named' ? look.changes[stepId]?.[name] : undefined;
