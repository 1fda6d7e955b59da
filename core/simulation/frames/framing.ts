import { isRibbon, sizeForKept, type Effect, type Ribbon } from '../../document/index.ts';
import type { Kernels } from '../../kernels/index.ts';
import type { CompiledLayer } from '../compile/plan.ts';
import type { FrontReader } from '../fronts/front.ts';
import { lookPlan } from '../looks/plan.ts';
import type { Trail } from '../run/6-lay.ts';
import type { Scratch } from '../run/memory.ts';
import type { Population } from '../run/population.ts';
import type { Running } from '../run/running.ts';
import type { Scene } from '../scene/scene.ts';
import { sourceTurnInto } from '../sources/turn.ts';
import { colourReader, numberReaders, turnsInLives } from '../values/layerReaders.ts';
import { drawnLayers, type Drawn } from './drawn.ts';
import type { Dress } from './dress.ts';
import { Dresser, DRESS_BYTES } from './dressing.ts';
import {
  LAYER_BORN,
  LAYER_COUNT,
  LAYER_DEAD,
  LAYER_FIRST_BONE,
  LAYER_FIRST_FRONT,
  LAYER_INSTANCE,
  LAYER_JOINT_COUNT,
  LAYER_JOINT_START,
  LAYER_LOOKS,
  LAYER_MICROSECONDS,
  LAYER_OWN,
  LAYER_OWN_START,
  LAYER_PLAN,
  LAYER_REFUSED,
  LAYER_SALT,
  LAYER_SHARED,
  LAYER_SHARED_COUNT,
  LAYER_START,
  LAYER_STEP,
  LAYER_TURNS,
  OWN_WORDS,
  RECORD_WORDS,
  type Frame,
} from './frame.ts';
import { writeFront } from './fronts.ts';
import { LookValues } from './lookValues.ts';
import type { DressMoment } from './moment.ts';
import { RibbonWriter } from './ribbons/writer.ts';

/** Bytes for the dresses of every layer an instance may have. */
export const DRESSES_BYTES = (layers: number): number => layers * DRESS_BYTES;

/** Everything about an instant that a frame tells beside its particles. */
export interface FrameMoment extends DressMoment {
  readonly isExact: boolean;
  readonly scene: Scene;
  /** By id. */
  readonly fronts: readonly FrontReader[];
}

/** Where the next things of a frame are written: numbers of records and joints, words of numbers of looks. */
export interface FrameCursor {
  record: number;
  joint: number;
  shared: number;
  own: number;
}

/** Where an instance's things stand among those of all. */
export interface FramePlace {
  readonly instance: number;
  readonly looks: number;
  readonly firstBone: number;
  readonly firstFront: number;
}

const ownDress = (compiled: CompiledLayer): Dress => ({
  ...compiled,
  look: new LookValues(compiled.look, compiled.life),
});

/** Writes an instance's part of frames: each layer's records by its dress, its ribbons, the poses, the counts. */
export class Framer {
  readonly #kernels: Kernels;
  readonly #buffer: ArrayBufferLike;
  readonly #dressers: readonly Dresser[];
  readonly #scratch: Scratch;
  /** By layer: its own, or that of one that follows another; and those of laid points, whose life is the time they lie. */
  readonly #dresses = new Map<string, Dress>();
  readonly #trailDresses = new Map<string, Dress>();
  readonly #ribbons = new RibbonWriter();
  #ribbonOwn = new Float32Array(0);
  #drawn: readonly Drawn[] | null = null;
  readonly #turn = new Float64Array(4);

  constructor(kernels: Kernels, buffer: ArrayBufferLike, dressesAt: number, layers: number, scratch: Scratch) {
    this.#kernels = kernels;
    this.#buffer = buffer;
    this.#scratch = scratch;
    const at = (n: number) => dressesAt + n * DRESS_BYTES;
    this.#dressers = Array.from({ length: layers }, (_, n) => new Dresser(buffer, at(n), scratch));
  }

  /** The document has changed: dresses are made anew. */
  forget(): void {
    this.#dresses.clear();
    this.#trailDresses.clear();
    this.#ribbons.forget();
    this.#drawn = null;
  }

