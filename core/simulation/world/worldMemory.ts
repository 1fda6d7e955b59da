import { isRibbon, ownerOf, type Effect } from '../../document/index.ts';
import { DRESS_ARRAY_COUNT } from '../frames/dressing.ts';
import { RECORD_WORDS } from '../frames/frame.ts';
import { DRESSES_BYTES } from '../frames/framing.ts';
import { Arrays, POPULATIONS, reserve } from '../run/memory.ts';
import { arraysFor, tablesFor } from '../run/4-move.ts';
import { Population } from '../run/population.ts';
import { NUMBER_TABLE_BYTES } from '../values/tables.ts';
import { tripleBufferBytes, type FrameRoom } from '../frames/tripleBuffer.ts';
import type { BoundTrail, CompiledLayer } from '../compile/plan.ts';

/** Room for this many more settings that vary before an edit needs a new world. */
const SPARE = 8;

const aligned = (address: number): number => Math.ceil(address / 64) * 64;

/** Records of all layers that are drawn, each with as many particles as the layer it shows may have. */
export const mostRecordsOf = (effect: Effect, capOf: (id: string) => number): number =>
  effect.layers.order.reduce((sum, id) => sum + capOf(ownerOf(effect, id)), 0);

/** Joints that a curve is cut into for every point it goes through, roughly. */
const JOINTS_A_POINT = 3;
/** Joints of one blade or beam, branches included, and how many of these there is room for. */
const JOINTS_A_BEAM = 256;
const MOST_BEAMS = 64;

/** Joints there is room for, all ribbons of a frame together. Where it is too little, curves are cut less finely. */
export const mostJointsOf = (effect: Effect, capOf: (id: string) => number): number =>
  effect.layers.order.reduce((sum, id) => {
    const { drawn } = effect.layers.byId[id]!;
    const heads = capOf(ownerOf(effect, id));
    if (!isRibbon(drawn)) return sum;
    if (drawn.kind === 'trail') {
      const { base } = drawn.settings.most;
      return sum + JOINTS_A_POINT * (base.kind === 'fixed' ? base.value : MOST_POINTS) + 2 * heads;
    }
    return sum + (drawn.kind === 'strand' ? JOINTS_A_POINT * heads : JOINTS_A_BEAM * Math.min(MOST_BEAMS, heads));
  }, 0);

const MOST_POINTS = 200_000;

/** A world's memory and where everything lies in it (memory.ts tells the order); addresses in bytes. */
export class WorldMemory {
  readonly memory: WebAssembly.Memory;
  readonly arrays: Arrays;
  /** Places of the largest population. */
  readonly largest: number;
  readonly populations: readonly Population[];
  /** Laid points of each trail. */
  readonly trails: readonly Population[];
  readonly tablesAt: number;
  readonly tableCount: number;
  readonly dressesAt: number;
  readonly layerCount: number;
  readonly recordsAt: number;
  readonly frames: ({ readonly address: number } & FrameRoom) | null;

  /** @throws RangeError with a sentence when the machine will not give as much. */
  constructor(
    effect: Effect,
    compiled: readonly CompiledLayer[],
    caps: readonly number[],
    trailCaps: readonly number[],
    options: { readonly shared?: boolean; readonly frames?: boolean },
  ) {
    const all = [...caps, ...trailCaps];
    this.largest = Math.max(4, ...all.map((cap) => Population.placesFor(cap)));
    const arrayCount = Math.max(DRESS_ARRAY_COUNT, ...compiled.map(arraysFor)) + SPARE;
    this.tableCount = compiled.reduce((sum, layer) => sum + tablesFor(layer), 0) + SPARE;
    this.layerCount = effect.layers.order.length;
    const channelsOf = (index: number) => compiled[index]?.channels.fields ?? 0;
    const arraysAt = POPULATIONS + all.reduce((sum, cap, index) => sum + Population.bytes(cap, channelsOf(index)), 0);
    this.tablesAt = arraysAt + Arrays.bytes(this.largest, arrayCount);
    this.dressesAt = aligned(this.tablesAt + this.tableCount * NUMBER_TABLE_BYTES);
    this.recordsAt = aligned(this.dressesAt + DRESSES_BYTES(this.layerCount));
    const framesAt = aligned(this.recordsAt + (this.largest + 1) * RECORD_WORDS * 4);
    const capOf = (id: string) => caps[compiled.findIndex((layer) => layer.id === id)] ?? 0;
    const mostRecords = options.frames ? mostRecordsOf(effect, capOf) : 0;
    const mostJoints = options.frames ? mostJointsOf(effect, capOf) : 0;
    const frameBytes = options.frames ? tripleBufferBytes({ mostRecords, mostJoints }) : 0;
    this.memory = reserve(framesAt + frameBytes, options.shared ?? false);
    this.frames = options.frames ? { address: framesAt, mostRecords, mostJoints } : null;
    const { buffer } = this.memory;
    this.arrays = new Arrays(buffer, arraysAt, this.largest, arrayCount);
    let base = POPULATIONS;
    const populations = all.map((cap, index) => {
      const population = new Population(buffer, base, cap, channelsOf(index));
      base += Population.bytes(cap, channelsOf(index));
      return population;
    });
    this.populations = populations.slice(0, caps.length);
    this.trails = populations.slice(caps.length);
  }

  /** Whether a changed document is at home here: as many populations of the same caps, and room for all it needs beside. */
  holds(
    effect: Effect,
    compiled: readonly CompiledLayer[],
    caps: readonly number[],
    trails: readonly BoundTrail[],
  ): boolean {
    const all = [...compiled, ...trails.map(({ points }) => points)];
    const tables = all.reduce((sum, layer) => sum + tablesFor(layer), 0);
    const capOf = (id: string) => caps[compiled.findIndex((layer) => layer.id === id)] ?? 0;
    return (
      compiled.length === this.populations.length &&
      trails.length === this.trails.length &&
      caps.every((cap, index) => cap === this.populations[index]!.cap) &&
      compiled.every(({ channels }, index) => channels.fields === this.populations[index]!.begun.length) &&
      trails.every(({ most }, index) => most === this.trails[index]!.cap) &&
      all.every((layer) => arraysFor(layer) <= this.arrays.count) &&
      tables <= this.tableCount &&
      effect.layers.order.length <= this.layerCount &&
      (!this.frames ||
        (mostRecordsOf(effect, capOf) <= this.frames.mostRecords &&
          mostJointsOf(effect, capOf) <= this.frames.mostJoints))
    );
  }
}
