import { Matrix4, PerspectiveCamera, Vector3 } from 'three';

export type Xyz = [number, number, number];
export interface Spot {
  readonly x: number;
  readonly y: number;
  /** False where it lies behind the camera. */
  readonly isAhead: boolean;
}
/** A line of sight: from the camera through a pixel. */
export interface Sight {
  readonly from: Vector3;
  readonly way: Vector3;
}

/** The picture as it stands on the page: between places of the world and pixels of the stage's window. */
export class Picture {
  readonly camera = new PerspectiveCamera();
  readonly width: number;
  readonly height: number;

  /** The page's camera, moved along with the figure it follows by `followed` (x, z), in a window of so many pixels. */
  constructor(view: PerspectiveCamera, followed: readonly [number, number], width: number, height: number) {
    this.width = Math.max(1, width);
    this.height = Math.max(1, height);
    this.camera.copy(view);
    this.camera.aspect = this.width / this.height;
    this.camera.position.x += followed[0];
    this.camera.position.z += followed[1];
    this.camera.updateProjectionMatrix();
    this.camera.updateMatrixWorld();
  }

  spot(place: Vector3): Spot {
    const isAhead = place.clone().applyMatrix4(this.camera.matrixWorldInverse).z < -this.camera.near;
    const { x, y } = place.clone().project(this.camera);
    return { x: ((x + 1) / 2) * this.width, y: ((1 - y) / 2) * this.height, isAhead };
  }

  sight(x: number, y: number): Sight {
    const through = new Vector3((x / this.width) * 2 - 1, 1 - (y / this.height) * 2, 0.5).unproject(this.camera);
    return { from: this.camera.position.clone(), way: through.sub(this.camera.position).normalize() };
  }

  /** Metres that a pixel is wide at a place. */
  metresAPixel(place: Vector3): number {
    const depth = Math.max(this.camera.near, -place.clone().applyMatrix4(this.camera.matrixWorldInverse).z);
    return (2 * depth * Math.tan((this.camera.fov * Math.PI) / 360)) / this.height;
  }

  /** The direction the camera looks in. */
  get ahead(): Vector3 {
    return new Vector3(0, 0, -1).transformDirection(this.camera.matrixWorld);
  }
}

/** How far along an axis through `origin` the point of it is that lies nearest a line of sight; null where both are parallel. */
export function alongAxis({ from, way }: Sight, origin: Vector3, axis: Vector3): number | null {
  const between = origin.clone().sub(from);
  const across = axis.dot(way);
  const spread = axis.lengthSq() - across * across;
  if (spread < 1e-6 * axis.lengthSq()) return null;
  return (across * between.dot(way) - between.dot(axis)) / spread;
}

/** Where a line of sight meets a plane; null where it runs along it or away from it. */
export function onPlane({ from, way }: Sight, origin: Vector3, normal: Vector3): Vector3 | null {
  const fall = way.dot(normal);
  if (Math.abs(fall) < 1e-4) return null;
  const metres = origin.clone().sub(from).dot(normal) / fall;
  return metres > 0 ? from.clone().addScaledVector(way, metres) : null;
}

/** Degrees from one place to another round an axis through `origin`, −180 to 180, by the right hand. */
export function angleRound(origin: Vector3, axis: Vector3, from: Vector3, to: Vector3): number {
  const [a, b] = [from.clone().sub(origin), to.clone().sub(origin)];
  const unit = axis.clone().normalize();
  return (Math.atan2(a.clone().cross(b).dot(unit), a.dot(b) - a.dot(unit) * b.dot(unit)) * 180) / Math.PI;
}

/** A matrix's own axis, of length 1. */
export const axisOf = (matrix: Matrix4, axis: number): Vector3 =>
  new Vector3().setFromMatrixColumn(matrix, axis).normalize();
