import { atEffect, collectionOf, newForce, setNumber, type Effect } from '../../document/index.ts';
import { effectOf } from '../effects.ts';

/** The least subset of the contract: one layer of sprites, born at a point by a steady rate, under three forces. */
export function leastEffect(seed: number): Effect {
  const effect = effectOf((layer) => {
    layer.source = { kind: 'point', place: atEffect([0.25, 1.5, -0.5]) };
    setNumber(layer, 'births.rate', 130);
    setNumber(layer, 'births.life', [0.7, 1.6]);
    layer.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
    layer.settings['motion.axis'].base = { kind: 'fixed', value: [0, 1, 0] };
    setNumber(layer, 'motion.opening', 0);
    setNumber(layer, 'motion.inherit', 0);
    setNumber(layer, 'motion.ride', 0);
    setNumber(layer, 'motion.speed', [0.5, 3]);
    const vortex = newForce('vortex', atEffect([0, 1, 0.1]));
    if (vortex.kind !== 'vortex') throw new Error('this is no vortex');
    vortex.settings.pull.base = { kind: 'fixed', value: 3 };
    vortex.settings.lift.base = { kind: 'fixed', value: 1.25 };
    vortex.settings.reach.base = { kind: 'fixed', value: 2.5 };
    layer.forces = collectionOf([
      ['fall', newForce('gravity')],
      ['slow', newForce('drag')],
      ['turn', vortex],
    ]);
  });
  effect.seed = seed;
  return effect;
}
