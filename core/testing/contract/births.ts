import {
  atEffect,
  atThing,
  burst,
  collectionOf,
  type Effect,
  type Layer,
  newForce,
  newHit,
  setNumber,
  type Source,
  type Vector,
} from '../../document/index.ts';
import { FigureTrack, skinMatricesInto, type Rig } from '../../geometry/index.ts';
import { unpackDirectionInto } from '../../maths/index.ts';
import { playAlone, type Inputs, type Instance } from '../../simulation/index.ts';
import { choose, vector } from '../births.ts';
import { effectOf, onStage, TUBE } from '../effects.ts';
import { bendingTube } from '../rigs.ts';
import { threeOf } from './particles.ts';

const AT = 0.25;
const STEP = 15;
const rig = bendingTube(2, 3);
const rigs = new Map([[TUBE, rig]]);

/** Particles that are born at a quarter of a second, when the tube is bent the most, and leave at a metre a second. */
function bearing(source: Source, change: (layer: Layer, effect: Effect) => void = () => undefined): Effect {
  return effectOf((layer, effect) => {
    layer.source = source;
    effect.stage.things = onStage('sway');
    effect.stretches = { opening: 1, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 5);
    layer.bursts = collectionOf([['all', burst('opening', AT, 3)]]);
    setNumber(layer, 'motion.speed', 1);
    setNumber(layer, 'motion.inherit', 0);
    setNumber(layer, 'motion.ride', 0);
    change(layer, effect);
  });
}
function playedTo(effect: Effect, inputs: Inputs = {}): Instance {
  const world = playAlone(effect, rigs, inputs);
  world.advance(STEP + 1);
  return world;
}
/** What was born in the step of the burst: its key and number, where, and which way it left. */
function bornIn(world: Instance, layer = 'motes') {
  const { count, key, number, from, velocity } = world.population(layer)!;
  return Array.from({ length: count }, (_, i) => ({
    key: key[i]!,
    number: number[i]!,
    at: threeOf(from, i),
    way: threeOf(velocity, i),
  }));
}
const born = (effect: Effect, inputs?: Inputs) => bornIn(playedTo(effect, inputs));

/** The tube at that instant: its mesh at rest, the matrices of its bones and of its skin. */
function posed({ mesh, bones }: Rig, thing: Effect['stage']['things']['byId'][string]) {
  const matrices = new Float64Array(bones.length * 16);
  new FigureTrack(rig, thing).worldInto(AT, matrices);
  const skin = new Float32Array(bones.length * 16);
  skinMatricesInto(rig, matrices, skin);
  return {
    positions: [...mesh.positions],
    indices: [...mesh.indices],
    joints: [...mesh.joints],
    weights: [...mesh.weights],
    bones: [...matrices],
    skin: [...skin],
  };
}

const onMesh: Source = { kind: 'mesh', thing: 'figure', bones: [] };
const meshes = () =>
  (['surface', 'edge', 'vertices', 'volume'] as const).flatMap((region) =>
    (['random', 'walking', 'even'] as const).map((order) => ({
      region,
      order,
      walk: 24,
      births: born(
        bearing(onMesh, (layer) => {
          choose(layer, 'source.region', region);
          choose(layer, 'source.order', order);
          choose(layer, 'motion.launch', 'normal');
        }),
      ),
    })),
  );

const bones = () =>
  (['joints', 'along', 'between'] as const).map((along) => ({
    along,
    births: born(
      bearing({ kind: 'bones', thing: 'figure', bones: ['low', 'high'] }, (layer) =>
        choose(layer, 'source.along', along),
      ),
    ),
  }));

const POINTS: Vector[] = [
  [0, 0, 0],
  [1, 0.5, 0],
  [1.2, 1.5, 0.4],
  [0, 1.6, 1],
];
const paths = () =>
  [false, true].map((closed) => ({
    points: POINTS,
    closed,
    births: born(
      bearing({ kind: 'path', place: atEffect(), points: POINTS, closed }, (layer) => {
        choose(layer, 'source.order', 'even');
        choose(layer, 'motion.launch', 'tangent');
      }),
    ),
  }));

