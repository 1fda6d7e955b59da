import * as z from '../zod/index.ts';
import { activeBursts, type Effect, hasFrom, listed, refsTo, SCHEMA, tierName, TIERS } from '../document/index.ts';
import type { Reached } from '../simulation/index.ts';
import { SIMULATION } from '../simulation/index.ts';

const seconds = z.number().min(0).describe('seconds');
const triple = z.tuple([z.number(), z.number(), z.number()]);
const place = triple.describe('metres: x, y (up), z (forward), right-handed');
const box = z.strictObject({ least: place, most: place });
const hold = z.enum(['none', 'continuing', 'seamless']);
const stretch = z.enum(['opening', 'hold', 'closing']);
const name = z.string();

/** What a game has to know of an effect to start it, feed it and cull it. Published as docs/attachments.schema.json. */
export const attachmentsSchema = z.strictObject({
  attachments: z.literal(1),
  effect: name,
  made: z.strictObject({ schema: z.number().int(), simulation: z.number().int() }),
  stretches: z.strictObject({
    opening: seconds,
    hold: z.strictObject({ kind: hold.describe('"none" plays once'), seconds: seconds.describe('of one turn') }),
    closing: seconds,
    preRoll: seconds.describe('it has been held when it begins'),
  }),
  sockets: z
    .array(
      z.strictObject({
        figure: name,
        bone: name.describe('empty: the figure as a whole'),
        layers: z
          .array(name)
          .describe('layers that hang on it; none where it is the effect itself or what layers share'),
      }),
    )
    .describe('where the effect hangs on figures'),
  dials: z.array(
    z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('number'), name, least: z.number(), most: z.number(), value: z.number() }),
      z.strictObject({ kind: z.literal('switch'), name, value: z.boolean() }),
      z.strictObject({ kind: z.literal('place'), name, value: place }),
      z.strictObject({
        kind: z.literal('direction'),
        name,
        value: triple.describe('degrees round X, then Y, then Z'),
      }),
      z.strictObject({ kind: z.literal('picture'), name, value: name }),
      z.strictObject({ kind: z.literal('mesh'), name, value: name }),
    ]),
  ),
  signals: z.array(name),
  layers: z.array(
    z.strictObject({
      name,
      first: seconds.nullable().describe('when something of it is there first; null: never'),
      last: seconds.nullable(),
      mostLiving: z.number().int(),
      bursts: z.array(
        z.strictObject({
          stretch: stretch.nullable().describe('null: it waits for the signal'),
          signal: name.nullable(),
          at: seconds,
          least: z.number().int(),
          most: z.number().int(),
          times: z.number().int(),
          every: seconds,
        }),
      ),
    }),
  ),
  quality: z
    .strictObject({
      tiers: z.record(
        tierName,
        z.strictObject({
          births: z.number().describe('percent of the births that are kept'),
          keepsArea: z.boolean().describe('whether those are drawn larger by the area of those left out'),
          lights: z.number().int().describe('at once, at most'),
          joints: z.number().describe('percent of the joints of ribbons'),
          layers: z.array(name).describe('those it has'),
        }),
      ),
      distances: z
        .array(z.strictObject({ beyond: z.number().describe('metres from the camera'), tier: z.string() }))
        .describe('nearest first; the tier "none" is not seen'),
      bounds: z
        .strictObject({ least: place, most: place })
        .nullable()
        .describe('for culling, about the place of the effect; null where it was not measured'),
    })
    .describe('how much of it is left out'),
  measured: z
    .strictObject({
      seconds: seconds.describe('until nothing of it lives'),
      mostLiving: z.number().int(),
      mostJoints: z.number().int(),
      bounds: box.nullable().describe('all that it reaches; null where nothing is ever there'),
      instants: z.array(z.strictObject({ seconds, living: z.number().int(), bounds: box.nullable() })),
    })
    .describe('as it plays from its beginning, held for one turn and then let go'),
});
export type Attachments = z.infer<typeof attachmentsSchema>;

/** As a JSON Schema. */
export const attachmentsJsonSchema = (): object => z.toJSONSchema(attachmentsSchema);

interface Hanging {
  readonly bone?: string;
  readonly bones?: readonly string[];
}

