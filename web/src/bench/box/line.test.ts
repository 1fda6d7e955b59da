import {
  atEffect,
  burst,
  collectionOf,
  holderAt,
  namedColour,
  newEffect,
  newForce,
  newLayer,
  newRibbon,
  newThing,
  structuredCopy,
  withItem,
  withoutItem,
  type Effect,
  type NumberSetting,
  type Setting,
} from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { Finder } from '../pick/finder';
import { suggestionsFor, type Suggestion } from './line';
import type { Tools } from './target';
import { targetsOf } from './targets';

function effect(): Effect {
  const made = newEffect('Box', 1);
  const layer = newLayer('Motes', 2);
  layer.source = { kind: 'ring', place: atEffect([0, 1, 0]) };
  layer.forces = collectionOf([['vortex', newForce('vortex')]]);
  made.layers = collectionOf([['motes', layer]]);
  made.layers = withItem(made.layers, 'sparks', { ...newLayer('Sparks', 3), drawn: newRibbon('trail') });
  made.measures = collectionOf([['arm', { name: 'Arm', quantity: 'length', value: 2 }]]);
  made.dials = collectionOf([['target', { kind: 'place', name: 'Target', at: [0, 1, 0] }]]);
  made.palette = collectionOf([['lamp', namedColour('Lamp', '#e8f070')]]);
  made.stage.things = collectionOf([['sedge', newThing('Sedge', 'a'.repeat(64))]]);
  return made;
}
const RIGS = new Map([['sedge', { bones: [{ name: 'head' }, { name: 'hand.left' }] }]]) as never;

/** A document with the box over it: what a line means, and what carrying it out makes of the document. */
function bench() {
  let document = effect();
  let ids = 0;
  const led: string[] = [];
  const change = (recipe: (draft: Effect) => void) => {
    const draft = structuredCopy(document);
    recipe(draft);
    document = draft;
  };
  const none = () => undefined;
  const tools: Tools = {
    effect: () => document,
    chosenId: () => 'motes',
    chosenIds: () => ['motes'],
    newId: () => `n${++ids}`,
    life: () => 6,
    change: (_, recipe) => change(recipe),
    changeLayers: (_, recipe) => change((draft) => recipe(draft.layers.byId['motes']!, 'motes')),
    changeSetting: ({ setting, ...address }, _, recipe) =>
      change((draft) => recipe(holderAt(draft, address as never)!.settings[setting] as Setting, draft)),
    changeForce: (_, address, recipe) =>
      change((draft) => address.kind === 'force' && recipe(draft.layers.byId['motes']!.forces.byId[address.id]!)),
    removeForce: ({ id }) =>
      change(({ layers }) => (layers.byId['motes']!.forces = withoutItem(layers.byId['motes']!.forces, id))),
    muteStep: none,
    removeStep: none,
    leadTo: (chapter, chip) => void led.push(`${chapter} ${chip ?? ''}`.trim()),
    focus: (label) => void led.push(label),
    showWhole: () => undefined,
    add: (what) => {
      if (what.kind !== 'force') throw new Error(`the test adds forces only, not ${what.kind}`);
      const id = `n${++ids}`;
      change((draft) => {
        const { forces } = draft.layers.byId['motes']!;
        draft.layers.byId['motes']!.forces = withItem(forces, id, newForce(what.of));
      });
      return id;
    },
    command: () => undefined,
    showPicture: () => undefined,
    fit: () => undefined,
  };
  const means = (text: string): Suggestion[] =>
    suggestionsFor(
      text,
      new Finder(
        targetsOf({
          ...{
            effect: document,
            layerId: 'motes',
            chosenIds: ['motes', 'sparks'],
            rigs: RIGS,
            assets: [],
            surfaces: [],
            fits: [],
            commands: [],
            keysOf: () => [],
            findings: [],
          },
          ...{ guide: [], effects: [], choose: none, open: none, lead: none },
        }),
      ),
      tools,
    );
  const say = (text: string) => {
    const [first] = means(text);
    if (!first) throw new Error(`nothing is meant by ${text}`);
    if (first.problem) throw new Error(first.problem);
    first.run(tools);
    return first.text;
  };
  return { means, say, led, layer: () => document.layers.byId['motes']!, document: () => document };
}
const settingOf = (made: ReturnType<typeof bench>, name: string) =>
  made.layer().settings[name as 'life.size'] as NumberSetting;

