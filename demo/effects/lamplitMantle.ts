import {
  atBone,
  atThing,
  collectionOf,
  curveShaper,
  drawnLook,
  gradientShaper,
  newDrawn,
  newEffect,
  newForce,
  newLayer,
  newStep,
  newThing,
  setNumber,
  setStep,
  type Colour,
  type Effect,
  type Force,
  type Layer,
  type NumberSetting,
  type Shaper,
  type Step,
  derivedColour,
  namedColour,
  settingsByName,
} from '@jinx/core/document';
import { darkWater, shimmer } from './build.ts';

const LAMP: Colour = { palette: 'lamp' };
const EMBER: Colour = { palette: 'ember' };
const MARSH: Colour = { palette: 'marsh' };

const SEDGE = 'sedge';

/** The lamp hovers over the left shoulder, carried by the chest. */
const OVER_SHOULDER = atBone(SEDGE, 'chest', [0.36, 0.46, -0.1]);

function shaped(
  layer: Layer,
  name: 'life.size' | 'life.opacity' | 'life.intensity',
  points: readonly (readonly [number, number])[],
): void {
  layer.settings[name].shapers = collectionOf([['age', curveShaper(points)]]);
}

function coloured(layer: Layer, stops: readonly (readonly [number, Colour])[]): void {
  layer.settings['life.colour'].shapers = collectionOf([['age', gradientShaper(stops)]]);
}

function strength(force: Force, value: number | readonly [number, number], shaper?: Shaper, name = 'strength'): void {
  const setting = settingsByName<NumberSetting>(force)[name]!;
  setting.base =
    typeof value === 'number' ? { kind: 'fixed', value } : { kind: 'spread', low: value[0], high: value[1] };
  if (shaper) setting.shapers = collectionOf([['age', shaper]]);
}

function motes(): Layer {
  const layer = newLayer('Motes', 0x6d07e5);
  layer.source = {
    kind: 'mesh',
    thing: SEDGE,
    bones: [
      'chest',
      'spine',
      'shoulder.left',
      'shoulder.right',
      'upper arm.left',
      'upper arm.right',
      'forearm.left',
      'forearm.right',
      'hand.left',
    ],
  };
  setNumber(layer, 'births.rate', 900);
  setNumber(layer, 'births.life', [1.2, 2.2]);
  setNumber(layer, 'births.cap', 4000);
  layer.settings['motion.launch'].base = { kind: 'fixed', value: 'normal' };
  setNumber(layer, 'motion.speed', [0.05, 0.32]);
  setNumber(layer, 'motion.opening', 25);
  setNumber(layer, 'motion.ride', 55);
  const drawn = newForce('attraction', OVER_SHOULDER);
  strength(
    drawn,
    [3, 4.6],
    curveShaper([
      [0, 0.02],
      [0.2, 0.4],
      [0.55, 2.2],
      [0.8, 5],
      [1, 8],
    ]),
  );
  const turned = newForce('vortex', OVER_SHOULDER);
  strength(
    turned,
    [2.6, 4.2],
    curveShaper([
      [0, 0.3],
      [0.4, 1],
      [0.75, 1],
      [1, 0.1],
    ]),
  );
  strength(turned, 1.6, undefined, 'reach');
  strength(turned, 0.3, undefined, 'lift');
  const stirred = newForce('curl');
  strength(
    stirred,
    1.5,
    curveShaper([
      [0, 1.3],
      [0.6, 0.8],
      [1, 0.2],
    ]),
  );
  strength(stirred, 0.34, undefined, 'size');
  strength(stirred, 0.6, undefined, 'change');
  const slowed = newForce('drag');
  strength(slowed, 2.6);
  const lifted = newForce('gravity');
  strength(lifted, -0.25);
  layer.forces = collectionOf([
    ['drawn', drawn],
    ['turned', turned],
    ['stirred', stirred],
    ['slowed', slowed],
    ['lifted', lifted],
  ]);
  setNumber(layer, 'life.size', [0.01, 0.036]);
  shaped(layer, 'life.size', [
    [0, 0.5],
    [0.2, 1],
    [0.7, 0.8],
    [1, 0.25],
  ]);
  shaped(layer, 'life.opacity', [
    [0, 0],
    [0.12, 1],
    [0.75, 0.9],
    [1, 0],
  ]);
  setNumber(layer, 'life.intensity', [1.4, 3.2]);
  coloured(layer, [
    [0, EMBER],
    [0.45, { hex: '#ffc765' }],
    [0.8, LAMP],
    [1, LAMP],
  ]);
  return layer;
}