/** Births on three that fly: where these are in the step, and what they are born with. */
function particles() {
  const on = (change: (layer: Layer) => void) => {
    const effect = bearing({ kind: 'point', place: atEffect([0, 1, 0]) }, (layer, whole) => {
      layer.bursts = collectionOf([['all', burst('opening', 0, 3)]]);
      layer.forces = collectionOf([['fall', newForce('gravity')]]);
      const sparks = structuredClone(layer);
      sparks.salt = 77;
      sparks.source = { kind: 'particles', layer: 'motes' };
      sparks.bursts = collectionOf([['all', burst('opening', AT, 4)]]);
      sparks.forces = collectionOf([]);
      change(sparks);
      whole.layers = collectionOf([
        ['motes', layer],
        ['sparks', sparks],
      ]);
    });
    const world = playedTo(effect);
    return { parents: parentsOf(world), births: bornIn(world, 'sparks') };
  };
  return {
    alone: on(() => undefined),
    ring: {
      ...{ radius: 0.3, push: 0.1, grain: 0.2, change: 1.5 },
      ...on((layer) => {
        setNumber(layer, 'source.ring', 0.3);
        setNumber(layer, 'source.ragged', 0.1);
        setNumber(layer, 'source.rags', 0.2);
        setNumber(layer, 'source.stir', 1.5);
      }),
    },
  };
}
function parentsOf(world: Instance) {
  const { count, key, from, position, velocity, facing } = world.population('motes')!;
  const normal = new Float64Array(3);
  return Array.from({ length: count }, (_, i) => {
    unpackDirectionInto(normal, 0, facing[i]!);
    return {
      key: key[i]!,
      from: threeOf(from, i),
      to: threeOf(position, i),
      velocity: threeOf(velocity, i),
      normal: [...normal],
    };
  });
}

/** A hit of a list, upright on a thing that is turned, and a strike from outside. */
const hits = () => {
  const place = atThing('figure', [0.1, 0.8, 0.2], [0, 0, -90]);
  const effect = bearing(
    { kind: 'hits', hits: collectionOf([['h', { ...newHit('opening', AT, place), strength: 150 }]]) },
    (layer) => {
      layer.bursts = collectionOf([]);
      setNumber(layer, 'source.perHit', 3);
    },
  );
  const strike = { step: STEP, at: [1, 2, 3], normal: [0, 0, 1], strength: 0.4 } as const;
  return { perHit: 3, strength: 150, at: [0.1, 0.8, 0.2], strike, births: born(effect, { strikes: [strike] }) };
};

const LAUNCHES = ['outward', 'normal', 'tangent', 'within', 'axis', 'toward', 'round', 'any'] as const;
/** Every way of leaving, from a ring that stands in the effect; every other one opens into a cone. */
const launches = () =>
  LAUNCHES.map((launch, n) => {
    const [angle, opening, radius] = [30, n % 2 ? 40 : 0, 0.5];
    const [axis, aim]: [Vector, Vector] = [
      [0, 0.6, 0.8],
      [0.3, 2, 0.1],
    ];
    const effect = bearing({ kind: 'ring', place: atEffect() }, (layer) => {
      choose(layer, 'motion.launch', launch);
      vector(layer, 'motion.axis', axis);
      choose(layer, 'source.region', 'edge');
      setNumber(layer, 'source.radius', radius);
      setNumber(layer, 'motion.angle', angle);
      setNumber(layer, 'motion.opening', opening);
      layer.aim = atEffect(aim);
    });
    return { launch, angle, opening, axis, aim, radius, births: born(effect) };
  });

/** Where births fall on what moves or is drawn, and which way they leave: each by itself, at a quarter of a second. */
export const birthVectors = () => ({
  seconds: AT,
  salt: 1234,
  figure: posed(rig, onStage('sway').byId['figure']!),
  mesh: meshes(),
  bones: bones(),
  path: paths(),
  particles: particles(),
  hits: hits(),
  launches: launches(),
});
