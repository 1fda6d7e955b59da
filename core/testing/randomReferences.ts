import {
  collectionOf,
  curveShaper,
  derivedColour,
  gradientShaper,
  listed,
  namedColour,
  newDrawn,
  newGroup,
  newRibbon,
  newStep,
  structuredCopy,
  withItem,
  type Effect,
  type Id,
  type Layer,
  type Step,
  type Moment,
  type NumberSetting,
  type Place,
  FORCE_SETTINGS,
  LAYER_SETTINGS,
  settingsByName,
  stepTable,
  tableByName,
} from '../document/index.ts';
import { Dice } from './dice.ts';
import { RANDOM_BOX, randomEffect } from './randomEffect.ts';

const PICTURES = ['c', 'd', 'e'].map((digit, n) => ({ asset: digit.repeat(64), name: `Picture ${n}` }));
const MESH = { asset: RANDOM_BOX, name: 'box' };

/** What a layer of the random effects may refer to beside what they have already. */
function namedThings(effect: Effect, dice: Dice): void {
  effect.palette = collectionOf([
    ['ember', namedColour('Ember', '#ff7a2c')],
    ['ash', derivedColour('Ash', 'ember', { turned: 20, lighter: 0.4 })],
    ['soot', { ...derivedColour('Soot', 'ash', { lighter: -0.5 }), isDial: true }],
  ]);
  effect.measures = collectionOf([
    ['reach', { name: 'Reach', quantity: 'length', value: dice.number(0.5, 3) }],
    ['beat', { name: 'Beat', quantity: 'time', value: dice.number(0.1, 0.5) }],
  ]);
  effect.dials = collectionOf([
    ['charge', { kind: 'number', name: 'Charge', least: 0, most: 4, value: dice.number(0, 4) }],
    ['shown', { kind: 'switch', name: 'Shown', value: dice.comes(0.5) }],
    ['target', { kind: 'place', name: 'Target', at: [dice.number(), 1, 2] }],
    ['way', { kind: 'direction', name: 'Way', turn: [0, dice.number(0, 90), 10] }],
    ['mark', { kind: 'picture', name: 'Mark', standsFor: PICTURES[0]!, shows: PICTURES[1]! }],
    ['shard', { kind: 'mesh', name: 'Shard', standsFor: MESH, shows: { asset: 'f'.repeat(64), name: 'shard' } }],
  ]);
  effect.signals = collectionOf([
    ['strike', { name: 'Strike', tried: { stretch: 'hold', at: 0.2 } }],
    ['call', { name: 'Call', tried: null }],
  ]);
  effect.channels = withItem(effect.channels, 'wet', { name: 'wet' });
  const gradient = newStep('gradient');
  gradient.stops.byId['end']!.colour = { palette: 'ash' };
  const pictured: Step = { ...newStep('picture'), picture: PICTURES[dice.comes(0.5) ? 0 : 2]! };
  effect.looks = collectionOf([
    [
      'common',
      {
        name: 'Common',
        steps: collectionOf<Step>([
          ['p', pictured],
          ['g', gradient],
          ['w', newStep('warp')],
        ]),
      },
    ],
    ['edge', { name: 'Edge', steps: collectionOf<Step>([['r', newStep('rim')]]) }],
  ]);
  if (dice.comes(0.5)) effect.stage.air.surroundings.picture = PICTURES[dice.comes(0.5) ? 0 : 1]!;
}

/** Lets a setting use what is named, one way or another. */
function refer(holder: { readonly settings: object }, name: string, table: object, dice: Dice): void {
  const setting = settingsByName(holder)[name];
  const declaration = tableByName(table)[name];
  if (!setting || !declaration) return;
  const ends = [
    [0, 0.5],
    [1, 1.5],
  ] as const;
  const { base } = setting;
  const isNumber = (base.kind === 'fixed' && typeof base.value === 'number') || base.kind === 'spread';
  if (!isNumber || setting.shapers.order.length > 1) return;
  const shaper = curveShaper(ends, dice.comes(0.5) ? 'multiply' : 'replace');
  const reads = dice.comes(0.5)
    ? ({ kind: 'dial', dial: 'charge' } as const)
    : ({ kind: 'channel', channel: dice.comes(0.5) ? 'heat' : 'wet' } as const);
  if (declaration.reads.includes(reads.kind))
    setting.shapers = withItem(setting.shapers, 'named', { ...shaper, reads });
}

const momentOn = (layer: Id, dice: Dice): Moment => ({
  after: { kind: 'layer', layer, event: dice.comes(0.5) ? 'firstBirth' : 'lastDeath' },
  seconds: dice.number(-0.1, 0.4),
  measure: dice.comes(0.3) ? 'beat' : null,
});

const dialled = (place: Place, dice: Dice): Place => ({
  kind: 'dial',
  dial: dice.comes(0.5) ? 'target' : 'way',
  offset: place.offset,
  turn: place.turn,
  keys: place.keys,
});

