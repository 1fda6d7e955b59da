import { isRibbon, ownerOf, type Effect } from '../../document/index.ts';
import type { CompiledDocument, CompiledLayer } from '../compile/plan.ts';
import { DRESS_ARRAY_COUNT } from '../frames/dressing.ts';
import { FRAME_PARTS, MOST_SHARED, OWN_WORDS, type FrameSizes } from '../frames/frame.ts';
import { DRESSES_BYTES } from '../frames/framing.ts';
import { arraysFor, tablesFor } from '../run/moverNeeds.ts';
import { aligned } from '../run/memory.ts';
import { Population } from '../run/population.ts';
import { NUMBER_TABLE_BYTES } from '../values/tables.ts';

/** Room for this many more settings that vary, and fronts, before an edit needs other room. */
const SPARE = 8;

/** Joints that a curve is cut into for every point it goes through, roughly. */
const JOINTS_A_POINT = 3;
/** Joints of one blade or beam, branches included, and how many of these there is room for. */
const JOINTS_A_BEAM = 256;
const MOST_BEAMS = 64;
const MOST_POINTS = 200_000;

/** Records of all layers that are drawn, each with as many particles as the layer it shows may have. */
const mostRecordsOf = (effect: Effect, capOf: (id: string) => number): number =>
  effect.layers.order.reduce((sum, id) => sum + capOf(ownerOf(effect, id)), 0);

/** Joints there is room for, all ribbons of an instance together. Where it is too little, curves are cut less finely. */
const mostJointsOf = (effect: Effect, capOf: (id: string) => number): number =>
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

/** One population: how many may live at once, and fields for what its channels began with. */
export interface PopulationNeed {
  readonly cap: number;
  readonly channels: number;
}

/** What an instance takes up of a world. */
export interface Needs {
  /** Layers with particles of their own, then laid points. */
  readonly layers: readonly PopulationNeed[];
  readonly trails: readonly PopulationNeed[];
  readonly tables: number;
  readonly dresses: number;
  /** Arrays of scratch memory, and places of the largest population. */
  readonly arrays: number;
  readonly largest: number;
  /** The most that it writes into a frame. */
  readonly frame: FrameSizes;
}

/** What a compiled document needs; `budget` is the most that live at once of all its layers together. */
export function needsOf({ effect, compiled, trails, scene, fronts }: CompiledDocument, budget: number): Needs {
  const capOf = (layer: Pick<CompiledLayer, 'cap'>) => Math.min(layer.cap, budget);
  const layers = compiled.map((layer) => ({ cap: capOf(layer), channels: layer.channels.fields }));
  const laid = trails.map(({ most }) => ({ cap: most, channels: 0 }));
  const all = [...compiled, ...trails.map(({ points }) => points)];
  const capById = new Map(compiled.map((layer, n) => [layer.id, layers[n]!.cap]));
  const byId = (id: string) => capById.get(id) ?? 0;
  const records = mostRecordsOf(effect, byId);
  return {
    layers,
    trails: laid,
    tables: all.reduce((sum, layer) => sum + tablesFor(layer), 0),
    dresses: effect.layers.order.length,
    arrays: Math.max(DRESS_ARRAY_COUNT, ...all.map(arraysFor)),
    largest: Math.max(4, ...[...layers, ...laid].map(({ cap }) => Population.placesFor(cap))),
    frame: {
      layers: effect.layers.order.length,
      bones: scene.bones,
      fronts: fronts.length,
      shared: effect.layers.order.length * MOST_SHARED,
      records,
      own: records * OWN_WORDS,
      joints: mostJointsOf(effect, byId),
    },
  };
}

/** The same with something to spare, so that small edits need no other room. */
export const withSpare = (needs: Needs): Needs => ({
  ...needs,
  tables: needs.tables + SPARE,
  arrays: needs.arrays + SPARE,
  frame: { ...needs.frame, fronts: needs.frame.fronts + SPARE },
});

/** How an instance's block is laid out: its populations, the tables of its settings, the dresses of its layers; in bytes. */
export function blockLayout({ layers, trails, tables, dresses }: Needs) {
  let at = 0;
  const populationsAt = [...layers, ...trails].map(({ cap, channels }) => {
    const start = at;
    at += Population.bytes(cap, channels);
    return start;
  });
  const tablesAt = aligned(at);
  const dressesAt = aligned(tablesAt + tables * NUMBER_TABLE_BYTES);
  return { populationsAt, tablesAt, dressesAt, bytes: dressesAt + DRESSES_BYTES(dresses) };
}

/** Bytes of an instance's block. */
export const blockBytes = (needs: Needs): number => blockLayout(needs).bytes;

const samePopulations = (a: readonly PopulationNeed[], b: readonly PopulationNeed[]): boolean =>
  a.length === b.length && a.every(({ cap, channels }, n) => cap === b[n]!.cap && channels === b[n]!.channels);

/** Whether what is reserved serves a changed document: the same populations, and room for all it needs beside. */
export const serves = (reserved: Needs, needs: Needs): boolean =>
  samePopulations(reserved.layers, needs.layers) &&
  samePopulations(reserved.trails, needs.trails) &&
  needs.tables <= reserved.tables &&
  needs.dresses <= reserved.dresses &&
  needs.arrays <= reserved.arrays &&
  FRAME_PARTS.every((part) => needs.frame[part] <= reserved.frame[part]);