  /** Every layer that is drawn, by salt; found once for a document. */
  drawn(effect: Effect, running: readonly Running[]): readonly Drawn[] {
    return (this.#drawn ??= drawnLayers(effect, running));
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
    const numbers = numberReaders(layer, effect, compiled.group.scale, sizeForKept(effect.quality, layer));
    return {
      numbers,
      colour: colourReader(layer, effect, compiled.group.scale),
      look: new LookValues(lookPlan(effect, layer, compiled.group.scale), compiled.life),
      channels: compiled.channels,
      around: compiled.around,
      turnsInLives: turnsInLives(layer),
      life: compiled.life,
      isGivenSize: compiled.isGivenSize,
      holds: compiled.holds,
    };
  }

  #trailDress(id: string, own: Dress, { bound }: Trail): Dress {
    const known = this.#trailDresses.get(id);
    if (known) return known;
    const { life } = bound.points;
    const made = { ...own, life, holds: false, look: new LookValues(own.look.plan, life) };
    this.#trailDresses.set(id, made);
    return made;
  }

  /** What a layer takes up of a frame, joints left out, is added to `sizes`. */
  measure(drawn: Drawn, effect: Effect, sizes: { records: number; shared: number; own: number }): void {
    const { plan } = this.#dressOf(drawn, effect).look;
    const records = isRibbon(drawn.layer.drawn) ? 0 : drawn.running.population.living;
    sizes.records += records;
    sizes.shared += plan.sharedWords;
    sizes.own += records * plan.ownWords;
  }

  /** Writes one layer: its row, which begins at word `at`, and what that leads to, from `cursor` on. `index` is its number among its instance's. */
  write(
    frame: Frame,
    at: number,
    cursor: FrameCursor,
    index: number,
    drawn: Drawn,
    effect: Effect,
    trails: readonly Trail[],
    moment: FrameMoment,
    place: FramePlace,
    jointRoom: number,
  ): void {
    const { f32, u32 } = frame;
    const { running, layer, isOwn } = drawn;
    const { population } = running;
    const dress = this.#dressOf(drawn, effect);
    const { look } = dress;
    const ribbon = isRibbon(layer.drawn) ? layer.drawn : null;
    const count = ribbon ? 0 : this.#writeRecords(frame, cursor, index, population, dress, moment);
    const joints = ribbon
      ? this.#writeRibbons(frame, cursor.joint, jointRoom, index, drawn, ribbon, effect, trails, moment)
      : 0;
    if (!ribbon) look.writeOwn(f32, cursor.own, look.plan.ownWords, population, dress, moment);
    look.writeShared(f32, cursor.shared, dress, moment);
    u32[at + LAYER_SALT] = layer.salt;
    u32[at + LAYER_START] = cursor.record;
    u32[at + LAYER_COUNT] = count;
    u32[at + LAYER_BORN] = isOwn ? population.born : 0;
    u32[at + LAYER_REFUSED] = isOwn ? population.refused : 0;
    u32[at + LAYER_DEAD] = isOwn ? population.dead : 0;
    u32[at + LAYER_MICROSECONDS] = isOwn ? running.microseconds : 0;
    u32[at + LAYER_JOINT_START] = cursor.joint;
    u32[at + LAYER_JOINT_COUNT] = joints;
    u32[at + LAYER_PLAN] = look.plan.id;
    u32[at + LAYER_OWN] = look.plan.ownWords;
    u32[at + LAYER_OWN_START] = cursor.own;
    u32[at + LAYER_SHARED] = cursor.shared;
    u32[at + LAYER_SHARED_COUNT] = look.plan.sharedWords;
    u32[at + LAYER_INSTANCE] = place.instance;
    u32[at + LAYER_LOOKS] = place.looks;
    u32[at + LAYER_FIRST_BONE] = place.firstBone;
    u32[at + LAYER_FIRST_FRONT] = place.firstFront;
    u32[at + LAYER_STEP] = moment.step;
    this.#writeTurns(f32, at + LAYER_TURNS, running, moment);
    cursor.record += count;
    cursor.joint += joints;
    cursor.own += count * look.plan.ownWords;
    cursor.shared += look.plan.sharedWords;
  }

