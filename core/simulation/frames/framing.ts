import type { CompiledLayer } from '../compile/plan.ts';
import { isRibbon, type Effect, type Ribbon } from '../../document/index.ts';
import type { Kernels } from '../../kernels/index.ts';
import { Dresser, DRESS_BYTES, type Dress } from './dressing.ts';
import {
  BONES,
  FRONT_WORDS,
  FRONTS,
  HEADER,
  HEADER_BONES,
  HEADER_EXACT,
  HEADER_LAYERS,
  HEADER_PARTICLES,
  HEADER_RATE,
  HEADER_STEP,
  LAYER_BORN,
  LAYER_COUNT,
  LAYER_DEAD,
  LAYER_MICROSECONDS,
  LAYER_REFUSED,
  LAYER_SALT,
  LAYER_START,
  LAYER_TURNS,
  LAYER_WORDS,
  LAYER_OWN,
  LAYER_PLAN,
  MOST_BONES,
  MOST_FRONTS,
  MOST_LAYERS,
  MOST_SHARED,
  OWN_WORDS,
  SHARED,
  RECORDS,
  RECORD_WORDS,
  type Frame,
} from './frame.ts';
import { lookPlan } from '../looks/plan.ts';
import { LookValues } from './lookValues.ts';
import { writeFront } from './fronts.ts';
import type { FrontReader } from '../fronts/front.ts';
import type { Arrays } from '../run/memory.ts';
import type { Population } from '../run/population.ts';
import type { Running } from '../run/running.ts';
import { RibbonWriter } from './ribbons/writer.ts';
import type { Trail } from '../run/6-lay.ts';
import type { Scene } from '../scene/scene.ts';
import { colourReader, turnsInLives, numberReaders, sizeForDensity } from '../values/layerReaders.ts';
import { sourceTurnInto } from '../sources/turn.ts';
import type { Drawn } from './drawn.ts';
import type { DressMoment } from './moment.ts';

/** Bytes for the dresses of every layer a world may have. */
export const DRESSES_BYTES = (layers: number): number => layers * DRESS_BYTES;

/** Everything about an instant that a frame tells beside its particles. */
export interface FrameMoment extends DressMoment {
  readonly isExact: boolean;
  readonly scene: Scene;
  /** By id. */
  readonly fronts: readonly FrontReader[];
}

const ownDress = (compiled: CompiledLayer): Dress => ({
  ...compiled,
  look: new LookValues(compiled.look, compiled.life),
});

/** Writes frames: each layer's records by its dress, the poses, the counts. */
export class Framer {
  readonly #kernels: Kernels;
  readonly #buffer: ArrayBufferLike;
  readonly #dressers: readonly Dresser[];
  /** Room for records where a frame lies outside the world's memory. */
  readonly #records: number;
  /** By layer: its own, or that of one that follows another. */
  readonly #dresses = new Map<string, Dress>();
  readonly #trailLooks = new Map<string, LookValues>();
  readonly #ribbons = new RibbonWriter();
  #ribbonOwn = new Float32Array(0);
  readonly #turn = new Float64Array(4);

  constructor(
    kernels: Kernels,
    buffer: ArrayBufferLike,
    dresses: number,
    layers: number,
    records: number,
    arrays: Arrays,
  ) {
    this.#kernels = kernels;
    this.#buffer = buffer;
    this.#records = records;
    this.#dressers = Array.from({ length: layers }, (_, n) => new Dresser(buffer, dresses + n * DRESS_BYTES, arrays));
  }

  /** The document has changed: dresses are made anew. */
  forget(): void {
    this.#dresses.clear();
    this.#trailLooks.clear();
    this.#ribbons.forget();
  }

