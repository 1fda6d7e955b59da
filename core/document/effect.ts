import { z } from 'zod';
import { collectionSchema, emptyCollection } from './collection.ts';
import {
  CHANNEL_SETTING,
  DRAWN_SETTINGS,
  FORCE_SETTINGS,
  FRONT_SETTINGS,
  LAYER_SETTINGS,
  LINK_SETTINGS,
  RIBBON_SETTINGS,
  SURFACE_SETTINGS,
  type ForceKind,
} from './declarations/index.ts';
import { layerLookSchema, lookSchema } from './look.ts';
import { asset, assetHash, ref, type RefRule } from './refs.ts';
import { hexSchema, itemName as name, vectorSchema, type NumberSetting } from './setting.ts';
import { settingSchema, settingsSchema } from './settingSchema.ts';

export const SCHEMA = 7;

const seed = z.number().int().min(0).max(0xffffffff);

/** A place at one moment of the time sheet; from it on the way to the next is eased, straight, or a step. */
export const placeKeySchema = z.strictObject({
  /** Seconds from the time sheet's left end. */
  at: z.number().min(0).max(3600),
  offset: vectorSchema,
  turn: vectorSchema,
  ease: z.enum(['smooth', 'straight', 'step']),
});
export type PlaceKey = z.infer<typeof placeKeySchema>;

/** How far a place is from what it hangs on, and how it is turned (degrees round X, then Y, then Z); with keys, these rule. */
const hung = { offset: vectorSchema, turn: vectorSchema, keys: collectionSchema(placeKeySchema, 64) };

/** What hangs on something else hangs on the effect instead, as far from it. */
const onEffect = ({ offset, turn, keys }: Hung): Place => ({ kind: 'effect', offset, turn, keys });
const hungOn = ref('things', { whenGone: 'stays', without: onEffect });

/** Where something stands: in the effect, in the world, at the feet of a thing on the stage, on one of its bones, or where a dial says. */
export const placeSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('effect'), ...hung }),
  z.strictObject({ kind: z.literal('world'), ...hung }),
  z.strictObject({ kind: z.literal('thing'), thing: hungOn, ...hung }),
  z.strictObject({ kind: z.literal('bone'), thing: hungOn, bone: z.string().max(80), ...hung }),
  /** Where a dial says: from its place in the world, or in the effect, turned by its direction. */
  z.strictObject({
    kind: z.literal('dial'),
    dial: ref('dials', { kinds: ['place', 'direction'], whenGone: 'value', use: 'where it stands' }),
    ...hung,
  }),
]);
export type Place = z.infer<typeof placeSchema>;
type Hung = Pick<Place, keyof typeof hung>;

const boneNames = z.array(z.string().max(80)).max(256);
const placed = { place: placeSchema };

/** A blow: when, where, with which share of its full strength (percent). The place's Y leads out of what is struck. */
export const hitSchema = z.strictObject({
  stretch: z.enum(['opening', 'hold', 'closing']),
  at: z.number().min(0).max(3600),
  place: placeSchema,
  strength: z.number().min(0).max(1000),
});
export type Hit = z.infer<typeof hitSchema>;

const onThing = ref('things', { whenGone: 'stays' });

/** Where particles are born. A mesh names bones to keep to the skin they move most; none is the whole skin. */
export const sourceSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('point'), ...placed }),
  z.strictObject({ kind: z.literal('line'), ...placed }),
  z.strictObject({
    kind: z.literal('path'),
    ...placed,
    /** Points of a drawn path, in metres from its place; it runs smoothly through them. */
    points: z.array(vectorSchema).min(2).max(256),
    closed: z.boolean(),
  }),
  z.strictObject({ kind: z.literal('ring'), ...placed }),
  z.strictObject({ kind: z.literal('disc'), ...placed }),
  z.strictObject({ kind: z.literal('box'), ...placed }),
  z.strictObject({ kind: z.literal('sphere'), ...placed }),
  z.strictObject({ kind: z.literal('cylinder'), ...placed }),
  z.strictObject({ kind: z.literal('cone'), ...placed }),
  z.strictObject({ kind: z.literal('mesh'), thing: onThing, bones: boneNames }),
  z.strictObject({ kind: z.literal('bones'), thing: onThing, bones: boneNames }),
  /** Where and when something is struck: by this list, and by strikes from outside, at which it listens. */
  z.strictObject({ kind: z.literal('hits'), hits: collectionSchema(hitSchema, 64) }),
  /** Where another layer's particles are. */
  z.strictObject({
    kind: z.literal('particles'),
    layer: ref('layers', {
      whenGone: () => ({
        kind: 'point',
        place: onEffect({ offset: [0, 1, 0], turn: [0, 0, 0], keys: emptyCollection() }),
      }),
      without: (_: object, { aim }: { readonly aim: Place }) => ({ kind: 'point', place: aim }),
      purpose: 'to be born on',
      lost: 'on whose particles they were born',
    }),
  }),
]);
export type Source = z.infer<typeof sourceSchema>;
export type SourceKind = Source['kind'];

