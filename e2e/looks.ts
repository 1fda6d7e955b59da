import {
  collectionOf,
  newStep,
  setStep,
  type Effect,
  type Layer,
  type Step,
  type StepKind,
} from '@jinx/core/document';
import { one as blank } from './oneLayer.ts';

/** One standing sprite of a metre in the middle; it shows light as it is: no bloom. */
export const one = (change: (layer: Layer, effect: Effect) => void = () => undefined): Effect =>
  blank((layer, effect) => {
    layer.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#b0602a' } };
    layer.look = disc();
    change(layer, effect);
  });
export type Values = Record<string, string | number | boolean | readonly [number, number]>;
export const step = (kind: StepKind, values: Values = {}): Step => {
  const made = newStep(kind);
  for (const [name, value] of Object.entries(values)) setStep(made, name, value);
  return made;
};
export const look = (...steps: Step[]): Layer['look'] => ({
  kind: 'own',
  steps: collectionOf(steps.map((made, n) => [`s${n}`, made])),
});
export const hard = () => step('drawn', { shape: 'disc', softness: 0 });
export const disc = () => look(hard());
/** A straight line over age. */
export const overAge = (from: readonly [number, number], to: readonly [number, number]) => ({
  reads: { kind: 'age' } as const,
  mapping: {
    kind: 'curve' as const,
    curve: {
      keys: collectionOf(
        [from, to].map(([x, value], n): [string, never] => {
          const slope = (to[1] - from[1]) / (to[0] - from[0]);
          return [`k${n}`, { at: { anchor: 'share', value: x }, value, slopeIn: slope, slopeOut: slope } as never];
        }),
      ),
    },
  },
  combine: 'multiply' as const,
  amount: 1,
  muted: false,
});
