import { expect } from './test.ts';
import {
  atEffect,
  collectionOf,
  newDrawn,
  newEffect,
  newLayer,
  setNumber,
  type Effect,
  type Layer,
  settingsByName,
} from '@jinx/core/document';
import { writePicture, writeRig } from '@jinx/core/formats';
import { cross, subtract, unit, vec3At, mapAxes, AXES } from '@jinx/core/maths';
import { closedBox, withTallerShape } from '../core/testing/rigs.ts';
import { HEIGHT, WIDTH, type StageHarness } from './stageHarness.ts';

/** Looking straight at the middle of the effect from five metres away, and pixels of a metre there. */
export const VIEW = { position: [0, 1, 5], target: [0, 1, 0], fieldOfView: 30, follows: false } as const;
export const METRE = HEIGHT / (2 * 5 * Math.tan((15 * Math.PI) / 180));
export const [MIDDLE_X, MIDDLE_Y] = [WIDTH / 2, HEIGHT / 2];
export const BOX = 'b'.repeat(64);
export const TALL = 'a'.repeat(64);
export const GRID = 'c'.repeat(64);
export const SLOPE = 'd'.repeat(64);

/** A closed box of a metre with flat sides, two of them a part of their own. */
function box() {
  const rig = closedBox();
  const { positions, indices } = rig.mesh;
  const corners = [...indices].map((index) => vec3At(positions, index * 3));
  const normals = corners.map((_, n) => {
    const [a, b, c] = mapAxes(AXES, (k) => corners[n - (n % 3) + k]!);
    return unit(cross(subtract(b, a), subtract(c, a)));
  });
  const count = corners.length;
  const mesh = {
    positions: Float32Array.from(corners.flat()),
    normals: Float32Array.from(normals.flat()),
    uvs: new Float32Array(count * 2),
    colours: null,
    joints: new Uint16Array(count * 4),
    weights: Float32Array.from({ length: count * 4 }, (_, n) => (n % 4 === 0 ? 1 : 0)),
    indices: Uint32Array.from({ length: count }, (_, n) => n),
    parts: [
      { name: 'sides', start: 0, count: 12 },
      { name: 'rest', start: 12, count: count - 12 },
    ],
  };
  return { ...rig, mesh };
}
/** Four squares of 8 pixels: red and green above, blue and white below; each opaque but for the last, half clear. */
function grid(): { width: number; height: number; rgba: Uint8Array } {
  const [width, height] = [16, 16];
  const rgba = new Uint8Array(width * height * 4);
  const colours = [
    [255, 0, 0, 255],
    [0, 255, 0, 255],
    [0, 0, 255, 255],
    [255, 255, 255, 128],
  ];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) rgba.set(colours[(y < 8 ? 0 : 2) + (x < 8 ? 0 : 1)]!, (y * width + x) * 4);
  return { width, height, rgba };
}
/** A normal map that bends all to one side. */
const slope = () => ({
  width: 2,
  height: 2,
  rgba: new Uint8Array(Array(4).fill([255, 128, 128, 255]).flat()),
});

/** A layer of one standing particle in the middle of the picture, and a stage that shows light as it is. */
export function one(change: (layer: Layer, effect: Effect) => void = () => undefined): Effect {
  const effect = newEffect('One', 7);
  effect.stage.lens.bloom.isOn = false;
  const layer = standing('One', 1);
  effect.layers = collectionOf([['one', layer]]);
  change(layer, effect);
  return effect;
}
export function standing(name: string, salt: number): Layer {
  const layer = newLayer(name, salt);
  layer.source = { kind: 'point', place: atEffect([0, 1, 0]) };
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
  setNumber(layer, 'motion.speed', 0);
  setNumber(layer, 'life.size', 1);
  layer.settings['life.opacity'].shapers = collectionOf([]);
  layer.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ffffff' } };
  layer.settings['appearance.blend'].base = { kind: 'fixed', value: 'normal' };
  layer.look = { kind: 'own', steps: collectionOf([]) };
  return layer;
}
export const choose = (layer: Layer, name: keyof Layer['settings'], value: unknown) => {
  layer.settings[name].base = { kind: 'fixed', value } as never;
};
export const setDrawn = (layer: Layer, name: string, value: unknown) => {
  const settings = settingsByName(layer.drawn as { settings: object });
  settings[name]!.base = { kind: 'fixed', value } as never;
};
export const near = (value: number, expected: number, off: number, what = '') =>
  expect(Math.abs(value - expected), `${what} ${value} for ${expected}`).toBeLessThan(off);
export const meshed = (change: (layer: Layer, effect: Effect) => void = () => undefined) =>
  one((layer, effect) => {
    layer.drawn = { ...newDrawn('mesh'), meshes: collectionOf([['box', { asset: BOX, name: 'Box', chance: 1 }]]) };
    choose(layer, 'appearance.blend', 'solid');
    choose(layer, 'appearance.facing', 'own frame');
    change(layer, effect);
  });
/** A light above the ground, and a lit card beside it. */
export const lamp = (change: (light: Layer, effect: Effect) => void = () => undefined) =>
  one((light, effect) => {
    light.drawn = newDrawn('light');
    light.source = { kind: 'point', place: atEffect([0, 0.5, 0]) };
    setNumber(light, 'life.intensity', 2);
    const card = standing('Card', 2);
    card.source = { kind: 'point', place: atEffect([0.8, 0.7, -0.2]) };
    setNumber(card, 'life.size', 0.5);
    choose(card, 'appearance.lit', 'card');
    effect.layers = collectionOf([
      ['one', light],
      ['card', card],
    ]);
    change(light, effect);
  });

/** What these effects are made of, by the hash of each: for the stage harness. */
export const ASSETS = {
  [BOX]: writeRig(box()),
  // Half as tall again in its other shape.
  [TALL]: writeRig({ ...withTallerShape(box(), 2), name: 'tall' }),
  [GRID]: writePicture(grid()),
  [SLOPE]: writePicture(slope()),
};
export const view = { view: VIEW as never };
/** An effect seen by a stage from there, with and without some of its layers. */
export const pairsOf =
  (stage: StageHarness) =>
  (effect: Effect, at = 30, layers?: string[]) =>
    stage.pair(effect, at, view, layers);
