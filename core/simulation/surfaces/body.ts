import type { MeetingSide } from '../../geometry/index.ts';

/**
 * Words of a contact:
 *
 * | SHARE    | when, as a share of the step                                                     |
 * | AT       | where, metres of the world                                                       |
 * | NORMAL   | of the surface there and then, of length 1, toward the side it was met from      |
 * | VELOCITY | of the surface there, m/s                                                        |
 * | SPOT     | what {@link Body.holdInto} finds the touched spot by at any later time           |
 */
export const SHARE = 0;
export const AT = 1;
export const NORMAL = 4;
export const VELOCITY = 7;
export const SPOT = 10;
export const CONTACT_WORDS = 13;

/** A shape in motion that particles can meet, as it goes through one step. */
export interface Body {
  /** Everything it sweeps in the step: least x, y, z, then most. */
  readonly box: Float64Array;
  /** Takes the step from `from` to `to` (seconds of the effect's time). */
  pose(from: number, to: number): void;
  /** First contact of a point going straight from (x0, y0, z0) at the share `from` of the step to (x1, y1, z1) at its end. */
  meet(
    out: Float64Array,
    from: number,
    x0: number,
    y0: number,
    z0: number,
    x1: number,
    y1: number,
    z1: number,
    side: MeetingSide,
  ): boolean;
  /** Writes place, normal and velocity of a spot at the end of the step. */
  holdInto(out: Float64Array, first: number, second: number, third: number): void;
  /** Writes the spot nearest to a place at the end of the step; returns its distance, Infinity when none is within reach. */
  nearestInto(out: Float64Array, x: number, y: number, z: number, within: number): number;
}

/** The world without end, for bodies that have none. */
export const EVERYWHERE = Float64Array.of(-Infinity, -Infinity, -Infinity, Infinity, Infinity, Infinity);