function forceSchema<K extends ForceKind>(kind: K) {
  return z.strictObject({
    kind: z.literal(kind),
    muted: z.boolean(),
    place: placeSchema,
    settings: settingsSchema(FORCE_SETTINGS[kind]),
  });
}
export const anyForceSchema = z.discriminatedUnion('kind', [
  forceSchema('gravity'),
  forceSchema('wind'),
  forceSchema('drag'),
  forceSchema('attraction'),
  forceSchema('vortex'),
  forceSchema('orbit'),
  forceSchema('curl'),
  forceSchema('jitter'),
  forceSchema('push'),
  forceSchema('limit'),
  forceSchema('velocity'),
  forceSchema('displacement'),
]);
export type Force = z.infer<typeof anyForceSchema>;

/** A force of the effect's own: it acts on some layers, or with an empty list on all of them. */
export const sharedForceSchema = z.strictObject({
  force: anyForceSchema,
  layers: z.array(ref('layers', { whenGone: 'entry', purpose: 'to act on' })).max(128),
});
export type SharedForce = z.infer<typeof sharedForceSchema>;

const surfaceCommon = {
  muted: z.boolean(),
  /** Layers whose particles meet it; an empty list is every layer. */
  layers: z.array(ref('layers', { whenGone: 'entry', purpose: 'to be met by' })).max(128),
};
/** Something particles can hit or keep to. A thing is met as it stands and moves on the stage, a mesh where it is placed. */
export const surfaceSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('ground'),
    place: placeSchema,
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.ground),
  }),
  z.strictObject({
    kind: z.literal('sphere'),
    place: placeSchema,
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.sphere),
  }),
  z.strictObject({
    kind: z.literal('box'),
    place: placeSchema,
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.box),
  }),
  z.strictObject({
    kind: z.literal('thing'),
    thing: ref('things', { whenGone: 'stays' }),
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.thing),
  }),
  z.strictObject({
    kind: z.literal('mesh'),
    place: placeSchema,
    asset: asset('mesh'),
    name,
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.mesh),
  }),
  /** The mesh that the first particle of a standing layer is drawn as, in the shape it has. */
  z.strictObject({
    kind: z.literal('layer'),
    layer: ref('layers', { whenGone: 'item', purpose: 'whose mesh is met' }),
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.layer),
  }),
]);
export type Surface = z.infer<typeof surfaceSchema>;

/** A release front: a border that grows from a sphere or a box, or travels along its place's Y as a plane. */
export const frontSchema = z.strictObject({
  name,
  kind: z.enum(['sphere', 'box', 'plane']),
  place: placeSchema,
  settings: settingsSchema(FRONT_SETTINGS),
});
export type Front = z.infer<typeof frontSchema>;

/** Births at one instant: `count` to `most` of them, `at` seconds after the start of a stretch, or after a signal; and again if wanted. */
export const burstSchema = z.strictObject({
  /** Which signal it waits for; then its stretch says nothing. */
  signal: ref('signals', { whenGone: 'value' }).nullable(),
  stretch: z.enum(['opening', 'hold', 'closing']),
  at: z.number().min(0).max(3600),
  count: z.number().int().min(0).max(1_000_000),
  most: z.number().int().min(0).max(1_000_000),
  times: z.number().int().min(1).max(1000),
  /** Seconds from one time to the next. */
  every: z.number().min(0.01).max(600),
});
export type Burst = z.infer<typeof burstSchema>;

/** A moment of the effect's time: so many seconds, or a measure, after a border of its stretches or an event of a layer. */
const momentOf = (use: string, whenGone: RefRule['whenGone']) =>
  z.strictObject({
    after: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('border'), border: z.enum(['start', 'hold', 'letGo', 'end']) }),
      z.strictObject({
        kind: z.literal('layer'),
        layer: ref('layers', { whenGone, lost: 'on which births hung' }),
        event: z.enum(['firstBirth', 'lastBirth', 'lastDeath']),
      }),
    ]),
    seconds: z.number().min(-3600).max(3600),
    measure: ref('measures', { whenGone: 'value', use }).nullable(),
  });