/** The same motes again, each with a wide faint glow: together they light the air they stream through. */
function haloes(): Layer {
  const layer = newLayer('Mote haloes', 0x6d07e6);
  layer.population = { kind: 'follows', layer: 'motes' };
  setNumber(layer, 'life.size', 0.17);
  setNumber(layer, 'life.opacity', 3.5);
  shaped(layer, 'life.opacity', [
    [0, 0],
    [0.2, 1],
    [0.8, 0.8],
    [1, 0],
  ]);
  coloured(layer, [
    [0, EMBER],
    [0.7, LAMP],
    [1, LAMP],
  ]);
  return layer;
}

/** Slow sparks that stay behind in the air where the body has been. */
function embers(): Layer {
  const layer = newLayer('Embers', 0x3be7a1);
  layer.source = {
    kind: 'mesh',
    thing: SEDGE,
    bones: ['hand.left', 'hand.right', 'forearm.left', 'forearm.right', 'chest'],
  };
  setNumber(layer, 'births.rate', 70);
  setNumber(layer, 'births.life', [1.2, 2.6]);
  setNumber(layer, 'motion.speed', [0.05, 0.2]);
  const stirred = newForce('curl');
  strength(stirred, 0.9);
  strength(stirred, 0.6, undefined, 'size');
  const lifted = newForce('gravity');
  strength(lifted, -0.22);
  const slowed = newForce('drag');
  strength(slowed, 1.2);
  layer.forces = collectionOf([
    ['stirred', stirred],
    ['lifted', lifted],
    ['slowed', slowed],
  ]);
  setNumber(layer, 'life.size', [0.008, 0.018]);
  shaped(layer, 'life.opacity', [
    [0, 0],
    [0.15, 1],
    [0.5, 0.5],
    [0.62, 1],
    [1, 0],
  ]);
  setNumber(layer, 'life.intensity', 2.6);
  coloured(layer, [
    [0, EMBER],
    [0.6, { hex: '#ff8a3c' }],
    [1, { hex: '#8a2f14' }],
  ]);
  return layer;
}

function lamp(
  name: string,
  salt: number,
  size: number,
  shape: string,
  intensity: number,
  opacity: number,
  turning: number,
): Layer {
  const layer = newLayer(name, salt);
  layer.source = { kind: 'point', place: OVER_SHOULDER };
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
  setNumber(layer, 'motion.speed', 0);
  setNumber(layer, 'motion.ride', 100);
  setNumber(layer, 'life.size', size);
  setNumber(layer, 'life.intensity', intensity);
  setNumber(layer, 'life.opacity', opacity);
  setNumber(layer, 'life.turning', turning);
  shaped(layer, 'life.size', [
    [0, 0.2],
    [0.14, 1],
    [0.8, 1],
    [1, 0.4],
  ]);
  shaped(layer, 'life.opacity', [
    [0, 0],
    [0.14, 1],
    [0.8, 1],
    [1, 0],
  ]);
  layer.settings['life.colour'].base = { kind: 'fixed', value: LAMP };
  layer.look = drawnLook(shape);
  return layer;
}

