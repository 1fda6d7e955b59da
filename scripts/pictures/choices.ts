// Makes the small pictures of what is chosen by its looks, where particles are born, what a step of a look draws and what it
// does, from a started Jinx with the demo: run with `npx tsx scripts/pictures/choices.ts [NAME…]` when one of them changed.
import { mkdirSync, writeFileSync } from 'node:fs';
import { drawn, gradient, layer, picture as pictureStep, set, step } from '@jinx/core/building';
import {
  atEffect,
  collectionOf,
  newEffect,
  newHit,
  newThing,
  SHAPE_KINDS,
  STEP_SETTINGS,
  type Effect,
  type Layer,
  type Source,
  type Step,
  type Vector,
} from '@jinx/core/document';
import type { View } from '@jinx/player/scene';
import { openFenlight } from './fenlight.ts';
import { takeInstants } from './instants.ts';

/** Points of a picture. */
const [WIDE, TALL] = [160, 100];
/** When it is taken, in steps. */
const AT = 40;
const folder = new URL('../../web/public/choices/', import.meta.url).pathname;
mkdirSync(folder, { recursive: true });
const { browser, page, address, project, hashOf } = await openFenlight();

const FACING: View = { position: [0, 1, 3], target: [0, 1, 0], fieldOfView: 30, follows: false };
const ABOVE: View = { position: [1.1, 2.2, 2.6], target: [0, 1, 0], fieldOfView: 30, follows: false };
const FARTHER: View = { ...ABOVE, position: [1.5, 3, 3.6], target: [0, 1.3, 0] };
const LOW: View = { position: [0, 0.75, 3], target: [0, 0.3, 0], fieldOfView: 30, follows: false };
const BODY: View = { position: [0.7, 1.35, 3.2], target: [0, 0.98, 0], fieldOfView: 34, follows: false };
const SEDGE = 'sedge';

function staged(layers: Record<string, Layer>, view: View, withFigure = false): Effect {
  const effect = newEffect('Choice', 5);
  effect.stage.surround = 'bare';
  if (withFigure) {
    effect.stage.surround = 'dusk';
    effect.stage.things = collectionOf([[SEDGE, newThing('Sedge', hashOf('sedge'))]]);
  }
  effect.stage.cameras = collectionOf([['front', { name: 'Front', ...view }]]);
  effect.layers = collectionOf(Object.entries(layers));
  return effect;
}
/** Particles that stay where they are born. */
const dots = (source: Source, count = 420) =>
  layer(
    'Dots',
    1,
    source,
    { 'births.standing': count, 'births.life': 20, 'life.size': 0.026, 'life.intensity': 1.4 },
    step('drawn', { shape: 'disc', softness: 15 }),
  );
const MIDDLE = atEffect([0, 1, 0]);
const PATH: readonly Vector[] = [
  [-0.75, -0.1, 0],
  [-0.25, 0.4, 0],
  [0.25, -0.4, 0],
  [0.75, 0.1, 0],
];
const BONES = [
  ...['head', 'chest', 'hips'],
  ...['upper arm', 'hand', 'thigh', 'shin', 'foot'].flatMap((name) => [`${name}.left`, `${name}.right`]),
];
/** Lines have fewer, so that each is seen. */
const LINES: readonly string[] = ['line', 'ring', 'point'];
function sourced(kind: Source['kind']): Effect {
  switch (kind) {
    case 'mesh':
      return staged({ dots: dots({ kind, thing: SEDGE, bones: [] }, 1400) }, BODY, true);
    case 'bones': {
      const made = dots({ kind, thing: SEDGE, bones: BONES }, 16);
      set(made, { 'life.size': 0.085 });
      const effect = staged({ made }, BODY, true);
      // They stand within the body.
      effect.stage.things.byId[SEDGE]!.hidden = true;
      effect.stage.surround = 'bare';
      return effect;
    }
    case 'path':
      return staged(
        { dots: dots({ kind, place: MIDDLE, points: PATH.map((point): Vector => [...point]), closed: false }) },
        FACING,
      );
    case 'drawn': {
      const shell = layer('Shell', 2, { kind: 'point', place: MIDDLE }, { ...ONE, 'life.size': 1.5 });
      set(shell, { 'appearance.facing': 'own frame', 'appearance.blend': 'solid', 'appearance.lit': 'card' });
      shell.look = { kind: 'own', steps: collectionOf([]) };
      shell.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#1c3a40' } };
      const meshes = collectionOf([['m', { asset: hashOf('puff'), name: 'Puff', chance: 1 }]]);
      return staged(
        { dots: dots({ kind, layer: 'shell' }, 500), shell: drawn(shell, 'mesh', {}, { meshes }) },
        FACING,
      );
    }
    case 'particles': {
      const parents = dots({ kind: 'ring', place: MIDDLE }, 7);
      set(parents, { 'life.size': 0.14 });
      const children = dots({ kind, layer: 'parents' }, 160);
      set(children, { 'motion.speed': [0.05, 0.35], 'motion.launch': 'any', 'life.size': 0.02 });
      return staged({ parents, children }, ABOVE);
    }
    case 'hits': {
      const spots: readonly Vector[] = [
        [-0.6, 0.25, 0],
        [0.05, -0.2, 0],
        [0.6, 0.3, 0],
      ];
      const hits = spots.map((offset, n) => {
        const at = atEffect([offset[0], 1 + offset[1], 0]);
        return [`hit${n}`, newHit('opening', 0, at)] as const;
      });
      const made = dots({ kind, hits: collectionOf(hits) }, 60);
      set(made, { 'births.standing': 0, 'source.perHit': 70, 'motion.speed': [0.05, 0.5], 'motion.launch': 'any' });
      return staged({ dots: made }, FACING);
    }
    default:
      return staged(
        { dots: dots({ kind, place: MIDDLE } as Source, LINES.includes(kind) ? 70 : 420) },
        kind === 'point' ? FACING : kind === 'cone' ? FARTHER : ABOVE,
      );
  }
}