const beginning = momentOf('when births begin', () => ({ kind: 'border', border: 'start' }));
const ending = momentOf('when births end', 'null');
export type Moment = z.infer<typeof beginning>;

const ribbon = <K extends keyof typeof RIBBON_SETTINGS>(kind: K) => ({
  kind: z.literal(kind),
  settings: settingsSchema(RIBBON_SETTINGS[kind]),
});
const drawnAs = <K extends keyof typeof DRAWN_SETTINGS>(kind: K) => ({
  kind: z.literal(kind),
  settings: settingsSchema(DRAWN_SETTINGS[kind]),
});
/** One of the meshes a layer's particles are drawn as, and how likely it is beside the others. */
export const drawnMeshSchema = z.strictObject({
  asset: asset('mesh', 'what it is drawn as'),
  name,
  chance: z.number().min(0).max(1000),
});
export type DrawnMesh = z.infer<typeof drawnMeshSchema>;

/** What a layer's particles are drawn as: each by itself, as ribbons, or on the skin of a thing. */
export const drawnSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('sprite') }),
  z.strictObject({
    ...drawnAs('mesh'),
    meshes: collectionSchema(drawnMeshSchema, 16),
    /** Parts of the meshes, by name, that have another look than the rest. */
    parts: z
      .array(
        z.strictObject({
          part: name,
          look: ref('looks', {
            whenGone: 'stays',
            purpose: ({ part }: { part: string }) => `for the part "${part}"`,
          }),
        }),
      )
      .max(32),
  }),
  z.strictObject(drawnAs('light')),
  z.strictObject({
    ...drawnAs('haze'),
    picture: z.strictObject({ asset: asset('picture', 'what bends it'), name }).nullable(),
  }),
  z.strictObject({
    ...drawnAs('body'),
    thing: ref('things', { whenGone: 'stays' }),
    front: ref('fronts', { whenGone: 'null' }).nullable(),
  }),
  z.strictObject(ribbon('trail')),
  z.strictObject(ribbon('strand')),
  z.strictObject({ ...ribbon('blade'), from: placeSchema, to: placeSchema }),
  z.strictObject({ ...ribbon('beam'), from: placeSchema, to: placeSchema }),
]);
export type DrawnAs = z.infer<typeof drawnSchema>;
export type Ribbon = Extract<DrawnAs, { kind: keyof typeof RIBBON_SETTINGS }>;
export const isRibbon = (drawn: DrawnAs): drawn is Ribbon => drawn.kind in RIBBON_SETTINGS;

/** What one layer's particles set off in another: at an event of each, or along its way. */
export const linkSchema = z.strictObject({
  on: z.enum(['birth', 'death', 'hit', 'release', 'along']),
  layer: ref('layers', { whenGone: 'item', lost: 'which was set off' }),
  salt: seed,
  muted: z.boolean(),
  settings: settingsSchema(LINK_SETTINGS),
});
export type Link = z.infer<typeof linkSchema>;

/** Channels an effect has at most. */
export const MOST_CHANNELS = 8;

/** A name under which particles carry a number of their own. */
export const channelSchema = z.strictObject({ name });
export type Channel = z.infer<typeof channelSchema>;

export const layerSchema = z.strictObject({
  name,
  drawn: drawnSchema,
  /** Keeps every particle's random draws through renaming, reordering and import. */
  salt: seed,
  parent: ref('groups', { whenGone: 'value' }).nullable(),
  population: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('own') }),
    z.strictObject({
      kind: z.literal('follows'),
      layer: ref('layers', {
        whenGone: () => ({ kind: 'own' }),
        purpose: 'to follow',
        lost: 'which was followed',
      }),
    }),
  ]),
  hidden: z.boolean(),
  solo: z.boolean(),
  locked: z.boolean(),
  source: sourceSchema,
  /** What a launch toward or round something aims at. */
  aim: placeSchema,
  /** The release front that frees its particles; until it has passed them they are held where they were born. */
  front: ref('fronts', { whenGone: 'null' }).nullable(),
  /** When births may happen; without an end they fade out over the closing. */
  births: z.strictObject({ from: beginning, until: ending.nullable() }),
  bursts: collectionSchema(burstSchema),
  forces: collectionSchema(anyForceSchema, 64),
  links: collectionSchema(linkSchema, 64),
  /** What it looks like: steps of its own, or a look that others use too. */
  look: layerLookSchema,
  /** Drawn only where that layer's particles cover the picture. */
  inside: ref('layers', {
    whenGone: 'null',
    isOther: true,
    purpose: 'to be drawn inside of',
    lost: 'inside of which it was drawn',
  }).nullable(),
  /** The switch among the dials by which it is seen; without one it always is. */
  seenBy: ref('dials', { kinds: ['switch'], whenGone: 'null', use: 'whether it is seen' }).nullable(),
  /** What its particles carry, by the id of the channel. */
  channels: collectionSchema(
    settingSchema(CHANNEL_SETTING) as z.ZodType<NumberSetting>,
    MOST_CHANNELS,
    ref('channels', { whenGone: 'item' }),
  ),
  settings: settingsSchema(LAYER_SETTINGS),
});
export type Layer = z.infer<typeof layerSchema>;

