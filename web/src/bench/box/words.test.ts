import { collectionOf, newDrawn, newEffect, newForce, newLayer, newThing, withItem } from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { COMMANDS, type CommandId } from '../commands/list';
import { Finder } from '../pick/finder';
import { targetsOf } from './targets';

/** An effect with a layer of meshes that has a force, beside another layer, with a figure on its stage. */
function finder() {
  const effect = newEffect('Words', 1);
  const layer = newLayer('Motes', 2);
  layer.drawn = newDrawn('mesh');
  layer.forces = collectionOf([['breeze', newForce('wind')]]);
  effect.layers = collectionOf([['motes', layer]]);
  effect.layers = withItem(effect.layers, 'sparks', newLayer('Sparks', 3));
  effect.stage.things = collectionOf([['sedge', newThing('Sedge', 'a'.repeat(64))]]);
  const commands = Object.entries(COMMANDS).map(([id, command]) => ({ id, ...command, run: () => undefined }));
  const none = () => undefined;
  const surfaces = [{ value: 'ground', text: 'Ground' }];
  const fits = [{ target: { kind: 'thing' as const, thing: 'sedge' }, text: 'Sedge' }];
  return new Finder(
    targetsOf({
      ...{
        effect,
        layerId: 'motes',
        chosenIds: ['motes'],
        rigs: new Map(),
        assets: [],
        surfaces,
        fits,
        commands,
        keysOf: () => [],
        findings: [],
      },
      ...{ guide: [], effects: [{ id: 'e', name: 'Reed Cleave' }], choose: none, open: none, lead: none },
    }),
  );
}
const found = finder();
const layer = (setting: string) => `layer/motes:${setting}`;
const choice = (setting: string, value: string) => `layer/motes:${setting}=${value}`;
const command = (id: CommandId) => `command ${id}`;

