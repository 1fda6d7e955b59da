import {
  LAYER_SETTINGS,
  listed,
  type Effect,
  type Layer,
  type LayerSettingName,
  type Lineage,
  type NumberDeclaration,
  type NumberSetting,
  type Vector,
} from '../document/index.ts';
import { Channels } from './channels.ts';
import { lookPlan, LookValues } from './looks/index.ts';
import { EffectClock } from './clock.ts';
import { boundForces, type BoundForce } from './boundForces.ts';
import { boundBeam, type BoundBeam } from './ribbons/bind.ts';
import type { FrontReader } from './fronts/index.ts';
import { groupFrame, type GroupFrame } from './groups.ts';
import { bindLinks, type BoundLink, type passedOn } from './links/index.ts';
import { SHORTEST_STANDING, type Population } from './population.ts';
import { windowOf, type BirthWindow } from './moments.ts';
import { RateIntegral } from './rate.ts';
import { ColourReader, newReading, NumberReader } from './reader.ts';
import { Launch } from './launch.ts';
import type { Scene } from './scene.ts';
import type { Signals } from './signals.ts';
import { type Strike, sourceReader, type SourceReader } from './sources/index.ts';

export type Numbers = {
  readonly [K in LayerSettingName as Layer['settings'][K] extends NumberSetting ? K : never]: NumberReader;
};

/** A layer with everything looked up once: what a step reads. */
export interface CompiledLayer {
  readonly id: string;
  readonly layer: Layer;
  readonly group: GroupFrame;
  readonly numbers: Numbers;
  readonly colour: ColourReader;
  readonly channels: Channels;
  readonly look: LookValues;
  readonly turnsInLives: boolean;
  /** Whether the metres its particles travel are kept for what is shaped by them. */
  readonly keepsDistance: boolean;
  readonly source: SourceReader;
  readonly rate: RateIntegral;
  /** When its births may happen. */
  readonly window: BirthWindow;
  /** When the effect's time begins. */
  readonly beginsAt: number;
  readonly bursts: Layer['bursts'];
  /** When what bursts wait for comes. */
  readonly signals: Signals;
  readonly forces: readonly BoundForce[];
  /** The lifetime all its particles share, in seconds; null where they differ. */
  readonly life: number | null;
  readonly cap: number;
  readonly isOnGround: boolean;
  /** Share of its carrier's motion that particles go with, 0..1. What lies on the ground stays there. */
  readonly ride: number;
  readonly launch: Launch;
  /** Metres a second added at birth, along the axes of what particles are born on. */
  readonly velocityBeside: Vector;
  /** Whether particles keep the colour of where they were born. */
  readonly takesColour: boolean;
  /** Whether links may give its particles colours, or sizes, to begin with. */
  readonly isGivenColour: boolean;
  readonly isGivenSize: boolean;
  readonly links: readonly BoundLink[];
  /** The front that frees its particles. */
  readonly front: FrontReader | null;
  readonly holds: boolean;
  /** The beam that its particles are drawn as. */
  readonly beam: BoundBeam | null;
}

function plainVector(layer: Layer, name: 'motion.axis' | 'motion.velocity'): Vector {
  const setting = layer.settings[name];
  const byDefault = LAYER_SETTINGS[name].byDefault;
  return setting.muted || setting.base.kind !== 'fixed'
    ? [byDefault[0], byDefault[1], byDefault[2]]
    : setting.base.value;
}

const scaled = ([x, y, z]: Vector, scale: number): Vector => [x * scale, y * scale, z * scale];

/** How many times larger particles are drawn for the area that a lower density leaves out. */
export const sizeForDensity = ({ share, keepsArea }: Effect['stage']['density']): number =>
  keepsArea ? Math.sqrt(100 / share) : 1;

/** One number of a layer, ready to be read, by itself and outside of any group. */
export const numberReader = (layer: Layer, name: keyof Numbers, effect: Pick<Effect, 'measures'>): NumberReader =>
  new NumberReader(layer.settings[name] as NumberSetting, LAYER_SETTINGS[name] as NumberDeclaration, name, effect);

/** The number settings of a layer, ready to be read; `group` is the scale of its groups, `larger` what is made of sizes beside. */
export function numberReaders(layer: Layer, effect: Pick<Effect, 'measures'>, group: number, larger = 1): Numbers {
  const entries = Object.entries(LAYER_SETTINGS).flatMap(([name, declaration]) => {
    if (declaration.value !== 'number') return [];
    const setting = layer.settings[name as LayerSettingName] as NumberSetting;
    const times = name === 'life.size' ? larger : 1;
    return [[name, new NumberReader(setting, declaration as NumberDeclaration, name, effect, { group, times })]];
  });
  return Object.fromEntries(entries) as Numbers;
}

