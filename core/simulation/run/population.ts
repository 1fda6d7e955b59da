import { layout, type Kernels } from '../../kernels/index.ts';
import { setTime, type Reading } from '../values/reading.ts';
import { SHORTEST_STANDING, type EffectClock } from '../time/clock.ts';

/** Compaction waits until this share of a layer's places is taken by the dead, or there is no other room. */
const WORTH_COMPACTING = 1 / 16;

/** The death step of what lives as long as the effect does, until that ends. */
export const NEVER = 0x7fffffff;

type Three = readonly [Float32Array, Float32Array, Float32Array];

/**
 * The particles of one layer: structure of arrays in the world's memory, in order of birth. The dead keep their places
 * for a while, marked; when they are cleared away changes nothing that is computed or seen.
 */
export class Population {
  readonly base: number;
  readonly stride: number;
  /** Most that may live at once. */
  readonly cap: number;
  /** Places taken, by the dead among them too. */
  count = 0;
  #deadPlaces = 0;
  /** The first place taken by births of the present step. */
  newbornFrom = 0;
  /** Particles before this one live the whole of the present step. */
  evenTo = 0;
  /** Birth numbers given so far, refused ones included. */
  numbered = 0;
  born = 0;
  refused = 0;
  /** Births that were due while there was no particle of another layer to be born on. */
  lost = 0;
  dead = 0;

  readonly position: Three;
  readonly velocity: Three;
  /** Where each is drawn from at the start of the step. */
  readonly from: Three;
  readonly birthFraction: Float32Array;
  readonly life: Float32Array;
  readonly birthStep: Int32Array;
  readonly deathStep: Int32Array;
  readonly key: Uint32Array;
  readonly number: Uint32Array;
  readonly flags: Uint32Array;
  readonly spot: Uint32Array;
  readonly spotSecond: Float32Array;
  readonly spotThird: Float32Array;
  /** Colour taken at birth, linear. */
  readonly tint: Three;
  /** How many times its own size each is. */
  readonly scale: Float32Array;
  /** Metres since its birth, kept only where a trail or a shaper asks; of a laid point those of its head. */
  readonly travelled: Float32Array;
  /** What each began with in the channels of its layer, where links may have passed that on: fields behind the others. */
  readonly begun: readonly Float32Array[];
  /** Normals of what each was born on, packed. */
  readonly facing: Uint32Array;

  /** Places for a cap: some to spare, so that the dead need not be cleared away at once; a whole number of fours. */
  static placesFor(cap: number): number {
    return Math.ceil((cap + Math.max(64, cap / 8)) / 4) * 4;
  }

  static bytes(cap: number, channels = 0): number {
    return Population.placesFor(cap) * 4 * (layout.FIELDS + channels);
  }

  constructor(buffer: ArrayBufferLike, base: number, cap: number, channels = 0) {
    this.base = base;
    this.cap = cap;
    const places = Population.placesFor(cap);
    this.stride = places * 4;
    const f32 = (field: number) => new Float32Array(buffer, base + field * this.stride, places);
    const i32 = (field: number) => new Int32Array(buffer, base + field * this.stride, places);
    const u32 = (field: number) => new Uint32Array(buffer, base + field * this.stride, places);
    this.position = [f32(layout.PX), f32(layout.PY), f32(layout.PZ)];
    this.velocity = [f32(layout.VX), f32(layout.VY), f32(layout.VZ)];
    this.from = [f32(layout.FX), f32(layout.FY), f32(layout.FZ)];
    this.birthFraction = f32(layout.BIRTH_FRACTION);
    this.life = f32(layout.LIFE);
    this.birthStep = i32(layout.BIRTH_STEP);
    this.deathStep = i32(layout.DEATH_STEP);
    this.key = u32(layout.KEY);
    this.number = u32(layout.NUMBER);
    this.flags = u32(layout.FLAGS);
    this.spot = u32(layout.SPOT);
    this.spotSecond = f32(layout.SPOT_1);
    this.spotThird = f32(layout.SPOT_2);
    this.tint = [f32(layout.TINT_R), f32(layout.TINT_G), f32(layout.TINT_B)];
    this.scale = f32(layout.SCALE);
    this.travelled = f32(layout.TRAVELLED);
    this.facing = u32(layout.FACING);
    this.begun = Array.from({ length: channels }, (_, n) => f32(layout.FIELDS + n));
  }

  /** Fields of each particle, those of its channels included. */
  get fields(): number {
    return layout.FIELDS + this.begun.length;
  }

