import { cos, draw, hash2, sin, vec3At } from '../../maths/index.ts';
import type { Reading } from '../values/reading.ts';
import { AT, CONTACT_WORDS, NORMAL, SHARE, SPOT, VELOCITY } from '../surfaces/body.ts';
import type { Hits } from './hits.ts';
import type { BoundSurface } from '../compile/plan.ts';

/** Metres that particles are left in front of what they met: wide of what rounding could put behind it. */
export const GAP = 1e-4;

/** Most contacts of one particle in one step. In an angle of ten degrees a mirror gives eighteen. */
const MOST_CONTACTS = 64;

/** Contacts that follow each other within this share of a step make no way; after a few of them a particle glides. */
const NO_WAY = 1e-6;
const FEW = 3;

/** Instants that lots of bounces tell apart, a second and a step. */
const MOMENTS = 1000;

/** A particle rests where it arrives no faster than this many times what the step's own push gives it. */
const RESTING = 1.5;

/** What became of a particle that met something. */
export type Outcome = 'moved' | 'died' | 'stuck';

/** Follows one particle through a step, from contact to contact. Its parts are set, then {@link follow} is called. */
export class Contacts {
  /** Where the particle is at `at`, and where it would be at the end of the step; metres. */
  readonly start = new Float64Array(3);
  readonly end = new Float64Array(3);
  /** Its velocity at the end, m/s; what pushed it, m/s²; what moved it beside its own velocity, m/s. */
  readonly velocity = new Float64Array(3);
  readonly push = new Float64Array(3);
  readonly beside = new Float64Array(3);
  /** The last contact. */
  readonly contact = new Float64Array(CONTACT_WORDS);
  /** Whom it met last. */
  met: BoundSurface | null = null;
  readonly #found = new Float64Array(CONTACT_WORDS);
  readonly #normal = new Float64Array(3);
  readonly #after = new Float64Array(3);

