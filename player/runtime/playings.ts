import { listed, withTier, type Effect, type Tier } from '@jinx/core/document';
import { wholeOf } from '@jinx/core/editing';
import type { Rig } from '@jinx/core/geometry';
import type { KernelBytes } from '@jinx/core/kernels';
import { invertAffine, transformPoint, vec3At } from '@jinx/core/maths';
import {
  needsFor,
  rotationInto,
  World,
  worldFor,
  type Inputs,
  type Instance,
  type Needs,
} from '@jinx/core/simulation';
import type { DialValue, PlayOptions, Triple } from '../api.ts';
import { Sight } from './sight.ts';
import { withDialValues, type PlayableParcel } from './parcels.ts';

/** Places that are kept of an effect that the page moves: ten seconds of steps, for going back. */
const MOST_PLACES = 600;

/** One effect that plays. */
export interface PlayingEffect {
  readonly number: number;
  readonly parcel: PlayableParcel;
  readonly options: PlayOptions;
  /** As it is in its parcel. */
  readonly effect: Effect;
  readonly dials: Record<string, DialValue>;
  /** The tier it is seen in; "none": it is too far away. */
  tier: Tier | 'none';
  isCulled: boolean;
  instance: Instance;
  /** Its own step in which it was let go; undefined while it is held. */
  letGoStep: number | undefined;
  hasLit: boolean;
  hasEnded: boolean;
}

/** Effects of the same values are the same document, so that they are drawn with the same draw calls. */
class Documents {
  readonly #known = new WeakMap<Effect, Map<string, Effect>>();

  of(effect: Effect, dials: Readonly<Record<string, DialValue>>, tier: Tier | 'none'): Effect {
    const known = this.#known.get(effect) ?? new Map<string, Effect>();
    this.#known.set(effect, known);
    const shown = tier === 'none' ? 'low' : tier;
    const key = JSON.stringify([shown, Object.entries(dials).sort()]);
    const made = known.get(key) ?? wholeOf(withTier(withDialValues(effect, dials), shown)).effect;
    known.set(key, made);
    return made;
  }
}

interface Threads {
  readonly kernels: KernelBytes;
  readonly isShared: boolean;
  /** A thread that computes too joins the crew of the memory it is given. */
  readonly join: ((memory: WebAssembly.Memory) => void) | null;
  /** A memory is given up: whoever helps in it stops. */
  readonly leave: (memory: WebAssembly.Memory) => void;
}

/** The effects that play, in one world, which grows when it is too small. */
export class Playings {
  readonly #threads: Threads;
  readonly #documents = new Documents();
  readonly #all = new Map<number, PlayingEffect>();
  world: World | null = null;

  constructor(threads: Threads) {
    this.#threads = threads;
  }

  get all(): Iterable<PlayingEffect> {
    return this.#all.values();
  }
  get(number: number): PlayingEffect | undefined {
    return this.#all.get(number);
  }

  /** Begins an effect. @throws RangeError with a sentence when the machine has not the memory for it. */
  begin(
    number: number,
    parcel: PlayableParcel,
    index: number,
    options: PlayOptions,
    sight = new Sight(),
  ): PlayingEffect {
    const { effect } = parcel.effects[index]!;
    const dials = Object.fromEntries(
      Object.entries(options.dials ?? {}).map(([name, value]) => [name, inEffect(effect, options, name, value)]),
    );
    const stand = { at: options.at ?? MIDDLE, turn: options.turn ?? MIDDLE };
    const tier = sight.tierOf(effect, stand, sight.quality);
    const document = this.#documents.of(effect, dials, tier);
    const instance = this.#add(document, parcel.rigs, options, {}, 0);
    const playing = {
      number,
      parcel,
      options,
      effect,
      dials,
      tier,
      isCulled: false,
      instance,
      letGoStep: undefined,
      hasLit: false,
      hasEnded: false,
    };
    this.#all.set(number, playing);
    return playing;
  }