/** A faint second skin with a bright rim, that breathes. */
function secondSkin(): Layer {
  const layer = newLayer('Second skin', 0x5e2d01);
  layer.drawn = newDrawn('body', SEDGE);
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
  setNumber(layer, 'life.opacity', 85);
  shaped(layer, 'life.opacity', [
    [0, 0],
    [0.14, 1],
    [0.8, 1],
    [1, 0],
  ]);
  const rim = newStep('rim');
  setStep(rim, 'does', 'shows the rim only');
  setStep(rim, 'sharpness', 2.6);
  setStep(rim, 'intensity', 1.1);
  const flow = newStep('scroll');
  setStep(flow, 'along', 0.16);
  setStep(flow, 'repeatAlong', 2);
  const clouds = newStep('drawn');
  setStep(clouds, 'shape', 'clouds');
  setStep(clouds, 'grains', 7);
  setStep(clouds, 'softness', 90);
  setStep(clouds, 'amount', 65);
  layer.look = {
    kind: 'own',
    steps: collectionOf<Step>([
      ['rim', rim],
      ['flow', flow],
      ['clouds', clouds],
    ]),
  };
  layer.settings['life.colour'].base = { kind: 'fixed', value: LAMP };
  return layer;
}

/** What the lamp lights. */
function lampLight(): Layer {
  const layer = newLayer('Lamplight', 0x1a3f03);
  layer.source = { kind: 'point', place: OVER_SHOULDER };
  layer.drawn = newDrawn('light');
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
  setNumber(layer, 'motion.ride', 100);
  setNumber(layer, 'life.intensity', 2);
  shaped(layer, 'life.intensity', [
    [0, 0],
    [0.14, 1],
    [0.8, 1],
    [1, 0],
  ]);
  layer.settings['life.opacity'].shapers = collectionOf([]);
  layer.settings['life.colour'].base = { kind: 'fixed', value: LAMP };
  return layer;
}

function ripples(side: 'left' | 'right', salt: number): Layer {
  const layer = newLayer(`Ripples, ${side} foot`, salt);
  layer.source = { kind: 'point', place: atBone(SEDGE, `foot.${side}`, [0, 0, 0.06]) };
  layer.settings['source.ground'].base = { kind: 'fixed', value: true };
  setNumber(layer, 'source.below', 0.118);
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.perMetre', 16);
  setNumber(layer, 'births.life', [1.1, 1.7]);
  setNumber(layer, 'motion.speed', 0);
  setNumber(layer, 'life.size', [0.75, 1.15]);
  shaped(layer, 'life.size', [
    [0, 0.1],
    [0.4, 0.68],
    [1, 1],
  ]);
  setNumber(layer, 'life.opacity', 42);
  shaped(layer, 'life.opacity', [
    [0, 0],
    [0.08, 1],
    [0.4, 0.45],
    [1, 0],
  ]);
  coloured(layer, [
    [0, LAMP],
    [0.4, MARSH],
    [1, MARSH],
  ]);
  layer.settings['appearance.facing'].base = { kind: 'fixed', value: 'ground' };
  layer.look = drawnLook('ring');
  return layer;
}

/** Lamplit Mantle on Sedge as she walks: `sedge` is the hash of her canonical rig. */
export function lamplitMantle(sedge: string): Effect {
  const effect = newEffect('Lamplit Mantle', 20261);
  effect.stretches = { opening: 0.8, hold: { kind: 'continuing', seconds: 4 }, closing: 1.2, preRoll: 0 };
  effect.palette = collectionOf([
    ['lamp', namedColour('Lamp', '#dfe875')],
    ['ember', namedColour('Ember', '#ff7a2e')],
    ['marsh', derivedColour('Marsh light', 'lamp', { lighter: -0.45 })],
  ]);
  effect.layers = collectionOf([
    ['core', lamp('Lamp', 0x1a3f01, 0.3, 'flare', 3.2, 100, 14)],
    ['motes', motes()],
    ['haloes', haloes()],
    ['embers', embers()],
    ['glow', lamp('Lamp glow', 0x1a3f02, 1.35, 'soft dot', 0.5, 34, 0)],
    ['skin', secondSkin()],
    ['light', lampLight()],
    ['left', ripples('left', 0x2b11)],
    ['right', ripples('right', 0x2b12)],
    ['shimmer', shimmer('Lamplight on the water', 0x2b14, atThing(SEDGE), 4.6, LAMP, 80)],
    ['water', darkWater('Marsh water', 0x2b13, atThing(SEDGE), 5.7)],
  ]);
  effect.stage.things = collectionOf([
    [SEDGE, { ...newThing('Sedge', sedge), clip: 'walk', path: { kind: 'circle', radius: 3 } }],
  ]);
  return effect;
}