/** The lifetime all particles of a layer share; null where they differ. Standing ones live as long as the effect. */
function sharedLife(layer: Layer, numbers: Numbers, clock: EffectClock): number | null {
  const stand = numbers['births.standing'].low > 0;
  const hasArea = numbers['births.perArea'].low > 0;
  if (!stand && !hasArea) return numbers['births.life'].isConstant ? numbers['births.life'].low : null;
  const only = numbers['births.rate'].isConstant && numbers['births.rate'].low === 0;
  const hasOthers = numbers['births.perMetre'].low > 0 || layer.bursts.order.length > 0;
  return only && !hasOthers ? Math.max(clock.length, SHORTEST_STANDING) : null;
}

/** Whether a layer's particles turn so many times in a life, rather than so fast. */
export const turnsInLives = ({ settings }: Layer): boolean =>
  !settings['life.turns'].muted && settings['life.turns'].base.value === 'turns a life';

/** A layer's colour, ready to be read; `group` is the scale of its groups. */
export const colourReader = (
  layer: Layer,
  effect: Pick<Effect, 'palette'>,
  group: number,
  isPassedOn = false,
): ColourReader =>
  new ColourReader(layer.settings['life.colour'], LAYER_SETTINGS['life.colour'], 'life.colour', effect, {
    isPassedOn,
    group,
  });

function shareOf(dial: Effect['dials']['byId'][string]): number {
  if (dial.kind === 'switch') return dial.value ? 1 : 0;
  if (dial.kind !== 'number') return 0;
  return dial.most > dial.least ? (dial.value - dial.least) / (dial.most - dial.least) : 0;
}

/** Which shares of their ranges the dials stand at. */
export function dialShares(effect: Pick<Effect, 'dials'>): Record<string, number> {
  return Object.fromEntries(listed(effect.dials).map(({ id, item }) => [id, shareOf(item)]));
}

/** What all layers of an effect are compiled with. */
export interface Compiling {
  readonly effect: Effect;
  readonly scene: Scene;
  readonly clock: EffectClock;
  readonly lineage: Lineage;
  /** Release fronts by id: layers of one front are freed by the same border. */
  readonly fronts: ReadonlyMap<string, FrontReader>;
  readonly passedOn: ReturnType<typeof passedOn>;
  /** Layers whose particles' metres are kept. */
  readonly keepDistance: ReadonlySet<string>;
  /** The particles of another layer. */
  readonly populationOf: (id: string) => Population | null;
  /** Blows from outside. */
  readonly strikes: () => readonly Strike[];
  readonly signals: Signals;
}

export function compileLayer(id: string, around: Compiling): CompiledLayer {
  const { effect, scene, clock } = around;
  const layer = effect.layers.byId[id]!;
  const populationOf = around.lineage.unborn.has(id) ? () => null : around.populationOf;
  const group = groupFrame(effect, layer.parent);
  const numbers = numberReaders(layer, effect, group.scale, sizeForDensity(effect.stage.density));
  const cap = layer.settings['births.cap'];
  const ground = layer.settings['source.ground'];
  const isOnGround = !ground.muted && ground.base.value;
  const fixed = (setting: NumberSetting, otherwise: number) =>
    setting.muted
      ? otherwise
      : setting.base.kind === 'fixed'
        ? setting.base.value
        : setting.base.kind === 'measure'
          ? effect.measures.byId[setting.base.measure]!.value
          : otherwise;
  const life = sharedLife(layer, numbers, clock);
  return {
    id,
    layer,
    group,
    numbers,
    look: new LookValues(lookPlan(effect, layer, group.scale), life),
    colour: colourReader(layer, effect, group.scale, around.passedOn.colour.has(id)),
    turnsInLives: turnsInLives(layer),
    channels: new Channels(layer, effect, group.scale, around.passedOn.channels.has(id)),
    keepsDistance: around.keepDistance.has(id),
    source: sourceReader({ layer, scene, group, numbers, populationOf, strikes: around.strikes }),
    rate: new RateIntegral(numbers['births.rate'], clock, dialShares(effect), layer.births.until === null),
    window: windowOf(layer, effect, clock),
    beginsAt: clock.beginsAt,
    bursts: layer.bursts,
    signals: around.signals,
    forces: boundForces(id, group, effect),
    life,
    cap: Math.floor(fixed(cap, 10_000)),
    isOnGround,
    ride: isOnGround ? 0 : numbers['motion.ride'].read(newReading()) / 100,
    launch: new Launch(layer, plainVector(layer, 'motion.axis'), scene, group),
    velocityBeside: scaled(plainVector(layer, 'motion.velocity'), group.scale),
    isGivenColour: around.passedOn.colour.has(id),
    isGivenSize: around.passedOn.size.has(id),
    links: bindLinks(id, effect, around.lineage),
    front: (layer.front !== null && around.fronts.get(layer.front)) || null,
    holds: layer.front !== null,
    beam: boundBeam(layer.drawn, effect, group.scale),
    takesColour: layer.settings['life.colour'].base.kind === 'taken' && !layer.settings['life.colour'].muted,
  };
}
