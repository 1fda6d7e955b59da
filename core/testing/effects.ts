import {
  atBone,
  atEffect,
  burst,
  collectionOf,
  curveShaper,
  gradientShaper,
  inWorld,
  newEffect,
  newForce,
  newFront,
  newLayer,
  newThing,
  setNumber,
  type Effect,
  type Layer,
  type NumberSetting,
  type Thing,
} from '../document/index.ts';

export const TUBE = 'a'.repeat(64);

/** The bending tube on the stage, under the id "figure". */
export const onStage = (
  clip: string,
  path: Thing['path'] = { kind: 'spot' },
  asset = TUBE,
): Effect['stage']['things'] => collectionOf([['figure', { ...newThing('Figure', asset), clip, path }]]);

/** An effect of one layer that tests shape further. */
export function effectOf(shape: (layer: Layer, effect: Effect) => void): Effect {
  const effect = newEffect('test', 7);
  const layer = newLayer('motes', 1234);
  effect.layers = collectionOf([['motes', layer]]);
  shape(layer, effect);
  return effect;
}

/** Motes leave a bending tube and feel all five forces; some strengths vary from particle to particle. */
export function stormOnTube(seed = 7): Effect {
  const effect = effectOf((layer) => {
    layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
    setNumber(layer, 'births.rate', 1600);
    setNumber(layer, 'births.life', [1.2, 2.4]);
    setNumber(layer, 'motion.speed', [0.1, 0.6]);
    setNumber(layer, 'motion.opening', 40);
    setNumber(layer, 'motion.inherit', 30);
    setNumber(layer, 'motion.ride', 25);
    setNumber(layer, 'life.turning', [-90, 90]);
    const attraction = newForce('attraction', atBone('figure', 'high', [0.2, 0.8, 0]));
    const strength = (attraction.settings as { strength: NumberSetting }).strength;
    strength.base = { kind: 'spread', low: 2, high: 6 };
    strength.shapers = collectionOf([
      [
        'late',
        curveShaper([
          [0, 0],
          [0.4, 1],
          [1, 1.5],
        ]),
      ],
    ]);
    layer.forces = collectionOf([
      ['gravity', newForce('gravity')],
      ['drag', newForce('drag')],
      ['attraction', attraction],
      ['vortex', newForce('vortex', atEffect([0, 0, 0]))],
      ['curl', newForce('curl')],
    ]);
    layer.settings['life.colour'].shapers = collectionOf([
      [
        'heat',
        gradientShaper([
          [0, { hex: '#ff8040' }],
          [1, { hex: '#204010' }],
        ]),
      ],
    ]);
  });
  effect.seed = seed;
  effect.stage.things = onStage('sway', { kind: 'circle', radius: 3 });
  return effect;
}

/** A front climbs a tube of a metre that sways, to `most` metres in two seconds. */
export const climbed = (most: number): Effect =>
  effectOf((layer, effect) => {
    effect.stretches = { opening: 2, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
    effect.stage.things = onStage('sway');
    layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 9);
    layer.bursts = collectionOf([['all', burst('opening', 0, 2000)]]);
    const front = newFront('Border', 'plane', inWorld());
    front.settings.border.base = { kind: 'fixed', value: most };
    effect.fronts = collectionOf([['front', front]]);
    layer.front = 'front';
  });
