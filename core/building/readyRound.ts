import {
  burst,
  collectionOf,
  newDrawn,
  type DrawnMesh,
  type Effect,
  type Id,
  type Layer,
  type Place,
} from '../document/index.ts';
import { colour, drawn, force, forces, hex, inAndOut, layer, step } from './build.ts';

/** Just one, still, as long as the effect lasts. */
export const one = (name: string, salt: number, place: Place): Layer =>
  layer(
    name,
    salt,
    { kind: 'point', place },
    { 'births.standing': 1, 'motion.ride': 100, 'life.size': 0.5 },
    step('drawn', { shape: 'soft dot' }),
  );

/** One mesh that stands as a shell of light: brighter where it turns from the eye. */
export function shell(
  name: string,
  salt: number,
  place: Place,
  mesh: Omit<DrawnMesh, 'chance'> | null,
  size: number,
): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'point', place },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': size,
      'life.width': 62,
      'life.depth': 62,
      'life.opacity': 70,
      'life.intensity': 1.1,
      'appearance.facing': 'own frame',
    },
    step('rim', { does: 'shows the rim only', sharpness: 1.4, intensity: 1.2 }),
    step('soft', { distance: 0.12 }),
  );
  return colour(drawn(made, 'mesh', {}, meshesOf(mesh)), [0, hex('#7fd0e8')]);
}
const meshesOf = (mesh: Omit<DrawnMesh, 'chance'> | null): Partial<ReturnType<typeof newDrawn<'mesh'>>> => ({
  meshes: mesh ? collectionOf([['mesh', { ...mesh, chance: 1 }]]) : collectionOf([]),
});

/** Pieces that are thrown up, tumble, bounce off the ground and lie. */
export function debris(
  name: string,
  salt: number,
  place: Place,
  mesh: Omit<DrawnMesh, 'chance'> | null,
  effect: Effect,
): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'sphere', place },
    {
      'source.radius': 0.2,
      'births.life': [1.8, 2.6],
      'motion.launch': 'outward',
      'motion.speed': [1.2, 3],
      'motion.velocity': [0, 2, 0],
      'life.size': {
        base: [0.06, 0.2],
        over: inAndOut(0.06, 0.9),
      },
      'life.width': [70, 130],
      'life.height': [60, 140],
      'life.turning': [-360, 360],
      'life.tilt': [40, 80, 20],
      'appearance.facing': 'own frame',
      'appearance.blend': 'solid',
      'appearance.lit': 'card',
    },
  );
  made.look = { kind: 'own', steps: collectionOf([]) };
  made.bursts = collectionOf([['once', burst(effect.stretches.hold.kind === 'none' ? 'opening' : 'hold', 0.2, 22)]]);
  forces(made, force('gravity', null, { strength: 9.81 }));
  return colour(drawn(made, 'mesh', { roughness: 80 }, meshesOf(mesh)), [0, hex('#6e665c')]);
}

/** Drops that leap up and fall back. */
export function spring(name: string, salt: number, place: Place): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'disc', place },
    {
      'source.radius': 0.06,
      'births.rate': 140,
      'births.life': [0.7, 1],
      'motion.launch': 'axis',
      'motion.speed': [2.4, 3.6],
      'motion.opening': 12,
      'life.size': {
        base: [0.02, 0.05],
        over: [
          [0, 0.6],
          [0.2, 1],
          [1, 0.7],
        ],
      },
      'life.opacity': { base: 90, over: inAndOut(0.05, 0.8) },
      'life.intensity': 1.2,
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.02,
      'appearance.blend': 'mixed',
      'appearance.covers': 35,
    },
    step('drawn', { shape: 'soft dot', softness: 30 }),
  );
  forces(made, force('gravity', null, { strength: 7 }));
  return colour(made, [0, hex('#e4f6ff')], [1, hex('#6fb4d8')]);
}

/** Motes that hang about a place, each on a slow way of its own. */
export function halo(name: string, salt: number, place: Place, radius: number): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'sphere', place },
    {
      'source.radius': radius,
      'births.rate': 40,
      'births.life': [1.6, 3],
      'motion.speed': 0,
      'motion.ride': 70,
      'life.size': {
        base: [0.02, 0.06],
        over: [
          [0, 0.4],
          [0.3, 1],
          [1, 0.4],
        ],
      },
      'life.opacity': { base: 90, over: inAndOut(0.2, 0.7) },
      'life.intensity': [1.2, 2.6],
    },
    step('drawn', { shape: 'soft dot', softness: 55 }),
  );
  forces(
    made,
    force('curl', null, { strength: 0.4, size: 0.6, change: 0.5 }),
    force('drag', null, { strength: 1.4 }),
  );
  return colour(made, [0, hex('#fff2c0')], [1, hex('#ffb060')]);
}