/** The bones of figures that an effect hangs on, and which layers hang there. */
function socketsOf(effect: Effect): Attachments['sockets'] {
  const sockets = new Map<string, { figure: string; bone: string; layers: Set<string> }>();
  for (const { id, item } of listed(effect.stage.things))
    for (const { holder, path } of refsTo(effect, 'things', id)) {
      const { bone, bones } = holder as Hanging;
      const layer = path[0] === 'layers' ? effect.layers.byId[String(path[2])]?.name : undefined;
      for (const each of bones?.length ? bones : [bone ?? '']) {
        const key = JSON.stringify([id, each]);
        const socket = sockets.get(key) ?? { figure: item.name, bone: each, layers: new Set() };
        sockets.set(key, socket);
        if (layer !== undefined) socket.layers.add(layer);
      }
    }
  return [...sockets.values()].map((socket) => ({ ...socket, layers: [...socket.layers] }));
}

function dialsOf(effect: Effect): Attachments['dials'] {
  return listed(effect.dials).map(({ item: dial }) => {
    const { name: called } = dial;
    switch (dial.kind) {
      case 'number':
        return { kind: dial.kind, name: called, least: dial.least, most: dial.most, value: dial.value };
      case 'switch':
        return { kind: dial.kind, name: called, value: dial.value };
      case 'place':
        return { kind: dial.kind, name: called, value: [...dial.at] };
      case 'direction':
        return { kind: dial.kind, name: called, value: [...dial.turn] };
      case 'picture':
      case 'mesh':
        return { kind: dial.kind, name: called, value: dial.shows.name };
    }
  });
}

/** What a game has to know of an effect, with what it was measured to reach. */
export function attachmentsOf(effect: Effect, reached: Reached): Attachments {
  const { opening, hold: held, closing, preRoll } = effect.stretches;
  const plain = (of: { least: readonly number[]; most: readonly number[] } | null) =>
    of && { least: [...of.least] as [number, number, number], most: [...of.most] as [number, number, number] };
  const byLayer = new Map(reached.layers.map((each) => [each.layer, each]));
  return {
    attachments: 1,
    effect: effect.name,
    made: { schema: SCHEMA, simulation: SIMULATION },
    stretches: {
      ...{ opening, closing, preRoll },
      hold: { kind: held.kind, seconds: held.kind === 'none' ? 0 : held.seconds },
    },
    sockets: socketsOf(effect),
    dials: dialsOf(effect),
    signals: listed(effect.signals).map(({ item }) => item.name),
    layers: listed(effect.layers).map(({ id, item }) => {
      const { first = null, last = null, mostLiving = 0 } = byLayer.get(id) ?? {};
      return {
        ...{ name: item.name, first, last, mostLiving },
        bursts: activeBursts(item).map(({ item: burst }) => ({
          stretch: burst.signal === null ? burst.stretch : null,
          signal: burst.signal === null ? null : (effect.signals.byId[burst.signal]?.name ?? null),
          ...{ at: burst.at, least: burst.count, most: burst.most, times: burst.times, every: burst.every },
        })),
      };
    }),
    quality: {
      tiers: Object.fromEntries(
        TIERS.map((tier) => [
          tier,
          {
            ...effect.quality.tiers[tier],
            layers: listed(effect.layers).flatMap(({ item }) =>
              hasFrom(tier, item.quality.least) ? [item.name] : [],
            ),
          },
        ]),
      ) as Attachments['quality']['tiers'],
      distances: listed(effect.quality.distances)
        .map(({ item }) => ({ ...item }))
        .sort((a, b) => a.beyond - b.beyond),
      bounds: effect.quality.bounds && {
        least: [...effect.quality.bounds.low] as [number, number, number],
        most: [...effect.quality.bounds.high] as [number, number, number],
      },
    },
    measured: {
      ...{ seconds: reached.seconds, mostLiving: reached.mostLiving, mostJoints: reached.mostJoints },
      bounds: plain(reached.box),
      instants: reached.instants.map(({ seconds: at, living, box: own }) => ({
        seconds: at,
        living,
        bounds: plain(own),
      })),
    },
  };
}