const grouped = {
  name,
  parent: ref('groups', { whenGone: 'value' }).nullable(),
  translation: vectorSchema,
  /** Degrees round X, then Y, then Z. */
  rotation: vectorSchema,
  scale: z.number().min(0.001).max(1000),
};

export const paletteEntrySchema = z.strictObject({
  name,
  colour: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('fixed'), hex: hexSchema }),
    /** Another entry, its hue turned by degrees, then mixed toward white (lighter above 0) or black (below 0). */
    z.strictObject({
      kind: z.literal('derived'),
      from: ref('palette', { whenGone: 'value' }),
      turned: z.number().min(-180).max(180),
      lighter: z.number().min(-1).max(1),
    }),
  ]),
  /** Whether it is brought out as a dial, for whoever places the effect to set. */
  isDial: z.boolean(),
});
export type PaletteEntry = z.infer<typeof paletteEntrySchema>;

export const measureSchema = z.strictObject({
  name,
  quantity: z.enum(['length', 'time', 'count']),
  value: z.number().min(0).max(1_000_000),
});
export type Measure = z.infer<typeof measureSchema>;

const standsFor = z.strictObject({ asset: assetHash, name });

/** A value brought out of the effect. What shapers read of a number is its share of the range, of a switch 0 or 1. */
export const dialSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('number'),
    name,
    least: z.number().min(-1e6).max(1e6),
    most: z.number().min(-1e6).max(1e6),
    value: z.number().min(-1e6).max(1e6),
  }),
  z.strictObject({ kind: z.literal('switch'), name, value: z.boolean() }),
  /** Metres in the world. */
  z.strictObject({ kind: z.literal('place'), name, at: vectorSchema }),
  /** Degrees round X, then Y, then Z. */
  z.strictObject({ kind: z.literal('direction'), name, turn: vectorSchema }),
  /** Whatever in the effect shows the one picture, or is drawn as the one mesh, shows or is the other. */
  z.strictObject({
    kind: z.literal('picture'),
    name,
    standsFor,
    shows: z.strictObject({ asset: asset('picture'), name }),
  }),
  z.strictObject({
    kind: z.literal('mesh'),
    name,
    standsFor,
    shows: z.strictObject({ asset: asset('mesh'), name }),
  }),
]);
export type Dial = z.infer<typeof dialSchema>;

/** A moment that the game announces. On the stage it may be tried, so many seconds into a stretch. */
export const signalSchema = z.strictObject({
  name,
  tried: z
    .strictObject({ stretch: z.enum(['opening', 'hold', 'closing']), at: z.number().min(0).max(3600) })
    .nullable(),
});
export type Signal = z.infer<typeof signalSchema>;

export const stretchesSchema = z.strictObject({
  opening: z.number().min(0).max(600),
  hold: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('none') }),
    /** Births run on until the effect is let go. */
    z.strictObject({ kind: z.literal('continuing'), seconds: z.number().min(0.1).max(600) }),
    /** Every turn is the same as the one before, so that it may be played round and round. */
    z.strictObject({ kind: z.literal('seamless'), seconds: z.number().min(0.1).max(600) }),
  ]),
  /** Seconds it has held already when it is first seen. */
  preRoll: z.number().min(0).max(60),
  closing: z.number().min(0).max(600),
});
export type Stretches = z.infer<typeof stretchesSchema>;

/** A figure or a prop on the stage. */
export const thingSchema = z.strictObject({
  name,
  asset: asset('figure'),
  clip: z.string().max(80),
  /** Seconds into its clip at which it begins. */
  from: z.number().min(0).max(3600),
  path: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('spot') }),
    /** Walks round its place; what does not walk stands at the circle's rim. */
    z.strictObject({ kind: z.literal('circle'), radius: z.number().min(0.2).max(1000) }),
  ]),
  at: vectorSchema,
  /** Degrees round the vertical; 0 faces along +Z. */
  facing: z.number().min(-360).max(360),
  scale: z.number().min(0.01).max(100),
});
export type Thing = z.infer<typeof thingSchema>;

