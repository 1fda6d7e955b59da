import { listed, type Curve } from '@jinx/core/document';
import { curveAt, fitToLife, placeOnLife, readyCurve } from '@jinx/core/maths';

/** Space above and below what a curve says, so that its keys can be taken hold of. */
const MARGIN = 9;
const SAMPLES = 160;

/** Between a curve's numbers and pixels: ages run along `width`, what it says from `low` to `high` up `height`. */
export class CurveScale {
  readonly low: number;
  readonly high: number;
  readonly width: number;
  readonly height: number;

  /** Room for some curves, for nothing and for once. */
  constructor(curves: readonly Curve[], width: number, height: number) {
    const values = curves.flatMap(({ keys }) => listed(keys).map(({ item }) => item.value));
    this.low = Math.min(0, ...values) * 1.04;
    this.high = Math.max(values.some((value) => value < 0) ? 0 : 1, ...values) * 1.04;
    this.width = width;
    this.height = height;
  }

  x(age: number): number {
    return age * this.width;
  }
  get #perValue(): number {
    return (this.height - 2 * MARGIN) / Math.max(1e-9, this.high - this.low);
  }
  y(value: number): number {
    return this.height - MARGIN - (value - this.low) * this.#perValue;
  }
  age(x: number): number {
    return Math.min(1, Math.max(0, x / this.width));
  }
  value(y: number): number {
    return (this.height - MARGIN - y) / this.#perValue + this.low;
  }
  /** Pixels down for each pixel along, of a slope in value a life. */
  steepness(slope: number): number {
    return (slope * this.#perValue) / this.width;
  }
  slope(steepness: number): number {
    return (steepness * this.width) / this.#perValue;
  }

  /** A curve as points of the picture; what it says may be taken `times` as high. */
  points(curve: Curve, life: number, times = 1): [number, number][] {
    const ready = readyCurve(curve);
    fitToLife(ready, life);
    // A held key jumps: both sides of it are drawn.
    const jumps = listed(curve.keys).flatMap(({ item }) => {
      const x = placeOnLife(item.at, life);
      return [x - 1e-6, x];
    });
    const ages = [...Array.from({ length: SAMPLES + 1 }, (_, i) => i / SAMPLES), ...jumps.filter((x) => x >= 0)];
    return ages.sort((a, b) => a - b).map((age) => [this.x(Math.min(1, age)), this.y(curveAt(ready, age) * times)]);
  }
}

const written = (points: readonly (readonly [number, number])[]) =>
  points.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L');
export const lineThrough = (points: readonly (readonly [number, number])[]): string => `M${written(points)}`;
/** The area between two lines of points. */
export const areaBetween = (
  a: readonly (readonly [number, number])[],
  b: readonly (readonly [number, number])[],
): string => `M${written(a)}L${written([...b].reverse())}Z`;