  /** Adds an instance that stands at a step of its own; the world is made larger where it has not room for it. */
  #add(document: Effect, rigs: ReadonlyMap<string, Rig>, options: PlayOptions, inputs: Inputs, at: number): Instance {
    const { seed, at: place, turn } = options;
    const own = {
      ...(seed === undefined ? {} : { seed }),
      ...(place ? { at: [...place] as [number, number, number] } : {}),
      ...(turn ? { turn: [...turn] as [number, number, number] } : {}),
    };
    const step = this.world?.step ?? 0;
    try {
      if (this.world) return this.world.add(document, rigs, inputs, { ...own, start: step - at });
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
    }
    this.#grow(needsFor(document, rigs, own));
    return this.world!.add(document, rigs, inputs, { ...own, start: this.world!.step - at });
  }

  /** Makes a world with room for all that plays, and as much again, and for what comes; what plays moves there as it is. */
  #grow(wanted: Needs): void {
    const before = this.world;
    const present = [...this.#all.values()];
    const all = [...present.map(({ instance }) => instance.needs), wanted];
    const { kernels, isShared, join, leave } = this.#threads;
    const world = worldFor([...all, ...all], { kernels, shared: isShared, frames: true, helpers: join ? 1 : 0 });
    world.advance(before?.step ?? 0);
    if (before) leave(before.memory);
    join?.(world.memory);
    this.world = world;
    for (const playing of present) {
      const { instance, parcel, options } = playing;
      playing.instance = this.#add(instance.effect, parcel.rigs, options, inputsOf(playing), instance.step);
      playing.instance.inherit(instance);
      playing.instance.advance(instance.step);
    }
  }

  /** Goes to a step of an effect's own; what is known of it is used again. `letGoStep`: null for being held on. */
  seek(playing: PlayingEffect, step: number, letGoStep?: number | null): void {
    if (letGoStep !== undefined) {
      playing.letGoStep = letGoStep ?? undefined;
      playing.instance.setLetGo(playing.letGoStep);
    }
    const { instance, parcel, options } = playing;
    const next = this.#add(instance.effect, parcel.rigs, options, inputsOf(playing), Math.max(0, step));
    // The world may have grown: the instance is another then, with the same past.
    next.inherit(playing.instance);
    this.world!.remove(playing.instance);
    playing.instance = next;
    next.advance(Math.max(0, step));
    [playing.hasLit, playing.hasEnded] = [next.living > 0, false];
  }

  /** Begins it anew, held again, and without what came from outside. */
  restart(playing: PlayingEffect): void {
    const { instance, parcel, options } = playing;
    this.world!.remove(instance);
    playing.instance = this.#add(instance.effect, parcel.rigs, options, {}, 0);
    [playing.hasLit, playing.hasEnded, playing.letGoStep] = [false, false, undefined];
  }

  letGo(playing: PlayingEffect): void {
    if (playing.letGoStep !== undefined) return;
    playing.letGoStep = playing.instance.step;
    playing.instance.letGo();
  }

  /** Turns a dial: what reaches the simulation acts from the next step on. */
  setDial(playing: PlayingEffect, name: string, value: DialValue): void {
    playing.dials[name] = inEffect(playing.effect, playing.options, name, value);
    this.#goOnWith(playing);
  }

  /**
   * Sees to it that each is in the tier that is meant for how far away it is, and that none is drawn that is out of the
   * picture. Returns whether any is another document now.
   */
  look(sight: Sight): boolean {
    let isOther = false;
    for (const playing of this.#all.values()) {
      const stand = standOf(playing);
      const tier = sight.tierOf(playing.effect, stand, playing.tier);
      playing.isCulled = tier === 'none' || !sight.hasInView(playing.effect, stand);
      if (tier !== playing.tier) {
        playing.tier = tier;
        this.#goOnWith(playing);
        isOther = true;
      }
      this.world!.setSeen(playing.instance, !playing.isCulled);
    }
    return isOther;
  }

  /** Goes on from the present step with the document as its dials and its tier make it. */
  #goOnWith(playing: PlayingEffect): void {
    const document = this.#documents.of(playing.effect, playing.dials, playing.tier);
    const { instance } = playing;
    const { step } = instance;
    if (instance.adopt(document, true)) return instance.advance(step);
    this.world!.remove(instance);
    const { parcel, options } = playing;
    playing.instance = this.#add(document, parcel.rigs, options, inputsOf(playing), step);
    playing.instance.advance(step);
  }

  place(
    { instance }: PlayingEffect,
    at: readonly [number, number, number],
    turn: readonly [number, number, number],
  ): void {
    instance.place([...at], [...turn]);
    if (instance.places.length > 2 * MOST_PLACES)
      instance.setPlaces(instance.places.slice(-MOST_PLACES), instance.step + 1);
  }

  signal({ instance, effect }: PlayingEffect, name: string): void {
    const found = listed(effect.signals).find(({ item }) => item.name === name);
    if (found) instance.announce(found.id);
  }

  stop(number: number): void {
    const playing = this.#all.get(number);
    if (!playing) return;
    this.world!.remove(playing.instance);
    this.#all.delete(number);
  }
}

const MIDDLE: Triple = [0, 0, 0];

/** Where an effect stands as a whole. */
function standOf({ instance, options }: PlayingEffect): { at: Triple; turn: Triple } {
  return instance.places.at(-1) ?? { at: options.at ?? MIDDLE, turn: options.turn ?? MIDDLE };
}

/**
 * The value of a dial as the document has it: the page tells places in its own world, and what an effect has in the world is
 * where the effect was put.
 */
function inEffect(effect: Effect, { at = [0, 0, 0], turn = [0, 0, 0] }: PlayOptions, name: string, value: DialValue) {
  const isPlace = listed(effect.dials).some(({ item }) => item.name === name && item.kind === 'place');
  if (!isPlace || !Array.isArray(value)) return value;
  const stand = new Float64Array(16);
  rotationInto(stand, ...turn);
  stand.set(at, 12);
  return transformPoint(invertAffine(stand), 0, vec3At(value as Triple));
}

function inputsOf({ instance: { strikes, signals, places }, letGoStep }: PlayingEffect): Inputs {
  return { strikes, signals, places, ...(letGoStep === undefined ? {} : { letGoStep }) };
}
