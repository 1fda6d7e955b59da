import * as THREE from 'three';
import {
  RECORD_COLOUR,
  RECORD_FROM,
  RECORD_LOT,
  RECORD_OPACITY,
  RECORD_TO,
  type Frame,
  type FrameLayer,
} from '@jinx/core/simulation';
import { MOST_LIGHTS, MOST_OWN_LIGHTS } from '@jinx/core/document';
import type { CommonUniforms } from '../looks/light.ts';
import type { DrawnLayer, StageLight } from '../protocol.ts';

/** A light takes another's place only when it is this many times as strong. */
const WORTH_CHANGING = 1.6;
/** Seconds in which a light that is given to another particle fades away, and the new one comes. */
const FADE_SECONDS = 0.15;

/** Frames further apart do not follow one another. */
const MOST_STEPS = 4;

/** One light of the pool: the particle that has it, and how far it has come or gone. */
interface Given {
  /** Tells its particle from all others: its layer's key and its lot. 0: nobody's. */
  salt: number;
  lot: number;
  /** 0 to 1. */
  fade: number;
  isLeaving: boolean;
  strength: number;
  readonly from: THREE.Vector3;
  readonly to: THREE.Vector3;
  readonly colour: THREE.Vector3;
  reach: number;
  surfaces: number;
  fog: number;
}

const newGiven = (): Given => ({
  salt: 0,
  lot: 0,
  fade: 0,
  isLeaving: false,
  strength: 0,
  from: new THREE.Vector3(),
  to: new THREE.Vector3(),
  colour: new THREE.Vector3(),
  reach: 1,
  surfaces: 0,
  fog: 0,
});

/** A light's particle in a frame, as far as it has been looked at. */
interface Candidate {
  salt: number;
  lot: number;
  strength: number;
  /** Words at which its record and its own numbers begin, and its layer. */
  record: number;
  own: number;
  layer: LitLayer | null;
}

/** Tells a layer of an instance from all others. */
const ownerOf = ({ salt, instance }: FrameLayer): number => instance * 4294967296 + salt;

/** A layer of lights, and what the present frame tells of it; nothing where it is not in the frame. */
export interface LitLayer {
  layer: DrawnLayer;
  found: FrameLayer | undefined;
}

/**
 * A fixed pool of lights, given to the strongest particles of all light layers. Whoever has a light keeps it until another
 * is clearly stronger; then it fades away where it is before the other comes, so that no light ever jumps.
 */