  get living(): number {
    return this.count - this.#deadPlaces;
  }

  get places(): number {
    return this.stride / 4;
  }

  isDead(i: number): boolean {
    return (this.flags[i]! & layout.IS_DEAD) !== 0;
  }

  /** Whether it is held until a front passes it. */
  isHeld(i: number): boolean {
    return (this.flags[i]! & layout.IS_HELD) !== 0;
  }

  /** Whether it sticks to a surface: it then rides on nothing else. */
  isStuck(i: number): boolean {
    return this.flags[i]! >>> layout.STUCK_SHIFT !== 0;
  }

  /** Whether it rides on nothing of its layer's: it sticks elsewhere, or was born of another particle. */
  isOnItsOwn(i: number): boolean {
    return this.flags[i]! >>> layout.STUCK_SHIFT !== 0 || (this.flags[i]! & layout.IS_LOOSE) !== 0;
  }

  empty(): void {
    this.count =
      this.numbered =
      this.born =
      this.refused =
      this.lost =
      this.dead =
      this.newbornFrom =
      this.evenTo =
        0;
    this.#deadPlaces = 0;
  }

  /** Steps lived by particle `i` at the start of step `step`, 0 for one born within it. */
  stepsLived(i: number, step: number): number {
    return Math.max(0, step - this.birthStep[i]! - this.birthFraction[i]!);
  }

  /** Sets a reading to what shapers may read of particle `i` at a step. */
  readInto(
    reading: Reading,
    i: number,
    step: number,
    rate: number,
    standingAge: number,
    effectSeconds: number,
  ): void {
    const life = this.life[i]!;
    reading.key = reading.particle = this.key[i]!;
    reading.life = life === 0 ? Math.max(effectSeconds, SHORTEST_STANDING) : life;
    reading.age = life === 0 ? standingAge : Math.min(1, this.stepsLived(i, step) / rate / life);
    const x = this.velocity[0][i]!;
    const y = this.velocity[1][i]!;
    const z = this.velocity[2][i]!;
    reading.speed = Math.sqrt(x * x + y * y + z * z);
    reading.distance = this.travelled[i]!;
    reading.x = this.position[0][i]!;
    reading.y = this.position[1][i]!;
    reading.z = this.position[2][i]!;
    reading.along = 0;
    reading.begun = this.begun;
    reading.place = i;
  }

  /** Sets a reading to what was known of particle `i` at its birth, but for its place. */
  readBirthInto(reading: Reading, i: number, rate: number, clock: EffectClock): void {
    const life = this.life[i]!;
    reading.key = reading.particle = this.key[i]!;
    reading.life = life === 0 ? Math.max(clock.length, SHORTEST_STANDING) : life;
    reading.age = reading.speed = reading.distance = reading.along = 0;
    reading.begun = this.begun;
    reading.place = i;
    setTime(reading, clock, clock.timeOf(this.birthStep[i]!) + this.birthFraction[i]! / rate);
  }

  /** Keeps each present place as where the coming step is drawn from. */
  keepPlaces(): void {
    const { position, from, count } = this;
    for (let axis = 0; axis < 3; axis++) {
      const at = position[axis]!;
      const start = from[axis]!;
      for (let i = 0; i < count; i++) start[i] = at[i]!;
    }
  }

  /** What lives as long as the effect does dies by `step`; with `isOver` also what is held still. */
  endStanding(step: number, isOver: boolean): void {
    for (let i = 0; i < this.count; i++)
      if (this.life[i] === 0 || (isOver && this.isHeld(i))) this.deathStep[i] = Math.min(this.deathStep[i]!, step);
  }

  /** Marks whoever's life is over by `step`; their indices stand in `indices` (bytes) afterwards. Returns how many. */
  bury(kernels: Kernels, step: number, indices: number): number {
    const died = kernels.dying(this.base, this.stride, 0, this.count, step, indices);
    this.#deadPlaces += died;
    this.dead += died;
    return died;
  }

  /** Clears the dead away when it is worth it, or always; `map` is room for an index a place. */
  compact(kernels: Kernels, map: number, always = false): void {
    if (this.#deadPlaces === 0) return;
    if (!always && this.count < this.places && this.#deadPlaces < this.count * WORTH_COMPACTING) return;
    this.count = kernels.compact(this.base, this.stride, this.fields, this.count, map);
    this.#deadPlaces = 0;
  }
}