/** Words of the trade and our own, each with what it must lead to. */
const WORDS: readonly (readonly [string, string])[] = [
  ['rate', layer('births.rate')],
  ['surround noon', 'surround noon'],
  ['no sky', 'surround bare'],
  ['fit to sedge', 'fit {"kind":"thing","thing":"sedge"}'],
  ['tape', command('stage.tape')],
  ['along the tangent', choice('motion.launch', 'tangent')],
  ['launch axis out', choice('motion.launch', 'outward')],
  ['one after another', choice('source.order', 'walking')],
  ['one end to the other', choice('source.order', 'walking')],
  ['unsorted', choice('appearance.order', 'none')],
  ['random turn', layer('life.angle')],
  ['left behind', layer('motion.ride')],
  ['measure distance', command('stage.tape')],
  ['select all', command('layer.all')],
  ['time offset', 'delay'],
  ['sedge stands at', 'stands sedge'],
  ['strike tool', command('stage.strikeTool')],
  ['frame selected', command('stage.frame')],
  ['new child layer', 'set off new'],
  ['spawn rate', layer('births.rate')],
  ['emission', layer('births.rate')],
  ['emission rate', layer('births.rate')],
  ['particles per second', layer('births.rate')],
  ['particles by distance', layer('births.perMetre')],
  ['lifetime', layer('births.life')],
  ['lifespan', layer('births.life')],
  ['time to live', layer('births.life')],
  ['max particles', layer('births.cap')],
  ['particle limit', layer('births.cap')],
  ['standing', layer('births.standing')],
  ['single particle', layer('births.standing')],
  ['density', layer('births.perArea')],
  ['burst', 'burst'],
  ['start delay', 'births from'],
  ['emission duration', 'births until'],
  ['pre-roll', 'pre-roll'],
  ['warm-up', 'pre-roll'],
  ['one-shot', 'plays once'],
  ['loop', 'plays looped'],
  ['looping', 'plays looped'],
  ['sustain', 'stretch hold'],
  ['opening', 'stretch opening'],
  ['closing', 'stretch closing'],
  ['random seed', 'seed'],
  ['speed', layer('motion.speed')],
  ['initial velocity', layer('motion.speed')],
  ['speed at birth', layer('motion.speed')],
  ['initial direction', layer('motion.launch')],
  ['direction of emission', layer('motion.launch')],
  ['cone angle', layer('motion.opening')],
  ['divergence', layer('motion.opening')],
  ['inherited velocity', layer('motion.inherit')],
  ['world space', layer('motion.ride')],
  ['local space', layer('motion.ride')],
  ['space', layer('motion.ride')],
  ['tangent angle', layer('motion.angle')],
  ['emit from', layer('source.region')],
  ['surface or volume', layer('source.region')],
  ['spawn order', layer('source.order')],
  ['distribution', layer('source.order')],
  ['even distribution', choice('source.order', 'even')],
  ['snap to ground', layer('source.ground')],
  ['emitter size', layer('source.radius')],
  ['extents', layer('source.size')],
  ['position', 'place source'],
  ['emitter rotation', 'turn source'],
  ['size', layer('life.size')],
  ['scale', layer('life.size')],
  ['initial size', layer('life.size')],
  ['size over life', layer('life.size')],
  ['opacity', layer('life.opacity')],
  ['alpha', layer('life.opacity')],
  ['transparency', layer('life.opacity')],
  ['fade', layer('life.opacity')],
  ['colour', layer('life.colour')],
  ['color', layer('life.colour')],
  ['color by age', layer('life.colour')],
  ['brightness', layer('life.intensity')],
  ['emissive', layer('life.intensity')],
  ['rotation', layer('life.angle')],
  ['rotation at birth', layer('life.angle')],
  ['random rotation', layer('life.angle')],
  ['angular velocity', layer('life.turning')],
  ['rotation speed', layer('life.turning')],
  ['aspect ratio', layer('life.width')],
  ['pivot', layer('appearance.pivotAcross')],
  ['facing', layer('appearance.facing')],
  ['alignment', layer('appearance.facing')],
  ['billboard', choice('appearance.facing', 'camera')],
  ['camera facing', choice('appearance.facing', 'camera')],
  ['velocity aligned', choice('appearance.facing', 'motion')],
  ['streak along motion', choice('appearance.facing', 'motion')],
  ['motion stretch', layer('appearance.lengthening')],
  ['decal', layer('appearance.wraps')],
  ['projection depth', layer('appearance.wrapDepth')],
  ['lighting', layer('appearance.lit')],
  ['unlit', choice('appearance.lit', 'unlit')],
  ['blend mode', layer('appearance.blend')],
  ['blending', layer('appearance.blend')],
  ['additive', choice('appearance.blend', 'additive')],
  ['alpha blend', choice('appearance.blend', 'normal')],
  ['multiply', choice('appearance.blend', 'multiply')],
  ['opaque', choice('appearance.blend', 'solid')],
  ['masked', choice('appearance.blend', 'holes')],
  ['alpha clip', choice('appearance.blend', 'holes')],
  ['cut-out', choice('appearance.blend', 'holes')],
  ['alpha threshold', layer('appearance.threshold')],
  ['draw order', layer('appearance.order')],
  ['sorting', layer('appearance.order')],
  ['render order', layer('appearance.order')],
  ['depth test', layer('appearance.depth')],
  ['depth bias', layer('appearance.nudge')],
  ['always on top', choice('appearance.depth', 'never hidden')],
  ['roughness', 'drawn/motes:roughness'],
  ['metalness', 'drawn/motes:metalness'],
  ['metallic', 'drawn/motes:metalness'],
  ['morph', 'drawn/motes:otherShape'],
  ['blend shape', 'drawn/motes:otherShape'],
  ['vertex colors', 'drawn/motes:vertexColours'],
  ['cast shadows', 'drawn/motes:shadow'],
  ['turbulence', 'add force curl'],
  ['curl noise', 'add force curl'],
  ['damping', 'add force drag'],
  ['air resistance', 'add force drag'],
  ['gravity', 'add force gravity'],
  ['attractor', 'add force attraction'],
  ['point force', 'add force attraction'],
  ['repulsion', 'add force attraction'],
  ['vortex', 'add force vortex'],
  ['swirl', 'add force vortex'],
  ['tornado', 'add force vortex'],
  ['directional force', 'force breeze'],
  ['orbit', 'add force orbit'],
  ['shockwave', 'add force push'],
  ['explosion', 'add force push'],
  ['speed limit', 'add force limit'],
  ['velocity over life', 'add force velocity'],
  ['jitter', 'add force jitter'],
  ['collision', 'surface ground'],
  ['collider', 'surface ground'],
  ['texture', 'add step picture'],
  ['flipbook', 'add step picture'],
  ['sprite sheet', 'add step picture'],
  ['frame rate', 'absent picture rate'],
  ['tiling', 'absent scroll repeatAcross'],
  ['UV scroll', 'add step scroll'],
  ['panning', 'add step scroll'],
  ['erosion', 'add step dissolve'],
  ['dissolve', 'add step dissolve'],
  ['burn away', 'add step dissolve'],
  ['edge width', 'absent dissolve edge'],
  ['fresnel', 'add step rim'],
  ['rim light', 'add step rim'],
  ['fresnel power', 'absent rim sharpness'],
  ['color ramp', 'add step gradient'],
  ['contrast', 'add step contrast'],
  ['noise distortion', 'add step warp'],
  ['soft particles', 'add step soft'],
  ['depth fade', 'add step soft'],
  ['soft edge', 'step look'],
  ['child particles', 'set off sparks'],
  ['secondary particles', 'set off sparks'],
  ['trail', 'drawn trail'],
  ['ribbon', 'drawn strand'],
  ['lightning', 'drawn beam'],
  ['laser', 'drawn beam'],
  ['distortion', 'drawn haze'],
  ['refraction', 'drawn haze'],
  ['heat haze', 'drawn haze'],
  ['weapon trail', 'drawn blade'],
  ['point light', 'drawn light'],
  ['geometry', 'drawn mesh'],
  ['material override', 'drawn body'],
  ['skinned mesh', 'source mesh'],
  ['skeleton', 'source bones'],
  ['spline', 'source path'],
  ['impacts', 'source hits'],
  ['ring', 'source ring'],
  ['sphere', 'source sphere'],
  ['new layer', 'add layer'],
  ['fire', 'ready flame'],
  ['duplicate', command('layer.duplicate')],
  ['solo', command('layer.alone')],
  ['isolate', command('layer.alone')],
  ['hide', command('layer.hide')],
  ['lock', command('layer.lock')],
  ['mirror', command('layer.mirror')],
  ['parameter', command('whole.dials')],
  ['expose', command('whole.dials')],
  ['variant', command('whole.siblings')],
  ['swatches', command('whole.palette')],
  ['level of detail', command('whole.quality')],
  ['LOD', command('whole.quality')],
  ['export', command('effect.export')],
  ['image sequence', command('effect.export')],
  ['undo', command('undo')],
  ['replay', command('play.again')],
  ['slow motion', command('play.slower')],
  ['keyframe', command('handle.key')],
  ['shortcuts', command('keys.list')],
  ['restore', command('page.history')],
  ['statistics', command('page.time')],
  ['bloom', command('stage.raw')],
  ['Sparks', 'layer sparks'],
  ['Reed Cleave', 'effect e'],
];
const idsFor = (query: string, most: number) => found.find(query, most).map(({ id }) => id);
const isMeant = (ids: readonly string[], meant: string) =>
  ids.some((id) => id === meant || (meant === 'step look' && id.startsWith('step/motes/')));

/** A word with one of its letters changed to another, each in turn. */
function mistyped(word: string): string[] {
  return [...word].flatMap((letter, n) =>
    /[a-z]/i.test(letter) ? [word.slice(0, n) + (letter === 'x' ? 'z' : 'x') + word.slice(n + 1)] : [],
  );
}

describe('the box', () => {
  it('knows at least 150 words', () => expect(new Set(WORDS.map(([word]) => word)).size).toBeGreaterThanOrEqual(150));

  it.each(WORDS)('finds “%s” first or second', (word, meant) => {
    const ids = idsFor(word, 2);
    expect(isMeant(ids, meant), ids.join(', ')).toBe(true);
  });

  it.each(WORDS)('finds “%s” among the first three with any letter wrong', (word, meant) => {
    const lost = mistyped(word).filter((wrong) => !isMeant(idsFor(wrong, 3), meant));
    expect(lost.map((wrong) => `${wrong}: ${idsFor(wrong, 3).join(', ')}`)).toEqual([]);
  });
});