function referInLayer(layer: Layer, earlier: readonly Id[], others: readonly Id[], dice: Dice): void {
  const [before] = earlier;
  const other = others[Math.floor(dice.number(0, others.length))];
  if (dice.comes(0.4)) refer(layer, 'life.size', LAYER_SETTINGS, dice);
  if (dice.comes(0.4)) refer(layer, 'motion.speed', LAYER_SETTINGS, dice);
  if (dice.comes(0.4)) layer.settings['life.size'].base = { kind: 'measure', measure: 'reach' };
  if (dice.comes(0.4)) layer.settings['life.colour'].base = { kind: 'fixed', value: { palette: 'soot' } };
  else if (dice.comes(0.4))
    layer.settings['life.colour'].base = {
      kind: 'set',
      values: [
        { value: { palette: 'ash' }, weight: 1 },
        { value: { hex: '#102030' }, weight: 2 },
      ],
    };
  if (dice.comes(0.4))
    layer.settings['life.colour'].shapers = collectionOf([
      [
        'g',
        gradientShaper([
          [0, { palette: 'ember' }],
          [1, { palette: 'ash' }],
        ]),
      ],
    ]);
  for (const { item } of listed(layer.forces)) {
    if (dice.comes(0.3)) item.place = dialled(item.place, dice);
    const [name] = Object.keys(item.settings).filter((each) => each !== 'share');
    if (name !== undefined && dice.comes(0.3)) refer(item, name, FORCE_SETTINGS[item.kind], dice);
  }
  if ('place' in layer.source && dice.comes(0.3)) layer.source.place = dialled(layer.source.place, dice);
  if (dice.comes(0.3)) layer.aim = dialled(layer.aim, dice);
  if (dice.comes(0.5)) layer.seenBy = 'shown';
  if (other !== undefined && dice.comes(0.4)) layer.inside = other;
  if (before !== undefined && dice.comes(0.5)) layer.births.from = momentOn(before, dice);
  if (before !== undefined && dice.comes(0.4)) layer.births.until = momentOn(before, dice);
  if (before !== undefined && dice.comes(0.25)) layer.population = { kind: 'follows', layer: before };
  layer.bursts = withItem(layer.bursts, 's', {
    signal: dice.comes(0.6) ? (dice.comes(0.5) ? 'strike' : 'call') : null,
    stretch: 'hold',
    at: 0.1,
    count: 3,
    most: 5,
    times: 1,
    every: 1,
    muted: false,
  });
  if (dice.comes(0.4)) {
    layer.look = { kind: 'named', look: dice.comes(0.6) ? 'common' : 'edge', changes: {} };
    const step = newStep(layer.look.look === 'common' ? 'warp' : 'rim');
    const [name] = Object.entries(step.settings).flatMap(([each, setting]) =>
      typeof (setting as { base: { value?: unknown } }).base.value === 'number' ? [each] : [],
    );
    if (name !== undefined && dice.comes(0.6)) {
      refer(step, name, stepTable(step.kind), dice);
      layer.look.changes[layer.look.look === 'common' ? 'w' : 'r'] = {
        [name]: settingsByName<NumberSetting>(step)[name]!,
      };
    }
  } else if (layer.look.kind === 'own' && dice.comes(0.5)) {
    const gradient = newStep('gradient');
    gradient.stops.byId['start']!.colour = { palette: 'soot' };
    layer.look.steps = withItem(layer.look.steps, 'named', gradient);
  }
  if (dice.comes(0.2))
    layer.drawn = {
      ...newDrawn('mesh'),
      meshes: collectionOf([['m', { ...MESH, chance: 1 }]]),
      parts: [{ part: 'rim', look: 'edge' }],
    };
  else if (dice.comes(0.2)) layer.drawn = { ...newDrawn('haze'), picture: PICTURES[0]! };
  else if (dice.comes(0.2)) layer.drawn = newRibbon('beam', dialled(layer.aim, dice), layer.aim);
  else if (dice.comes(0.2)) layer.drawn = newDrawn('body', 'tube');
}

/** A random effect in which everything that can be referred to is, by one layer or another; the same for the same seed. */
export function randomReferences(seed: number): Effect {
  const dice = new Dice(seed + 9000);
  const effect = structuredCopy(randomEffect(seed).effect);
  namedThings(effect, dice);
  const ids = effect.layers.order;
  ids.forEach((id, n) => {
    const earlier = ids.slice(0, n).reverse();
    const others = ids.filter((other) => other !== id);
    const layer = effect.layers.byId[id]!;
    referInLayer(layer, earlier, others, dice);
    const [front] = effect.fronts.order;
    if (layer.drawn.kind === 'body' && front !== undefined) layer.drawn.front = front;
  });
  for (const { item } of listed(effect.forces)) {
    item.layers = dice.comes(0.5) ? ids.slice(0, 1 + Math.floor(dice.number(0, ids.length))) : [];
    refer(item.force, Object.keys(item.force.settings)[0]!, FORCE_SETTINGS[item.force.kind], dice);
  }
  for (const { item } of listed(effect.surfaces)) {
    item.layers = dice.comes(0.5) ? ids.slice(0, 1 + Math.floor(dice.number(0, ids.length))) : [];
    if ('place' in item && dice.comes(0.4)) item.place = dialled(item.place, dice);
  }
  for (const { item } of listed(effect.fronts)) if (dice.comes(0.4)) item.place = dialled(item.place, dice);
  effect.groups = collectionOf([
    ['outer', newGroup('Outer')],
    ['inner', { ...newGroup('Inner', 'outer'), scale: 0.5, rotation: [0, 30, 0] }],
  ]);
  for (const { item } of listed(effect.layers))
    item.parent = dice.comes(0.4) ? 'inner' : dice.comes(0.3) ? 'outer' : null;
  if (dice.comes(0.3)) {
    const linked = randomEffect(seed + 1).effect as never;
    effect.groups = withItem(effect.groups, 'other', {
      ...newGroup('Other'),
      linked: { of: '00000000-0000-4000-8000-000000000000', effect: linked, hidden: false, inFront: true },
    });
  }
  // No object stands in it twice.
  return structuredCopy(effect);
}