describe('a line of the box', () => {
  it.each<[string, string, unknown]>([
    ['rate 35', 'births.rate', { kind: 'fixed', value: 35 }],
    ['spawn rate *2', 'births.rate', { kind: 'fixed', value: 80 }],
    ['lifetime 0.7-0.9', 'births.life', { kind: 'spread', low: 0.7, high: 0.9 }],
    ['lifetime: 5 to 7', 'births.life', { kind: 'spread', low: 5, high: 7 }],
    ['size 3-18 cm', 'life.size', { kind: 'spread', low: 0.03, high: 0.18 }],
    ['lifetime +-20%', 'births.life', { kind: 'spread', low: 0.8, high: 1.2 }],
    ['box size 1.5, 0, 0.6', 'source.size', { kind: 'fixed', value: [1.5, 0, 0.6] }],
    ['launch axis up', 'motion.axis', { kind: 'fixed', value: [0, 1, 0] }],
    ['additive', 'appearance.blend', { kind: 'fixed', value: 'additive' }],
    ['blending multiply', 'appearance.blend', { kind: 'fixed', value: 'multiply' }],
    ['facing flat', 'appearance.facing', { kind: 'fixed', value: 'ground' }],
    ['decal on', 'appearance.wraps', { kind: 'fixed', value: true }],
    ['colour Lamp', 'life.colour', { kind: 'fixed', value: { palette: 'lamp' } }],
    ['color teal', 'life.colour', { kind: 'fixed', value: { hex: '#008080' } }],
    // A letter wrong.
    ['lifetme 3', 'births.life', { kind: 'fixed', value: 3 }],
  ])('“%s” sets %s', (text, setting, base) => {
    const made = bench();
    made.say(text);
    expect(settingOf(made, setting).base).toEqual(base);
    expect(made.led.at(-1)).toContain(`layer/motes:${setting}`);
  });

  it('shapes a number over age: values, and where they stand, by a share of life or by seconds', () => {
    const made = bench();
    made.say('size 2 m over age 25%, 120% at 33%, 0');
    const { base, shapers } = settingOf(made, 'life.size');
    expect(base).toEqual({ kind: 'fixed', value: 2 });
    const [id] = shapers.order;
    const { mapping, combine } = shapers.byId[id!]!;
    const keys = mapping.kind === 'curve' ? Object.values(mapping.curve.keys.byId) : [];
    expect(keys.map(({ at, value }) => [at.value, value])).toEqual([
      [0, 0.25],
      [0.33, 1.2],
      [1, 0],
    ]);
    expect(combine).toBe('multiply');
    made.say('opacity over age 0, 100% at 0.5 s, 100% at -1.5 s, 0');
    const fade = settingOf(made, 'life.opacity').shapers;
    const mapped = fade.byId[fade.order[0]!]!.mapping;
    const places = mapped.kind === 'curve' ? Object.values(mapped.curve.keys.byId).map(({ at }) => at) : [];
    expect(places).toEqual([
      { anchor: 'share', value: 0 },
      { anchor: 'afterBirth', value: 0.5 },
      { anchor: 'beforeDeath', value: 1.5 },
      { anchor: 'share', value: 1 },
    ]);
    made.say('intensity rising');
    expect(settingOf(made, 'life.intensity').shapers.order).toHaveLength(1);
  });

  it('makes a gradient of several colours', () => {
    const made = bench();
    made.say('colour #ffffff, Lamp at 25%, teal');
    const { shapers } = made.layer().settings['life.colour'];
    const { mapping, combine } = shapers.byId[shapers.order[0]!]!;
    const stops = mapping.kind === 'gradient' ? Object.values(mapping.stops.byId) : [];
    expect(stops.map(({ at, colour }) => [at.value, colour])).toEqual([
      [0, { hex: '#ffffff' }],
      [0.25, { palette: 'lamp' }],
      [1, { hex: '#008080' }],
    ]);
    expect(combine).toBe('replace');
  });

  it('sets numbers of forces that are there, and adds those that are not', () => {
    const made = bench();
    expect(made.means('vortex')[0]!.id).toBe('force vortex');
    made.say('vortex spin 5');
    made.say('curl strength 3');
    made.say('mute vortex');
    const { forces } = made.layer();
    expect(forces.order).toHaveLength(2);
    expect(forces.byId['vortex']!.muted).toBe(true);
    const [vortex, curl] = forces.order.map((id) => forces.byId[id]!);
    expect((vortex!.settings as Record<string, NumberSetting>)['strength']!.base).toMatchObject({ value: 5 });
    expect(curl!.kind).toBe('curl');
    expect((curl!.settings as Record<string, NumberSetting>)['strength']!.base).toMatchObject({ value: 3 });
    made.say('remove vortex');
    expect(made.layer().forces.order).toEqual([forces.order[1]]);
  });

  it('says where something stands and how it is turned', () => {
    const made = bench();
    made.say('place head 0, 0.22, 0');
    const place = () => {
      const { source } = made.layer();
      return 'place' in source ? source.place : null;
    };
    expect(place()).toMatchObject({ kind: 'bone', bone: 'head', offset: [0, 0.22, 0] });
    made.say('turn 14, 0, 0');
    expect(place()).toMatchObject({ bone: 'head', turn: [14, 0, 0] });
    made.say('place 0, 1, 0');
    expect(place()).toMatchObject({ kind: 'bone', offset: [0, 1, 0] });
    made.say('vortex place hand.left');
    expect(made.layer().forces.byId['vortex']!.place).toMatchObject({ kind: 'bone', bone: 'hand.left' });
  });

  it('spreads a vector that each particle may have its own of', () => {
    const made = bench();
    const tilt = () => made.layer().settings['life.tilt'].base;
    made.say('tilt -180 to 180');
    expect(tilt()).toEqual({ kind: 'spread', low: [-180, -180, -180], high: [180, 180, 180] });
    made.say('tilt 0-360');
    expect(tilt()).toEqual({ kind: 'spread', low: [0, 0, 0], high: [360, 360, 360] });
    made.say('tilt 0, 0, 0 to 10, 360, 10');
    expect(tilt()).toEqual({ kind: 'spread', low: [0, 0, 0], high: [10, 360, 10] });
  });

  it('chooses what a setting needs to act', () => {
    const made = bench();
    made.say('launch axis up');
    expect(made.layer().settings['motion.launch'].base.value).toBe('axis');
    made.say('angle of the tangent 35');
    expect(made.layer().settings['motion.launch'].base.value).toBe('tangent');
  });

  it('sets bursts and times', () => {
    const made = bench();
    made.say('burst 6');
    made.say('burst 18 at 0.2');
    const { bursts } = made.layer();
    expect(Object.values(bursts.byId)).toEqual([{ ...burst('hold', 0.2, 18) }]);
    made.say('burst 4 every 0.3, 3 times');
    expect(Object.values(made.layer().bursts.byId)).toEqual([{ ...burst('hold', 0.2, 4), every: 0.3, times: 3 }]);
    made.say('hold 4.5');
    made.say('opening 1.4 s');
    made.say('pre-roll 5');
    expect(made.document().stretches).toMatchObject({ opening: 1.4, hold: { seconds: 4.5 }, preRoll: 5 });
    made.say('once');
    expect(made.document().stretches.hold).toEqual({ kind: 'none' });
  });

  it('sets measures and dials by their names, and what only another chosen layer has', () => {
    const made = bench();
    made.say('Arm *1.5');
    made.say('Target 0.4, 0, 0');
    made.say('width along it 120');
    const { measures, dials, layers } = made.document();
    expect(measures.byId['arm']!.value).toBe(3);
    expect(dials.byId['target']).toMatchObject({ at: [0.4, 0, 0] });
    const { settings } = layers.byId['sparks']!.drawn as { settings: Record<string, NumberSetting> };
    expect(settings['width']!.base).toEqual({ kind: 'fixed', value: 120 });
  });

  it('reads a value before its name, units in words, and a colour alone', () => {
    const made = bench();
    expect(made.say('50 per second')).toBe('rate: 50/s');
    expect(made.say('lives 2 seconds')).toBe('lifetime: 2 s');
    expect(made.say('burst of 20')).toMatch(/^burst of 20/);
    expect(made.say('teal')).toBe('colour: teal');
    // Its letters could be digits of a colour.
    expect(made.means('add')[0]!.text).not.toMatch(/colour/);
  });

  it('gives a value to what is meant by the whole of a force', () => {
    const made = bench();
    expect(made.say('vortex 5')).toBe('spin: 5 m/s²');
    expect(made.say('turbulence 2')).toBe('add curl noise, strength: 2 m/s²');
    const attracted = made.means('attract to head 0, 0.2, 0').map(({ text }) => text);
    expect(attracted[0]).toMatch(/head/);
    expect(new Set(attracted).size).toBe(attracted.length);
    made.say('attract to head 0, 0.2, 0');
    expect(Object.values(made.layer().forces.byId).at(-1)).toMatchObject({ place: { bone: 'head' } });
  });

  it('fades in and out, each as the other stays', () => {
    const made = bench();
    made.say('fade in 0.2');
    made.say('fade out 0.5');
    const { mapping } = Object.values(settingOf(made, 'life.opacity').shapers.byId)[0]!;
    const keys = mapping.kind === 'curve' ? Object.values(mapping.curve.keys.byId) : [];
    expect(keys.map(({ at, value }) => [at.anchor, at.value, value])).toEqual([
      ['share', 0, 0],
      ['afterBirth', 0.2, 1],
      ['beforeDeath', 0.5, 1],
      ['share', 1, 0],
    ]);
    expect(made.say('shrink')).toMatch(/shrink/);
    expect(Object.keys(settingOf(made, 'life.size').shapers.byId)).toHaveLength(1);
  });

  it('delays what is chosen, and moves figures', () => {
    const made = bench();
    made.say('burst 6 at 0.2');
    made.say('later by 0.25');
    expect(Object.values(made.layer().bursts.byId)[0]!.at).toBe(0.45);
    expect(made.layer().births.from.seconds).toBe(0.25);
    made.say('sedge stands at 1.5, 0, 0');
    made.say('sedge turned by 90');
    const [sedge] = Object.values(made.document().stage.things.byId);
    expect(sedge).toMatchObject({ at: [1.5, 0, 0], facing: 90 });
  });

  it.each([
    ['opacity 300', /opacity may be 0 to 100%/],
    ['rate 1 to 2', /rate is one number/],
    ['launch axis 0-360', /axis may be -1 to 1/],
    ['colour Lamm', /is no colour/],
    ['place shoulder 0, 1, 0', /nothing that a place can hang on/],
    ['speed over age 0, 1', /speed is not shaped by age/],
  ])('“%s” is refused with the reason, and changes nothing', (text, reason) => {
    const made = bench();
    const before = made.document();
    const refused = made.means(text).find(({ problem }) => problem !== '');
    expect(refused?.problem).toMatch(reason);
    expect(made.document()).toBe(before);
  });

  it('leads to what is named without a value', () => {
    const made = bench();
    made.say('lifespan');
    expect(made.led).toEqual(['births layer/motes:births.life']);
  });
});