  /** The dress of a layer, made once for a document. */
  #dressOf(drawn: Drawn, effect: Effect): Dress {
    const known = this.#dresses.get(drawn.id);
    if (known) return known;
    const made = drawn.isOwn ? ownDress(drawn.running.compiled) : this.#followingDress(drawn, effect);
    this.#dresses.set(drawn.id, made);
    return made;
  }

  #followingDress({ layer, running }: Drawn, effect: Effect): Dress {
    const { compiled } = running;
    const numbers = numberReaders(layer, effect, compiled.group.scale, sizeForDensity(effect.stage.density));
    return {
      numbers,
      colour: colourReader(layer, effect, compiled.group.scale),
      look: new LookValues(lookPlan(effect, layer, compiled.group.scale), compiled.life),
      channels: compiled.channels,
      turnsInLives: turnsInLives(layer),
      life: compiled.life,
      isGivenSize: compiled.isGivenSize,
      holds: compiled.holds,
    };
  }

  /** The look of laid points: their life is the time they lie. */
  #trailLook(id: string, { look }: Dress, { bound }: Trail): LookValues {
    const known = this.#trailLooks.get(id);
    if (known?.plan === look.plan) return known;
    const made = new LookValues(look.plan, bound.lasts);
    this.#trailLooks.set(id, made);
    return made;
  }

  /** Writes a layer's records into the room beside the frame, and its ribbons from them. */
  #writeRibbons(
    index: number,
    shown: Drawn,
    ribbon: Ribbon,
    effect: Effect,
    trails: readonly Trail[],
    moment: FrameMoment,
  ): void {
    const { running } = shown;
    const trail = trails.find(({ bound }) => bound.id === shown.id) ?? null;
    const own = this.#dressOf(shown, effect);
    const dress = trail
      ? { ...own, life: trail.bound.lasts, holds: false, look: this.#trailLook(shown.id, own, trail) }
      : own;
    const population = (trail ?? running).population;
    const hasRecords = ribbon.kind === 'trail' || ribbon.kind === 'strand';
    const dresser = this.#dressers[index]!;
    const count = hasRecords ? dresser.write(this.#kernels, population, dress, moment, this.#records) : 0;
    this.#ribbons.write(
      index,
      {
        drawn: shown,
        ribbon,
        dress: own,
        group: running.compiled.group,
        trail,
        records: {
          records: new Float32Array(this.#buffer, this.#records, count * RECORD_WORDS),
          own: this.#ownOf(count, population, dress, moment),
        },
        count,
      },
      effect,
      moment,
    );
  }

  /** The numbers of a look that differ, of each of the living. */
  #ownOf(count: number, population: Population, dress: Dress, moment: FrameMoment): Float32Array {
    if (count * OWN_WORDS > this.#ribbonOwn.length) this.#ribbonOwn = new Float32Array(2 * count * OWN_WORDS);
    dress.look.writeOwn(this.#ribbonOwn, 0, OWN_WORDS, population, dress, moment);
    return this.#ribbonOwn;
  }

  /** The records of a layer's particles, whatever they are drawn as: RECORD_WORDS numbers each, a copy. */
  records(effect: Effect, all: readonly Drawn[], layerId: string, moment: DressMoment): Float32Array {
    const index = all.findIndex(({ id }) => id === layerId);
    const shown = all[index];
    if (!shown) return new Float32Array(0);
    const { population } = shown.running;
    const dress = this.#dressOf(shown, effect);
    const count = this.#dressers[index]!.write(this.#kernels, population, dress, moment, this.#records);
    return new Float32Array(this.#buffer, this.#records, count * RECORD_WORDS).slice();
  }

  #writeTurns(f32: Float32Array, at: number, { compiled }: Running, { scene, clock, step }: FrameMoment): void {
    for (let end = 0; end < 2; end++) {
      sourceTurnInto(this.#turn, compiled, scene, clock.timeOf(step - 1 + end));
      f32.set(this.#turn, at + end * 4);
    }
  }

  write(frame: Frame, effect: Effect, all: readonly Drawn[], trails: readonly Trail[], moment: FrameMoment): void {
    const { f32, u32 } = frame;
    let start = 0;
    if (all.length > MOST_LAYERS) throw new Error(`a frame holds ${MOST_LAYERS} layers`);
    this.#ribbons.start(frame);
    all.forEach((shown, index) => {
      const { running, layer, isOwn } = shown;
      const { population } = running;
      const dress = this.#dressOf(shown, effect);
      const word = RECORDS + start * RECORD_WORDS;
      const isInside = f32.buffer === this.#buffer;
      const out = isInside ? f32.byteOffset + word * 4 : this.#records;
      const { drawn } = layer;
      const written = isRibbon(drawn)
        ? 0
        : this.#dressers[index]!.write(this.#kernels, population, dress, moment, out);
      if (isRibbon(drawn)) this.#writeRibbons(index, shown, drawn, effect, trails, moment);
      else this.#ribbons.write(index, null, effect, moment);
      const { look } = dress;
      if (!isRibbon(drawn))
        look.writeOwn(f32, frame.own + start * OWN_WORDS, look.plan.ownWords, population, dress, moment);
      look.writeShared(f32, SHARED + index * MOST_SHARED, moment);
      if (!isInside) u32.set(new Uint32Array(this.#buffer, out, written * RECORD_WORDS), word);
      const at = HEADER + index * LAYER_WORDS;
      u32[at + LAYER_SALT] = layer.salt;
      u32[at + LAYER_PLAN] = look.plan.id;
      u32[at + LAYER_OWN] = look.plan.ownWords;
      u32[at + LAYER_START] = start;
      u32[at + LAYER_COUNT] = written;
      u32[at + LAYER_BORN] = isOwn ? population.born : 0;
      u32[at + LAYER_REFUSED] = isOwn ? population.refused : 0;
      u32[at + LAYER_DEAD] = isOwn ? population.dead : 0;
      u32[at + LAYER_MICROSECONDS] = isOwn ? running.microseconds : 0;
      this.#writeTurns(f32, at + LAYER_TURNS, running, moment);
      start += written;
    });
    this.#ribbons.finish();
    const { scene, step, rate } = moment;
    const { bones } = scene;
    if (bones > MOST_BONES) throw new Error(`a frame holds ${MOST_BONES} matrices, not ${bones}`);
    scene.matricesInto(f32, BONES, moment.clock.timeOf(step - 1), true);
    scene.matricesInto(f32, BONES + bones * 16, moment.clock.timeOf(step), false);
    moment.fronts
      .slice(0, MOST_FRONTS)
      .forEach((front, n) =>
        writeFront(
          front,
          f32,
          u32,
          FRONTS + n * FRONT_WORDS,
          moment.clock.timeOf(step - 1),
          moment.clock.timeOf(step),
        ),
      );
    u32[HEADER_STEP] = step;
    u32[HEADER_LAYERS] = all.length;
    u32[HEADER_BONES] = bones;
    u32[HEADER_PARTICLES] = start;
    u32[HEADER_EXACT] = moment.isExact ? 1 : 0;
    u32[HEADER_RATE] = rate;
  }
}
