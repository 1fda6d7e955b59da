import {
  atBone,
  atEffect,
  collectionOf,
  newForce,
  newRibbon,
  setNumber,
  type Layer,
  type Ribbon,
  setWidthAlong,
} from '../../document/index.ts';
import { playAlone } from '../../simulation/index.ts';
import { effectOf, onStage, TUBE } from '../effects.ts';
import { ribbonsOf, setRibbon } from '../ribbons.ts';
import { bendingTube } from '../rigs.ts';
import { threeOf } from './particles.ts';

const STEP = 45;
const rigs = new Map([[TUBE, bendingTube(2, 3)]]);

/** A ribbon of a kind with some of its numbers, of what a layer bears by a rate from a point. */
function played(ribbon: Ribbon, numbers: Record<string, number>, change: (layer: Layer) => void) {
  const effect = effectOf((layer, whole) => {
    whole.stage.things = onStage('sway');
    layer.source = { kind: 'point', place: atEffect([0.4, 1.2, -0.3]) };
    layer.drawn = setRibbon(ribbon, numbers);
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
    at: threeOf(position, i),
    seconds: (STEP - birthStep[i]! - birthFraction[i]!) / 60,
  }));
  const ribbons = ribbonsOf(world).map((joints) =>
    joints.map(({ at, width, along }) => ({ at, halfWidth: width / 2, along })),
  );
  return { kind: ribbon.kind, step: STEP, size: 0.1, ...numbers, particles, ribbons };
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
/** A ribbon so wide at its head, at its tail and in its middle, percent. */
const withWidth = (ribbon: Ribbon, head: number, tail: number, middle = 100): Ribbon => {
  setWidthAlong(ribbon, head, tail, middle);
  return ribbon;
};
const beam = () => newRibbon('beam', atEffect([...FROM]), atEffect([...TO]));

/** The joints of ribbons of every kind: of beams one that sags, and one that strikes, branches and is on its way. */
export const ribbonVectors = () => ({
  trail: played(withWidth(newRibbon('trail'), 100, 20), { every: 0.05 }, (layer) => {
    onWay(layer);
    setNumber(layer, 'births.rate', 2);
  }),
  strand: played(withWidth(newRibbon('strand'), 90, 40, 150), {}, onWay),
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