/** Marks on a level circle that go round. */
export function orbit(
  name: string,
  salt: number,
  place: Place,
  radius: number,
  lasting: (made: Layer) => Layer,
): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'ring', place },
    {
      'source.radius': radius,
      'source.order': 'even',
      'births.standing': 6,
      'motion.ride': 0,
      'life.size': 0.22,
      'life.intensity': 1.8,
    },
    step('drawn', { shape: 'star polygon', points: 5, skips: 2, width: 12, softness: 40 }),
    step('drawn', { shape: 'ring', width: 10, softness: 40, combines: 'add' }),
  );
  forces(made, force('orbit', place, { distance: radius, speed: 1.6 }));
  return colour(lasting(made), [0, hex('#8fe0d0')]);
}

/** Thin streaks that climb round about. */
export function streaks(name: string, salt: number, place: Place, radius: number): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'cylinder', place },
    {
      'source.radius': radius,
      'source.length': 0.3,
      'births.rate': 30,
      'births.life': [0.7, 1.2],
      'motion.launch': 'axis',
      'motion.speed': [1.2, 2.6],
      'life.size': [0.05, 0.09],
      'life.height': [350, 800],
      'life.width': 35,
      'life.opacity': { base: 85, over: inAndOut(0.15, 0.5) },
      'life.intensity': [1.4, 2.4],
      'appearance.facing': 'motion',
      'appearance.lengthening': 0,
    },
    step('drawn', { shape: 'streak', width: 60, softness: 70 }),
  );
  return colour(made, [0, hex('#fff6d8')], [1, hex('#ffc25a')]);
}

/** Motes that are drawn in, turning, to a core. */
export function swirl(name: string, salt: number, place: Place, radius: number): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'ring', place },
    {
      'source.radius': [radius * 0.8, radius * 1.2],
      'births.rate': 90,
      'births.life': [1, 1.6],
      'motion.launch': 'tangent',
      'motion.speed': [0.9, 1.4],
      'life.size': {
        base: [0.02, 0.05],
        over: [
          [0, 0.3],
          [0.3, 1],
          [1, 0.5],
        ],
      },
      'life.opacity': { base: 95, over: inAndOut(0.15, 0.8) },
      'life.intensity': [1.4, 2.4],
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.05,
    },
    step('drawn', { shape: 'soft dot', softness: 45 }),
  );
  forces(made, force('attraction', place, { strength: 3 }), force('drag', null, { strength: 0.5 }));
  return colour(made, [0, hex('#7fc8ff')], [0.7, hex('#e8f4ff')], [1, hex('#ffffff')]);
}

/** Bolts that leap here and there over a body. */
export function crackle(name: string, salt: number, thing: Id): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'mesh', thing, bones: [] },
    {
      'births.rate': 24,
      'births.life': [0.1, 0.28],
      'motion.ride': 100,
      'life.size': [0.22, 0.5],
      'life.width': 60,
      'life.opacity': {
        base: 100,
        over: inAndOut(0.12, 0.6),
      },
      'life.intensity': [2, 3.5],
      'life.angle': [-180, 180],
      'appearance.nudge': 0.15,
    },
    step('drawn', { shape: 'bolt', width: 7, softness: 65, points: 3, struck: 3 }),
  );
  return colour(made, [0, hex('#f4f0ff')], [1, hex('#9a7cff')]);
}

/** Pieces of a body in its own colours, held on its skin until a front frees them. */
export function held(name: string, salt: number, thing: Id, front: Id): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'mesh', thing, bones: [] },
    {
      'source.order': 'even',
      'births.life': [0.9, 1.6],
      'motion.launch': 'normal',
      'motion.speed': [0.1, 0.4],
      'life.size': {
        base: [0.035, 0.06],
        over: [
          [0, 1],
          [0.6, 0.8],
          [1, 0],
        ],
      },
      'life.angle': [-180, 180],
      'life.turning': [-120, 120],
      'appearance.blend': 'normal',
    },
    step('drawn', { shape: 'polygon', points: 5, width: 100, softness: 25 }),
  );
  made.settings['life.colour'].base = { kind: 'taken', from: 'source' };
  made.bursts = collectionOf([['all', burst('opening', 0, 1400)]]);
  made.front = front;
  forces(
    made,
    force('gravity', null, { strength: -1.2 }),
    force('curl', null, { strength: 1.4, size: 0.5, change: 0.6 }),
    force('drag', null, { strength: 0.8 }),
  );
  return made;
}
