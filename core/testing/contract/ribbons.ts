import {
  atBone,
  atEffect,
  collectionOf,
  newForce,
  newRibbon,
  setNumber,
  type Layer,
  type NumberSetting,
  type Ribbon,
} from '../../document/index.ts';
import { playAlone, type Instance } from '../../simulation/index.ts';
import { JOINT_ALONG, JOINT_ENDS, JOINT_TO, JOINT_WIDTH } from '../../simulation/frames/frame.ts';
import { effectOf, onStage, TUBE } from '../effects.ts';
import { frameOf } from '../riders.ts';
import { bendingTube } from '../rigs.ts';

const STEP = 45;
const rigs = new Map([[TUBE, bendingTube(2, 3)]]);

/** The ribbons of the one layer, joint by joint from tail to head. */
function ribbonsOf(world: Instance) {
  const frame = frameOf(world);
  const { jointStart, jointCount } = frame.layer(1234)!;
  const { f32 } = frame;
  const ribbons: { at: number[]; halfWidth: number; along: number }[][] = [[]];
  for (let n = 0; n < jointCount; n++) {
    const o = frame.jointAt(jointStart + n);
    const at = [...f32.subarray(o + JOINT_TO, o + JOINT_TO + 3)];
    ribbons.at(-1)!.push({ at, halfWidth: f32[o + JOINT_WIDTH]!, along: f32[o + JOINT_ALONG]! });
    if (f32[o + JOINT_ENDS] !== 0) ribbons.push([]);
  }
  return ribbons.slice(0, -1);
}

/** A ribbon of a kind with some of its numbers, of what a layer bears by a rate from a point. */
function played(ribbon: Ribbon, numbers: Record<string, number>, change: (layer: Layer) => void) {
  for (const [name, value] of Object.entries(numbers))
    (ribbon.settings as unknown as Record<string, NumberSetting>)[name]!.base = { kind: 'fixed', value };
  const effect = effectOf((layer, whole) => {
    whole.stage.things = onStage('sway');
    layer.source = { kind: 'point', place: atEffect([0.4, 1.2, -0.3]) };
    layer.drawn = ribbon;
    setNumber(layer, 'births.life', 5);
    setNumber(layer, 'life.size', 0.1);
    layer.settings['life.size'].shapers = collectionOf([]);
    change(layer);
  });
  const world = playAlone(effect, rigs);
  world.advance(STEP);
  const { count, key, position, birthStep, birthFraction } = world.population('motes')!;
  const particles = Array.from({ length: count }, (_, i) => ({
    key: key[i]!,
    at: position.map((axis) => axis[i]!),
    seconds: (STEP - birthStep[i]! - birthFraction[i]!) / 60,
  }));
  return { kind: ribbon.kind, step: STEP, size: 0.1, ...numbers, particles, ribbons: ribbonsOf(world) };
}
const onWay = (layer: Layer) => {
  setNumber(layer, 'births.rate', 8);
  setNumber(layer, 'motion.speed', 1);
  layer.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
  layer.forces = collectionOf([['turn', newForce('vortex', atEffect([0, 1, 0.1]))]]);
};
const alone = (layer: Layer) => {
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
};

const [FROM, TO] = [
  [0, 1, 0],
  [2, 2, -1],
] as const;
const beam = () => newRibbon('beam', atEffect([...FROM]), atEffect([...TO]));

/** The joints of ribbons of every kind: of beams one that sags, and one that strikes, branches and is on its way. */
export const ribbonVectors = () => ({
  trail: played(newRibbon('trail'), { every: 0.05, atTail: 20 }, (layer) => {
    onWay(layer);
    setNumber(layer, 'births.rate', 2);
  }),
  strand: played(newRibbon('strand'), { atTail: 40, atHead: 90, bulge: 150 }, onWay),
  blade: played(
    newRibbon('blade', atBone('figure', 'high'), atBone('figure', 'high', [0, 0.5, 0])),
    { lasts: 0.2 },
    alone,
  ),
  sagging: { from: FROM, to: TO, ...played(beam(), { sag: 0.4, jag: 0, branches: 0, speed: 0 }, alone) },
  striking: {
    ...{ from: FROM, to: TO },
    ...played(
      beam(),
      { sag: 0.1, jag: 0.15, jagSize: 0.2, strikes: 7, branches: 2, branchLength: 0.6, speed: 2.8 },
      alone,
    ),
  },
});