  /** First contact from `start` at the share `at` of the step to `end` at its end, into `contact`. */
  first(surfaces: readonly BoundSurface[], key: number, at: number): BoundSurface | null {
    const p = this.start;
    const q = this.end;
    let found: BoundSurface | null = null;
    for (const surface of surfaces) {
      const { share } = surface.now;
      if (share < 1 && draw(key, surface.shareSlot) >= share) continue;
      const { body, side } = surface;
      if (!body.meet(this.#found, at, p[0]!, p[1]!, p[2]!, q[0]!, q[1]!, q[2]!, side)) continue;
      if (found && this.#found[SHARE]! >= this.contact[SHARE]!) continue;
      found = surface;
      this.contact.set(this.#found);
    }
    return found;
  }

  /** Goes on from the first contact, with `surface`. What sticks or dies ends there, at `start` with `velocity`. */
  follow(
    surface: BoundSurface,
    surfaces: readonly BoundSurface[],
    particle: number,
    reading: Reading,
    seconds: number,
    hits: Hits,
  ): Outcome {
    const { start, end, velocity, push, beside, contact } = this;
    let before = -1;
    let noWay = 0;
    for (let contacts = 0; ; contacts++) {
      const at = contact[SHARE]!;
      const left = (1 - at) * seconds;
      for (let axis = 0; axis < 3; axis++) {
        start[axis] = contact[AT + axis]!;
        velocity[axis]! -= push[axis]! * left;
      }
      const ends = surface.act === 'die' || surface.act === 'stick';
      const toward = this.#toward();
      const isResting = !ends && toward <= RESTING * this.#into(push) * seconds + 1e-9;
      if (!isResting) hits.add(particle, at, toward, contact, AT, NORMAL);
      this.met = surface;
      if (ends) return surface.act === 'die' ? 'died' : 'stuck';
      this.#reflect(surface, reading, toward, isResting, left);
      if (surface.act === 'bounce' && !isResting) this.#scatter(surface, reading, at);
      for (let axis = 0; axis < 3; axis++) {
        end[axis] = start[axis]! + (velocity[axis]! + beside[axis]!) * left + (push[axis]! * left * left) / 2;
        velocity[axis]! += push[axis]! * left;
      }
      noWay = isResting && at - before < NO_WAY ? noWay + 1 : 0;
      before = at;
      if (noWay >= FEW || contacts === MOST_CONTACTS) {
        if (!this.#glide(surface, surfaces, reading.key, at)) this.#rest(surface, surfaces, reading.key);
        return 'moved';
      }
      const next = this.first(surfaces, reading.key, at);
      if (!next) {
        this.#leaveGap(surface, surfaces, reading.key);
        return 'moved';
      }
      surface = next;
    }
  }

  /** How far a vector points into the surface of the contact; below 0 when it points off. */
  #into(v: Float64Array): number {
    const { contact } = this;
    return -(v[0]! * contact[NORMAL]! + v[1]! * contact[NORMAL + 1]! + v[2]! * contact[NORMAL + 2]!);
  }

  /** Speed at which the particle goes into the surface, m/s. */
  #toward(): number {
    const { contact, velocity } = this;
    let toward = this.#into(velocity);
    for (let axis = 0; axis < 3; axis++) toward += contact[VELOCITY + axis]! * contact[NORMAL + axis]!;
    return toward > 0 ? toward : 0;
  }

  /**
   * Turns the velocity at the contact: bounce along the normal, friction along the surface (Coulomb's, a share of what the
   * surface takes up). Who rests is borne from then on: the surface takes up the push into it, and rubs by a share of
   * that.
   */
  #reflect(surface: BoundSurface, reading: Reading, toward: number, isResting: boolean, left: number): void {
    const { act, bounce, friction } = surface;
    const { contact, velocity, push, beside } = this;
    const lift = toward * (act === 'slide' || isResting ? 1 : 1 + bounce.read(reading));
    const rub = friction.read(reading);
    const kept = this.#keptAlong(velocity, toward, rub * lift);
    const pressed = this.#into(push);
    const slid = this.#into(beside);
    for (let axis = 0; axis < 3; axis++) {
      const normal = contact[NORMAL + axis]!;
      const along = velocity[axis]! - contact[VELOCITY + axis]! + toward * normal;
      velocity[axis] = contact[VELOCITY + axis]! + along * kept + (lift - toward) * normal;
      if (slid > 0) beside[axis]! += slid * normal;
      if (isResting && pressed > 0) push[axis]! += pressed * normal;
    }
    if (!isResting || pressed <= 0 || left <= 0) return;
    const after = this.#after;
    for (let axis = 0; axis < 3; axis++) after[axis] = velocity[axis]! + push[axis]! * left;
    const keptAfter = this.#keptAlong(after, 0, rub * pressed * left);
    for (let axis = 0; axis < 3; axis++) {
      const carried = contact[VELOCITY + axis]!;
      push[axis] = (carried + (after[axis]! - carried) * keptAfter - velocity[axis]!) / left;
    }
  }

  /** Turns what bounced off by lot, as far as the surface is rough: at its roughest to any way off it (Lambert's cosine). */
  #scatter({ roughness, scatterSlot }: BoundSurface, reading: Reading, at: number): void {
    const rough = roughness.read(reading);
    if (rough <= 0) return;
    const { contact, velocity } = this;
    const away = this.#normal;
    let squared = 0;
    for (let axis = 0; axis < 3; axis++) {
      away[axis] = velocity[axis]! - contact[VELOCITY + axis]!;
      squared += away[axis]! * away[axis]!;
    }
    const speed = Math.sqrt(squared);
    if (speed < 1e-9) return;
    const key = hash2(hash2(reading.key, Math.floor(reading.time * MOMENTS)), Math.floor(at * MOMENTS));
    const [up, turn] = [draw(key, scatterSlot) * 2 - 1, draw(key, scatterSlot + 1) * 2 * Math.PI];
    const level = Math.sqrt(1 - up * up);
    const lot = [level * cos(turn), up, level * sin(turn)];
    let whole = 0;
    for (let axis = 0; axis < 3; axis++) {
      const any = contact[NORMAL + axis]! + lot[axis]!;
      away[axis] = (away[axis]! / speed) * (1 - rough) + any * rough;
      whole += away[axis]! * away[axis]!;
    }
    const kept = whole > 1e-18 ? speed / Math.sqrt(whole) : 0;
    for (let axis = 0; axis < 3; axis++) velocity[axis] = contact[VELOCITY + axis]! + away[axis]! * kept;
  }

  /** Share of a velocity along the surface that is left when `lost` m/s of it are rubbed away. */
  #keptAlong(v: Float64Array, toward: number, lost: number): number {
    const { contact } = this;
    let squared = 0;
    for (let axis = 0; axis < 3; axis++) {
      const along = v[axis]! - contact[VELOCITY + axis]! + toward * contact[NORMAL + axis]!;
      squared += along * along;
    }
    const speed = Math.sqrt(squared);
    return speed > lost ? 1 - lost / speed : 0;
  }

