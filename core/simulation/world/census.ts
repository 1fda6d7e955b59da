import { ownerOf, type Effect, type Id } from '../../document/index.ts';
import {
  RECORD_AGE,
  RECORD_ANGLE,
  RECORD_COLOUR,
  RECORD_OPACITY,
  RECORD_SIZE,
  RECORD_TO,
  RECORD_WORDS,
} from '../frames/frame.ts';
import { Channels } from '../values/channels.ts';
import { groupFrame } from '../scene/groups.ts';
import { newReading } from '../values/reading.ts';
import type { Instance } from './instance.ts';
import { dialShares } from '../values/dials.ts';

/** One thing that is told of every particle. */
export interface CensusColumn {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
}

/** All the living of one layer at one step: a row each, in the order of their births. */
export interface Census {
  readonly step: number;
  readonly columns: readonly CensusColumn[];
  readonly rows: number;
  /** Row after row, a number for each column. */
  readonly values: Float32Array;
  /** What tells each particle from every other, for as long as it lives. */
  readonly keys: Uint32Array;
}

const COLUMNS: readonly CensusColumn[] = [
  { id: 'number', name: 'birth', unit: '' },
  { id: 'age', name: 'age', unit: '%' },
  { id: 'seconds', name: 'lived', unit: 's' },
  { id: 'life', name: 'life', unit: 's' },
  { id: 'x', name: 'x', unit: 'm' },
  { id: 'y', name: 'y', unit: 'm' },
  { id: 'z', name: 'z', unit: 'm' },
  { id: 'vx', name: 'vx', unit: 'm/s' },
  { id: 'vy', name: 'vy', unit: 'm/s' },
  { id: 'vz', name: 'vz', unit: 'm/s' },
  { id: 'speed', name: 'speed', unit: 'm/s' },
  { id: 'size', name: 'size', unit: 'm' },
  { id: 'opacity', name: 'opacity', unit: '%' },
  { id: 'red', name: 'red', unit: '' },
  { id: 'green', name: 'green', unit: '' },
  { id: 'blue', name: 'blue', unit: '' },
  { id: 'angle', name: 'angle', unit: '°' },
  { id: 'held', name: 'held', unit: '' },
];
const DEGREES = 180 / Math.PI;

/** Counts the living of a layer as the world stands, with what it makes of each; none where the layer has none. */
export function censusOf(world: Instance, effect: Effect, layerId: Id): Census {
  const layer = effect.layers.byId[layerId];
  const ownerId = layer ? ownerOf(effect, layerId) : '';
  const owner = effect.layers.byId[ownerId];
  const population = world.population(ownerId);
  const channels = owner
    ? new Channels(owner, effect, groupFrame(effect, owner.parent).scale, (population?.begun.length ?? 0) > 0)
    : null;
  const columns = [
    ...COLUMNS,
    ...(channels?.ids ?? []).map((id) => ({
      id: `channel/${id}`,
      name: effect.channels.byId[id]?.name ?? id,
      unit: '',
    })),
  ];
  const records = world.records(layerId);
  const count = records.length / RECORD_WORDS;
  if (count === 0 || !population || !channels)
    return { step: world.step, columns, rows: 0, values: new Float32Array(0), keys: new Uint32Array(0) };
  const values = new Float32Array(count * columns.length);
  const keys = new Uint32Array(count);
  const reading = { ...newReading(), channels, dials: dialShares(effect) };
  const { clock } = world;
  const time = clock.timeOf(world.step);
  const seconds = clock.length;
  reading.effectTime = clock.share(time);
  reading.stretchTime = clock.stretchShare(time);
  let row = 0;
  for (let place = 0; place < population.count && row < count; place++) {
    if (population.isDead(place)) continue;
    const of = (word: number) => records[row * RECORD_WORDS + word]!;
    const velocity = population.velocity.map((axis) => axis[place]!);
    const life = population.life[place]!;
    population.readInto(reading, place, world.step, world.rate, clock.standingAge(time), seconds);
    keys[row] = population.key[place]!;
    values.set(
      [
        population.number[place]!,
        of(RECORD_AGE) * 100,
        population.stepsLived(place, world.step) / world.rate,
        life,
        of(RECORD_TO),
        of(RECORD_TO + 1),
        of(RECORD_TO + 2),
        ...velocity,
        reading.speed,
        of(RECORD_SIZE),
        of(RECORD_OPACITY) * 100,
        of(RECORD_COLOUR),
        of(RECORD_COLOUR + 1),
        of(RECORD_COLOUR + 2),
        of(RECORD_ANGLE) * DEGREES,
        population.isHeld(place) ? 1 : 0,
        ...channels.ids.map((id) => channels.read(id, reading)),
      ],
      row * columns.length,
    );
    row++;
  }
  return { step: world.step, columns, rows: row, values, keys };
}

/** A census as comma-separated values (RFC 4180): a line of names with their units, then a line a particle. */
export function censusText({ columns, rows, values, keys }: Census, which: readonly number[] | null = null): string {
  const quoted = (text: string) => (/[",\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text);
  const head = ['key', ...columns.map(({ name, unit }) => quoted(unit ? `${name} (${unit})` : name))];
  const lines = (which ?? Array.from({ length: rows }, (_, row) => row)).map((row) => {
    const cells = columns.map((_, n) => String(Number(values[row * columns.length + n]!.toPrecision(6))));
    return [keys[row]!.toString(16).padStart(8, '0'), ...cells].join(',');
  });
  return [head.join(','), ...lines, ''].join('\r\n');
}
