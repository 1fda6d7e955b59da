import * as z from '../../zod/index.ts';
import { asset, collectionSchema, hexSchema, itemName, ref, vectorSchema } from '../../settings/index.ts';

/** A figure or a prop on the stage. */
export const thingSchema = z.strictObject({
  name: itemName,
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
  /** It is not drawn. What is born on it, hangs on it or meets it goes on. */
  hidden: z.boolean(),
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
    picture: z.strictObject({ asset: asset('picture', 'what is mirrored'), name: itemName }).nullable(),
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

/** How many lights of one's own may stand on the stage. */
export const MOST_OWN_LIGHTS = 2;
/** A light by which an effect is judged: metres, and how bright it is half a metre away, beside a clear sky. */
export const ownLightSchema = z.strictObject({
  name: itemName,
  at: vectorSchema,
  colour: hexSchema,
  strength: z.number().min(0).max(1000),
  reach: z.number().min(0.1).max(100),
});
export type OwnLight = z.infer<typeof ownLightSchema>;

/** A camera that was kept: metres, degrees from top to bottom; `follows` goes with the first thing that stands there. */
export const cameraSchema = z.strictObject({
  name: itemName,
  position: vectorSchema,
  target: vectorSchema,
  fieldOfView: z.number().min(5).max(120),
  follows: z.boolean(),
});
export type Camera = z.infer<typeof cameraSchema>;

/** What the effect is seen with: part of the document, for what stands on the stage decides what is computed. */
/** What is behind the stage: `bare` has no sky, ground or light. */
export const surroundSchema = z.enum(['night', 'dusk', 'overcast', 'noon', 'busy', 'bare']);
export type Surround = z.infer<typeof surroundSchema>;

export const stageSchema = z.strictObject({
  things: collectionSchema(thingSchema, 16),
  surround: surroundSchema,
  /** Lights of the artist's own, beside those of the surround. They are no part of the effect. */
  lights: collectionSchema(ownLightSchema, MOST_OWN_LIGHTS),
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
  /** Where it is looked at from; it opens with the first, and is pictured from there. */
  cameras: collectionSchema(cameraSchema, 16),
});
export type Carrier = z.infer<typeof stageSchema>['carrier'];