  /** Makes `contact` tell its spot at the end of the step, the normal still toward the side it was met from. */
  #carry({ body }: BoundSurface): void {
    const { contact } = this;
    this.#normal.set(contact.subarray(NORMAL, NORMAL + 3));
    body.holdInto(contact, contact[SPOT]!, contact[SPOT + 1]!, contact[SPOT + 2]!);
    this.#faceAsBefore();
  }

  #faceAsBefore(): void {
    const { contact } = this;
    const [x, y, z] = vec3At(this.#normal);
    if (x * contact[NORMAL]! + y * contact[NORMAL + 1]! + z * contact[NORMAL + 2]! >= 0) return;
    for (let axis = 0; axis < 3; axis++) contact[NORMAL + axis]! *= -1;
  }

  /** Who would end nearer than the gap to what it met last is left at the gap: as far as there is room. */
  #leaveGap(surface: BoundSurface, surfaces: readonly BoundSurface[], key: number): void {
    const { start, end, contact } = this;
    this.#carry(surface);
    let height = 0;
    for (let axis = 0; axis < 3; axis++) height += (end[axis]! - contact[AT + axis]!) * contact[NORMAL + axis]!;
    if (height >= GAP) return;
    for (let axis = 0; axis < 3; axis++) {
      start[axis] = end[axis]!;
      end[axis]! += contact[NORMAL + axis]! * (GAP - height);
    }
    if (!this.first(surfaces, key, 1)) return;
    // Something else is in the way: half as far as to there.
    for (let axis = 0; axis < 3; axis++) end[axis] = (start[axis]! + contact[AT + axis]!) / 2;
  }

  /**
   * Goes along a surface that curves toward the particle, where straight ways end before they begin: the end is put on
   * the surface and the velocity turned along it. Returns false when something is in the way.
   */
  #glide(surface: BoundSurface, surfaces: readonly BoundSurface[], key: number, at: number): boolean {
    const { end, velocity, contact } = this;
    this.#normal.set(contact.subarray(NORMAL, NORMAL + 3));
    const spot = contact.slice(SPOT, SPOT + 3);
    surface.body.nearestInto(contact, end[0]!, end[1]!, end[2]!, Infinity);
    this.#faceAsBefore();
    for (let axis = 0; axis < 3; axis++) end[axis] = contact[AT + axis]! + contact[NORMAL + axis]! * GAP;
    let whole = 0;
    let left = 0;
    const toward = this.#toward();
    const after = this.#after;
    for (let axis = 0; axis < 3; axis++) {
      const relative = velocity[axis]! - contact[VELOCITY + axis]!;
      after[axis] = relative + toward * contact[NORMAL + axis]!;
      whole += relative * relative;
      left += after[axis]! * after[axis]!;
    }
    const turned = left > 0 ? Math.sqrt(whole / left) : 0;
    for (let axis = 0; axis < 3; axis++) velocity[axis] = contact[VELOCITY + axis]! + after[axis]! * turned;
    const isFree = !this.first(surfaces, key, at);
    contact.set(spot, SPOT);
    return isFree;
  }

  /** Goes on with the surface, on the spot where it met it. */
  #rest(surface: BoundSurface, surfaces: readonly BoundSurface[], key: number): void {
    const { end, velocity, contact } = this;
    this.#carry(surface);
    for (let axis = 0; axis < 3; axis++) {
      end[axis] = contact[AT + axis]!;
      velocity[axis] = contact[VELOCITY + axis]!;
    }
    this.#leaveGap(surface, surfaces, key);
  }
}
