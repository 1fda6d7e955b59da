import type { HungValue, Place, Vector } from '@jinx/core/document';
import { hungInto, newHung } from '@jinx/core/simulation';
import { Matrix4, Vector3 } from 'three';
import { turned } from '../guides/turns';
import type { Point } from '../guides/lines';
import { AXES, mapAxes } from '@jinx/core/maths';

/** A place as it stands at an instant, beside the matrix of what it hangs on. */
export class Standing {
  readonly hung: HungValue;
  readonly #matrix: Matrix4;

  constructor(matrix: Matrix4, place: Place, seconds: number) {
    const at = newHung();
    hungInto(at, place, seconds);
    this.#matrix = matrix;
    this.hung = { offset: [...at.offset] as Vector, turn: [...at.turn] as Vector };
  }

  /** Where a point of what it hangs on is in the world. */
  outer(point: Point): Vector3 {
    return new Vector3(...point).applyMatrix4(this.#matrix);
  }
  /** Where a point of the place's own frame is in the world. */
  inner(point: Point): Vector3 {
    const { offset, turn } = this.hung;
    const way = turned(point, turn);
    return this.outer([offset[0] + way[0], offset[1] + way[1], offset[2] + way[2]]);
  }
  get origin(): Vector3 {
    return this.inner([0, 0, 0]);
  }

  /** What a direction of the place's own frame is in the world, as long as it becomes there. */
  innerWay(way: Point): Vector3 {
    return this.inner(way).sub(this.origin);
  }

  /** One metre of its offset along x, y or z, in the world. */
  offsetAxis(axis: number): Vector3 {
    return new Vector3().setFromMatrixColumn(this.#matrix, axis);
  }

  /** What its turn round x, y or z goes round: turns follow one another, so each is turned by those after it. */
  turnAxis(axis: number): Vector3 {
    const unit: Point = [axis === 0 ? 1 : 0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0];
    const { turn } = this.hung;
    const after = mapAxes(AXES, (n) => (n > axis ? turn[n] : 0));
    return new Vector3(...turned(unit, after)).transformDirection(this.#matrix);
  }

  /** The offset after a move through the world. */
  movedBy(delta: Vector3): Vector {
    const inverse = this.#matrix.clone().invert();
    const local = delta.clone().applyMatrix4(inverse).sub(new Vector3().applyMatrix4(inverse));
    const { offset } = this.hung;
    return [offset[0] + local.x, offset[1] + local.y, offset[2] + local.z];
  }

  /** A point of the place's own frame after a move through the world. */
  pointMovedBy(point: Point, delta: Vector3): Vector {
    const [x, y, z] = AXES.map((axis) => {
      const way = this.innerWay([axis === 0 ? 1 : 0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0]);
      return point[axis]! + delta.dot(way) / Math.max(1e-12, way.lengthSq());
    });
    return [x!, y!, z!];
  }
}
