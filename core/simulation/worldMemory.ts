import { ownerOf, type Effect } from '../document/index.ts';
import { DRESS_ARRAY_COUNT } from './dressing.ts';
import type { CompiledLayer } from './compiled.ts';
import { RECORD_WORDS } from './frame.ts';
import { DRESSES_BYTES } from './framing.ts';
import { Arrays, POPULATIONS, reserve } from './memory.ts';
import { arraysFor, tablesFor } from './moving.ts';
import { Population } from './population.ts';
import { NUMBER_TABLE_BYTES } from './tables.ts';
import { tripleBufferBytes } from './tripleBuffer.ts';

/** Room for this many more settings that vary before an edit needs a new world. */
const SPARE = 8;

const aligned = (address: number): number => Math.ceil(address / 64) * 64;

/** Records of all layers that are drawn, each with as many particles as the layer it shows may have. */
export const mostRecordsOf = (effect: Effect, capOf: (id: string) => number): number =>
  effect.layers.order.reduce((sum, id) => sum + capOf(ownerOf(effect, id)), 0);

/** A world's memory and where everything lies in it (memory.ts tells the order); addresses in bytes. */
export class WorldMemory {
  readonly memory: WebAssembly.Memory;
  readonly arrays: Arrays;
  /** Places of the largest population. */
  readonly largest: number;
  readonly populations: readonly Population[];
  readonly tablesAt: number;
  readonly tableCount: number;
  readonly dressesAt: number;
  readonly layerCount: number;
  readonly recordsAt: number;
  readonly frames: { readonly address: number; readonly mostRecords: number } | null;

  /** @throws RangeError with a sentence when the machine will not give as much. */
  constructor(
    effect: Effect,
    compiled: readonly CompiledLayer[],
    caps: readonly number[],
    options: { readonly shared?: boolean; readonly frames?: boolean },
  ) {
    this.largest = Math.max(4, ...caps.map((cap) => Population.placesFor(cap)));
    const arrayCount = Math.max(DRESS_ARRAY_COUNT, ...compiled.map(arraysFor)) + SPARE;
    this.tableCount = compiled.reduce((sum, layer) => sum + tablesFor(layer), 0) + SPARE;
    this.layerCount = effect.layers.order.length;
    const arraysAt = POPULATIONS + caps.reduce((sum, cap) => sum + Population.bytes(cap), 0);
    this.tablesAt = arraysAt + Arrays.bytes(this.largest, arrayCount);
    this.dressesAt = aligned(this.tablesAt + this.tableCount * NUMBER_TABLE_BYTES);
    this.recordsAt = aligned(this.dressesAt + DRESSES_BYTES(this.layerCount));
    const framesAt = aligned(this.recordsAt + (this.largest + 1) * RECORD_WORDS * 4);
    const capOf = (id: string) => caps[compiled.findIndex((layer) => layer.id === id)] ?? 0;
    const mostRecords = options.frames ? mostRecordsOf(effect, capOf) : 0;
    const frameBytes = options.frames ? tripleBufferBytes(mostRecords) : 0;
    this.memory = reserve(framesAt + frameBytes, options.shared ?? false);
    this.frames = options.frames ? { address: framesAt, mostRecords } : null;
    const { buffer } = this.memory;
    this.arrays = new Arrays(buffer, arraysAt, this.largest, arrayCount);
    let base = POPULATIONS;
    this.populations = caps.map((cap) => {
      const population = new Population(buffer, base, cap);
      base += Population.bytes(cap);
      return population;
    });
  }
}