  /** Writes a layer's records where they belong, or beside where the frame lies in another memory; returns how many. */
  #writeRecords(
    frame: Frame,
    { record }: FrameCursor,
    index: number,
    population: Population,
    dress: Dress,
    moment: FrameMoment,
  ): number {
    const word = frame.recordAt(record);
    const isInside = frame.f32.buffer === this.#buffer;
    const out = isInside ? frame.f32.byteOffset + word * 4 : this.#scratch.recordsAt;
    const count = this.#dressers[index]!.write(this.#kernels, population, dress, moment, out);
    if (!isInside) frame.u32.set(new Uint32Array(this.#buffer, out, count * RECORD_WORDS), word);
    return count;
  }

  /** Writes a layer's records into the room beside the frame, and its ribbons from them; returns how many joints. */
  #writeRibbons(
    frame: Frame,
    joint: number,
    jointRoom: number,
    index: number,
    drawn: Drawn,
    ribbon: Ribbon,
    effect: Effect,
    trails: readonly Trail[],
    moment: FrameMoment,
  ): number {
    const { running } = drawn;
    const trail = trails.find(({ bound }) => bound.id === drawn.id) ?? null;
    const own = this.#dressOf(drawn, effect);
    const dress = trail ? this.#trailDress(drawn.id, own, trail) : own;
    const population = (trail ?? running).population;
    const hasRecords = ribbon.kind === 'trail' || ribbon.kind === 'strand';
    const { recordsAt } = this.#scratch;
    const dresser = this.#dressers[index]!;
    const count = hasRecords ? dresser.write(this.#kernels, population, dress, moment, recordsAt) : 0;
    const records = {
      records: new Float32Array(this.#buffer, recordsAt, count * RECORD_WORDS),
      own: this.#ownOf(count, population, dress, moment),
    };
    const { group } = running.compiled;
    const shown = { drawn, ribbon, dress: own, group, trail, records, count };
    return this.#ribbons.write(frame, joint, jointRoom, shown, effect, moment);
  }

  /** The numbers of a look that differ, of each of the living. */
  #ownOf(count: number, population: Population, dress: Dress, moment: FrameMoment): Float32Array {
    if (count * OWN_WORDS > this.#ribbonOwn.length) this.#ribbonOwn = new Float32Array(2 * count * OWN_WORDS);
    dress.look.writeOwn(this.#ribbonOwn, 0, OWN_WORDS, population, dress, moment);
    return this.#ribbonOwn;
  }

  /** The records of a layer's particles, whatever they are drawn as: RECORD_WORDS numbers each, a copy. */
  records(effect: Effect, running: readonly Running[], layerId: string, moment: DressMoment): Float32Array {
    const all = this.drawn(effect, running);
    const index = all.findIndex(({ id }) => id === layerId);
    const shown = all[index];
    if (!shown) return new Float32Array(0);
    const dress = this.#dressOf(shown, effect);
    const { recordsAt } = this.#scratch;
    const { population } = shown.running;
    const count = this.#dressers[index]!.write(this.#kernels, population, dress, moment, recordsAt);
    return new Float32Array(this.#buffer, recordsAt, count * RECORD_WORDS).slice();
  }

  #writeTurns(f32: Float32Array, at: number, { compiled }: Running, { scene, clock, step }: FrameMoment): void {
    for (let end = 0; end < 2; end++) {
      sourceTurnInto(this.#turn, compiled, scene, clock.timeOf(step - 1 + end));
      f32.set(this.#turn, at + end * 4);
    }
  }

  /** Writes the poses of the instance's scene, and its fronts. */
  writeScene(frame: Frame, { scene, clock, step, fronts }: FrameMoment, { firstBone, firstFront }: FramePlace): void {
    const { f32, u32 } = frame;
    const [from, to] = [clock.timeOf(step - 1), clock.timeOf(step)];
    scene.matricesInto(f32, frame.boneAt(firstBone, false), from, true);
    scene.matricesInto(f32, frame.boneAt(firstBone, true), to, false);
    for (let n = 0; n < fronts.length; n++) writeFront(fronts[n]!, f32, u32, frame.frontAt(firstFront + n), from, to);
  }
}
