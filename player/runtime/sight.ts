import { tierAt, type Effect, type Tier } from '@jinx/core/document';
import { cross, dot, length, mixVec, subtract, transformPoint, unit, type Vec3 } from '@jinx/core/maths';
import { rotationInto } from '@jinx/core/simulation';
import type { CameraView, Quality } from '../api.ts';
import { FIRST_VIEW } from '../scene/firstView.ts';

/** An effect that has gone to a lower tier comes back from it only this much nearer, so that it does not go back and forth. */
const NEARER_AGAIN = 1.1;
/** How much further than it was measured something may reach: dials and other throws take it beyond. */
const ROOM = 1.25;

/** Where an effect stands. */
interface Stand {
  readonly at: readonly [number, number, number];
  readonly turn: readonly [number, number, number];
}

/** What is seen of effects: how far they are from the camera, and whether it looks at them. */
export class Sight {
  quality: Quality = 'high';
  aspect = 1;
  #camera: CameraView = FIRST_VIEW;
  readonly #matrix = new Float64Array(16);

  look(camera: CameraView): void {
    this.#camera = camera;
  }

  /** The middle of what an effect reaches, and how far that goes, metres; null where it was not measured. */
  #ball({ quality: { bounds } }: Effect, { at, turn }: Stand): { middle: Vec3; radius: number } | null {
    if (!bounds) return null;
    const { low, high } = bounds;
    const middle = mixVec(low, high, 0.5);
    rotationInto(this.#matrix, ...turn);
    this.#matrix.set(at, 12);
    return { middle: transformPoint(this.#matrix, 0, middle), radius: (length(subtract(high, low)) / 2) * ROOM };
  }

  /** The tier an effect is seen in from here, where it was seen in another until now. */
  tierOf(effect: Effect, stand: Stand, present: Tier | 'none'): Tier | 'none' {
    const { quality } = effect;
    if (quality.distances.order.length === 0) return this.quality;
    const { position } = this.#camera;
    const to = this.#ball(effect, stand)?.middle ?? stand.at;
    const metres = length(subtract(to, position));
    const [next, kept] = [metres, metres * NEARER_AGAIN].map((far) => tierAt(quality, this.quality, far));
    return kept === present ? present : next!;
  }

  /** Whether anything of an effect may be in the picture. A camera that goes along with a figure may be anywhere. */
  hasInView(effect: Effect, stand: Stand): boolean {
    const ball = this.#ball(effect, stand);
    const { position, target, fieldOfView, follows } = this.#camera;
    if (!ball || follows) return true;
    const { middle, radius } = ball;
    const ahead = unit(subtract(target, position));
    const right = unit(cross(ahead, Math.abs(ahead[1]) > 0.999 ? [0, 0, 1] : [0, 1, 0]));
    const to = subtract(middle, position);
    const up = cross(right, ahead);
    const [x, y, z] = [dot(to, right), dot(to, up), dot(to, ahead)];
    if (z < -radius) return false;
    const tall = Math.tan((fieldOfView / 360) * Math.PI);
    return [
      [x, tall * this.aspect],
      [y, tall],
    ].every(([aside, slope]) => Math.abs(aside!) - z * slope! <= radius * Math.hypot(1, slope!));
  }
}