/** What the picture goes through; each can be switched off, to judge the raw effect. */
export const lensSchema = z.strictObject({
  /** How much of what is brighter than the screen shines over onto what is beside it (percent), and how far (of the picture's height, percent). */
  bloom: z.strictObject({
    isOn: z.boolean(),
    strength: z.number().min(0).max(400),
    spread: z.number().min(1).max(50),
  }),
  /** Doublings of the light. */
  exposure: z.number().min(-8).max(8),
});
export const airSchema = z.strictObject({
  /** What shining things mirror: a picture of all directions (as wide as twice its height, up above), or without one the sky of the surround. */
  surroundings: z.strictObject({
    isOn: z.boolean(),
    picture: z.strictObject({ asset: asset('picture', 'what is mirrored'), name }).nullable(),
    /** How many times as bright as the picture, and degrees it is turned round the vertical. */
    brightness: z.number().min(0).max(100),
    turn: z.number().min(-360).max(360),
  }),
  /** How much of what is seen is lost in fog in a metre (percent), thinning out upward; its own colour, or that of the horizon. */
  fog: z.strictObject({
    isOn: z.boolean(),
    density: z.number().min(0).max(95),
    height: z.number().min(0.05).max(1000),
    colour: hexSchema.nullable(),
  }),
});

/** A camera that was kept: metres, degrees from top to bottom; `follows` goes with the first thing that stands there. */
export const cameraSchema = z.strictObject({
  name,
  position: vectorSchema,
  target: vectorSchema,
  fieldOfView: z.number().min(5).max(120),
  follows: z.boolean(),
});
export type Camera = z.infer<typeof cameraSchema>;

/** What the effect is seen with: part of the document, for what stands on the stage decides what is computed. */
export const stageSchema = z.strictObject({
  things: collectionSchema(thingSchema, 16),
  surround: z.enum(['dusk', 'overcast', 'noon', 'busy']),
  lens: lensSchema,
  air: airSchema,
  /** What the effect itself rides on. */
  carrier: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('still') }),
    z.strictObject({
      kind: z.literal('circle'),
      radius: z.number().min(0.05).max(1000),
      speed: z.number().min(-200).max(200),
    }),
    /** Thrown once from a place of the world to another, from the effect's beginning on. */
    z.strictObject({
      kind: z.literal('flight'),
      from: vectorSchema,
      to: vectorSchema,
      speed: z.number().min(0.01).max(1000),
      arc: z.number().min(-100).max(100),
    }),
    /** A thing's feet, or with a name one of its bones. */
    z.strictObject({
      kind: z.literal('thing'),
      thing: ref('things', { whenGone: 'stays' }),
      bone: z.string().max(80),
    }),
  ]),
  /** For now: a share of the births, the same ones each time; sizes may make up for the area of those left out. */
  density: z.strictObject({ share: z.number().min(1).max(100), keepsArea: z.boolean() }),
  /** Where it is looked at from; it opens with the first, and is pictured from there. */
  cameras: collectionSchema(cameraSchema, 16),
});
export type Carrier = z.infer<typeof stageSchema>['carrier'];

const whole = {
  schema: z.literal(SCHEMA),
  name,
  seed,
  stretches: stretchesSchema,
  palette: collectionSchema(paletteEntrySchema),
  measures: collectionSchema(measureSchema),
  dials: collectionSchema(dialSchema),
  signals: collectionSchema(signalSchema, 32),
  channels: collectionSchema(channelSchema, MOST_CHANNELS),
  layers: collectionSchema(layerSchema, 128),
  forces: collectionSchema(sharedForceSchema, 64),
  surfaces: collectionSchema(surfaceSchema, 32),
  fronts: collectionSchema(frontSchema, 16),
  looks: collectionSchema(lookSchema, 64),
  stage: stageSchema,
};

/** Another effect that stands in a group: as it was when it was saved last, with nothing linked in turn. */
export const linkedSchema = z.strictObject({
  /** The effect it is kept the same as, where that is known. */
  of: z.uuid(),
  effect: z.strictObject({ ...whole, groups: collectionSchema(z.strictObject({ ...grouped, linked: z.null() })) }),
  hidden: z.boolean(),
  /** Whether it is drawn in front of all layers, or behind them. */
  inFront: z.boolean(),
});
export type Linked = z.infer<typeof linkedSchema>;

export const groupSchema = z.strictObject({ ...grouped, linked: linkedSchema.nullable() });
export type Group = z.infer<typeof groupSchema>;

export const effectSchema = z.strictObject({ ...whole, groups: collectionSchema(groupSchema) });
export type Effect = z.infer<typeof effectSchema>;