/** One still particle that fills the picture, drawn by these steps. */
const lookedAt = (...steps: Step[]): Effect => {
  return staged({ one: layer('One', 1, { kind: 'point', place: MIDDLE }, ONE, ...steps) }, FACING);
};
const ONE = { 'births.standing': 1, 'births.life': 20, 'life.size': 1.45 } as const;
const STAR = step('drawn', { shape: 'star', width: 30, softness: 10 });
const DISC = step('drawn', { shape: 'disc', softness: 10 });
const CLOUDS = step('drawn', { shape: 'clouds', grains: 3, varied: false });
const STEPS: Record<keyof typeof STEP_SETTINGS, () => Effect> = {
  picture: () => lookedAt(pictureStep(hashOf('marsh'), 'Marsh')),
  drawn: () => lookedAt(STAR),
  levels: () => lookedAt(DISC, CLOUDS, step('levels', { black: 45, white: 60 })),
  contrast: () =>
    lookedAt(step('drawn', { shape: 'soft dot', softness: 20 }), CLOUDS, step('contrast', { factor: 6, middle: 35 })),
  scroll: () => lookedAt(step('scroll', { repeatAcross: 3, repeatAlong: 3 }), STAR),
  warp: () =>
    lookedAt(step('warp', { strength: 45, grains: 4, varied: false }), step('drawn', { shape: 'ring', width: 24 })),
  dissolve: () => lookedAt(DISC, step('dissolve', { amount: 45, edge: 18, glow: 3, varied: false })),
  rim: () => {
    const made = layer('One', 1, { kind: 'point', place: MIDDLE }, ONE, step('rim', { does: 'shows the rim only' }));
    const meshes = collectionOf([['salt', { asset: hashOf('salt'), name: 'Salt', chance: 1 }]]);
    return staged({ one: drawn(made, 'mesh', {}, { meshes }) }, FACING);
  },
  gradient: () => lookedAt(DISC, gradient('across', [0, '#2a58ff'], [0.5, '#f4f4f4'], [1, '#ff5a26'])),
  tint: () => lookedAt(STAR, step('tint', { colour: { hex: '#ff4b5c' } })),
  intensity: () =>
    lookedAt(
      step('drawn', { shape: 'soft dot' }),
      step('tint', { colour: { hex: '#ff7a2c' } }),
      step('intensity', { factor: 7 }),
    ),
  soft: () => {
    const tint = step('tint', { colour: { hex: '#ffb46a' } });
    const steps = [DISC, tint, step('soft', { distance: 0.6 })];
    const low = layer('One', 1, { kind: 'point', place: atEffect([0, 0.3, 0]) }, ONE, ...steps);
    const effect = staged({ low }, LOW);
    effect.stage.surround = 'dusk';
    return effect;
  },
};

const all: [string, () => Effect][] = [
  ...[...SHAPE_KINDS, 'path', 'mesh', 'bones', 'drawn', 'particles', 'hits'].map((kind): [string, () => Effect] => [
    `source-${kind}`,
    () => sourced(kind as Source['kind']),
  ]),
  ...STEP_SETTINGS.drawn.shape.choices.map((shape): [string, () => Effect] => [
    `shape-${shape.replaceAll(' ', '-')}`,
    () => lookedAt(step('drawn', { shape, varied: false })),
  ]),
  ...Object.entries(STEPS).map(([kind, make]): [string, () => Effect] => [`step-${kind}`, make]),
];
const asked = process.argv.slice(2);
for (const [name, make] of all) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  const posted = await page.request.post(`${address}/api/projects/${project}/effects`, {
    data: { document: make() },
  });
  if (!posted.ok()) throw new Error(`${name}: ${await posted.text()}`);
  const { id } = (await posted.json()) as { id: string };
  const picture = await takeInstants(page, {
    address: `${address}/effects/${id}`,
    steps: [AT],
    size: [WIDE, TALL],
    quality: 0.85,
  });
  writeFileSync(`${folder}${name}.webp`, picture);
  await page.request.delete(`${address}/api/effects/${id}`);
  console.log(name);
}
await browser.close();