export class Lights {
  readonly #pool = Array.from({ length: MOST_LIGHTS }, newGiven);
  readonly #candidates = Array.from({ length: MOST_LIGHTS }, (): Candidate => ({
    salt: 0,
    lot: 0,
    strength: 0,
    record: 0,
    own: 0,
    layer: null,
  }));
  /** Lights of the artist's own: they are always there. */
  #own: readonly StageLight[] = [];
  #count = 0;
  #step = -1;

  setOwn(lights: readonly StageLight[]): void {
    this.#own = lights.slice(0, MOST_OWN_LIGHTS);
  }

  /** Takes a frame: `layers` are those whose particles give light. */
  take(frame: Frame, layers: readonly LitLayer[], rate: number): void {
    // While time stands still, and after it has leapt, lights are as if they had been so all along.
    const passed = frame.step - this.#step;
    const seconds = passed > 0 && passed <= MOST_STEPS ? passed / rate : Infinity;
    this.#step = frame.step;
    this.#find(frame, layers);
    this.#keepMost();
    for (const given of this.#pool) given.isLeaving = true;
    for (let n = 0; n < this.#count; n++) {
      const found = this.#candidates[n]!;
      const given = this.#heldBy(found.salt, found.lot);
      if (given) this.#update(given, found, frame);
    }
    for (const given of this.#pool) this.#fade(given, seconds);
    for (let n = 0; n < this.#count; n++) {
      const found = this.#candidates[n]!;
      const held = this.#heldBy(found.salt, found.lot);
      if (!held || held.isLeaving) this.#give(found, frame, seconds);
    }
  }

  /** Finds the strongest particles, strongest first. */
  #find(frame: Frame, layers: readonly LitLayer[]): void {
    this.#count = 0;
    for (const lit of layers) {
      const { layer, found } = lit;
      if (!layer.isVisible || !found) continue;
      for (let n = 0; n < found.count; n++) {
        const record = frame.recordAt(found.start + n);
        const own = found.own + n * found.ownWords;
        const { f32 } = frame;
        const bright = Math.max(
          f32[record + RECORD_COLOUR]!,
          f32[record + RECORD_COLOUR + 1]!,
          f32[record + RECORD_COLOUR + 2]!,
        );
        const reach = number(frame, lit, own, 'drawn/reach');
        const surfaces = number(frame, lit, own, 'drawn/surfaces');
        const fog = number(frame, lit, own, 'drawn/fog');
        const strength = bright * f32[record + RECORD_OPACITY]! * Math.max(surfaces, fog) * reach;
        if (strength > 0) this.#insert(ownerOf(found), f32[record + RECORD_LOT]!, strength, record, own, lit);
      }
    }
  }

  /** Of what each instance gives, only so many of the strongest as its tier has. */
  #keepMost(): void {
    let kept = 0;
    for (let n = 0; n < this.#count; n++) {
      const found = this.#candidates[n]!;
      const { layer, found: row } = found.layer!;
      const most = layer.drawn.kind === 'light' ? layer.drawn.most : MOST_LIGHTS;
      let before = 0;
      for (let k = 0; k < kept; k++) if (this.#candidates[k]!.layer!.found!.instance === row!.instance) before++;
      if (before >= most) continue;
      this.#candidates[n] = this.#candidates[kept]!;
      this.#candidates[kept++] = found;
    }
    this.#count = kept;
  }

  #insert(salt: number, lot: number, strength: number, record: number, own: number, layer: LitLayer): void {
    // Those that have a light count for more, so that equals do not take it from each other.
    const counts = this.#heldBy(salt, lot) ? strength * WORTH_CHANGING : strength;
    let at = this.#count < MOST_LIGHTS ? this.#count : MOST_LIGHTS;
    while (at > 0 && this.#candidates[at - 1]!.strength < counts) at--;
    if (at >= MOST_LIGHTS) return;
    const last = this.#candidates[Math.min(this.#count, MOST_LIGHTS - 1)]!;
    this.#candidates.copyWithin(at + 1, at, Math.min(this.#count, MOST_LIGHTS - 1));
    this.#candidates[at] = last;
    last.salt = salt;
    last.lot = lot;
    last.strength = counts;
    last.record = record;
    last.own = own;
    last.layer = layer;
    this.#count = Math.min(MOST_LIGHTS, this.#count + 1);
  }

  /** The light that a particle has, or null. */
  #heldBy(salt: number, lot: number): Given | null {
    for (const given of this.#pool) if (given.strength > 0 && given.salt === salt && given.lot === lot) return given;
    return null;
  }

  #update(given: Given, { record, own, layer, strength }: Candidate, frame: Frame): void {
    const { f32 } = frame;
    given.isLeaving = false;
    given.strength = strength;
    given.from.fromArray(f32, record + RECORD_FROM);
    given.to.fromArray(f32, record + RECORD_TO);
    given.colour.fromArray(f32, record + RECORD_COLOUR).multiplyScalar(f32[record + RECORD_OPACITY]!);
    given.reach = number(frame, layer!, own, 'drawn/reach');
    given.surfaces = number(frame, layer!, own, 'drawn/surfaces');
    given.fog = number(frame, layer!, own, 'drawn/fog');
  }

  #fade(given: Given, seconds: number): void {
    const by = seconds / FADE_SECONDS;
    if (!given.isLeaving) given.fade = Math.min(1, given.fade + by);
    else {
      given.from.copy(given.to);
      given.fade = Math.max(0, given.fade - by);
      if (given.fade === 0) given.strength = 0;
    }
  }

  #give(found: Candidate, frame: Frame, seconds: number): void {
    const free = this.#pool.find(({ strength }) => strength === 0);
    if (!free) return;
    free.salt = found.salt;
    free.lot = found.lot;
    // What is seen after a leap in time has been there all along.
    free.fade = seconds === Infinity ? 1 : 0;
    this.#update(free, found, frame);
  }

  /** Writes the lights as they are at a share of the step. */
  show(common: CommonUniforms, share: number): void {
    let shown = 0;
    for (const given of this.#pool) {
      if (given.strength === 0) continue;
      common.light_places.value[shown]!.set(
        given.from.x + (given.to.x - given.from.x) * share,
        given.from.y + (given.to.y - given.from.y) * share,
        given.from.z + (given.to.z - given.from.z) * share,
        given.reach,
      );
      common.light_colours.value[shown]!.copy(given.colour).multiplyScalar(given.fade * given.surfaces * STRENGTH);
      common.light_fogs.value[shown]!.copy(given.colour).multiplyScalar(given.fade * given.fog);
      shown++;
    }
    for (const { at, colour, strength, reach } of this.#own) {
      common.light_places.value[shown]!.set(...at, reach);
      common.light_colours.value[shown]!.set(...colour).multiplyScalar(strength * STRENGTH);
      common.light_fogs.value[shown]!.set(...colour).multiplyScalar(strength);
      shown++;
    }
    common.lights.value = shown;
  }

  /** Every light of the pool, taken or not: for tests. */
  get slots(): readonly { lot: number; fade: number; place: readonly number[] }[] {
    return this.#pool.map(({ lot, fade, strength, to }) => ({
      lot,
      fade: strength > 0 ? fade : 0,
      place: to.toArray(),
    }));
  }

  /** Who has each light: for tests. */
  get given(): readonly { salt: number; lot: number; fade: number; place: readonly number[] }[] {
    return this.#pool
      .filter(({ strength }) => strength > 0)
      .map(({ salt, lot, fade, to }) => ({ salt, lot, fade, place: to.toArray() }));
  }
}

/** What an intensity of 1 gives: about as much, half a metre away, as a clear sky. */
const STRENGTH = 2;

function number(frame: Frame, { layer, found }: LitLayer, own: number, name: string): number {
  const place = layer.look.places[name];
  if (!place || !found) return 0;
  return frame.f32[(place.kind === 'shared' ? found.shared : own) + place.at]!;
}
