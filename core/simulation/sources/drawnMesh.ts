import type { Layer } from '../../document/index.ts';
import {
  cornersSpotInto,
  meshSites,
  restPlaceInto,
  type MeshSites,
  type Rig,
  type SiteRegion,
} from '../../geometry/index.ts';
import type { DrawnMesh, SourceReader, SourceSurroundings } from './source.ts';
import { regionOf } from './spread.ts';
import { SiteBirths } from './siteBirths.ts';

/** How it lay at one time. */
interface Lie {
  time: number;
  readonly matrix: Float64Array;
  /** How far it has taken its other shape, and how many times as large it is as its rest mesh. */
  share: number;
  times: number;
}
const newLie = (): Lie => ({ time: NaN, matrix: new Float64Array(16), share: 0, times: 1 });

/** Lies that are kept: those of both ends of a step, and of a birth between. */
const KEPT = 4;

/** Births on the mesh that another layer is drawn as, as it is sized, turned and bent at each instant. */
export class DrawnMeshSource implements SourceReader {
  readonly rides = 'spot';
  readonly canBear: boolean;
  readonly area: number;
  readonly #mesh: DrawnMesh | null;
  readonly #rig: Rig | null;
  readonly #births: SiteBirths | null;
  /** What its rest mesh was stretched by, so that what is even on it is even as drawn. */
  readonly #stretch: readonly number[] = [1, 1, 1];
  readonly #lies = Array.from({ length: KEPT }, newLie);
  #oldest = 0;
  readonly #keeps: boolean;
  readonly #corners = new Float32Array(9);

  constructor(around: SourceSurroundings) {
    const { layer, scene } = around;
    const source = layer.source as Extract<Layer['source'], { kind: 'drawn' }>;
    this.#mesh = around.drawnMeshOf(source.layer);
    this.#keeps = !scene.moves;
    let sites: MeshSites | null = null;
    this.#rig = null;
    if (this.#mesh) {
      const matrix = new Float64Array(16);
      this.#mesh.matrixInto(matrix, this.#mesh.beginsAt);
      this.#stretch = stretchOf(matrix);
      this.#rig = stretchedRig(this.#mesh.rig, this.#stretch);
      sites = meshSites(this.#rig, [], regionOf(layer) as SiteRegion);
    }
    const times = this.#mesh ? this.#lieAt(this.#mesh.beginsAt).times : 1;
    this.area = (sites?.area ?? 0) * times * times;
    this.canBear = sites !== null && !sites.isEmpty;
    this.#births = sites && new SiteBirths(around, sites, this);
    // The scene has its clock only once all is compiled: what was placed before is not kept.
    for (const lie of this.#lies) lie.time = NaN;
  }

  #lieAt(time: number): Lie {
    if (this.#keeps) for (const lie of this.#lies) if (lie.time === time) return lie;
    const lie = this.#lies[this.#oldest]!;
    this.#oldest = (this.#oldest + 1) % KEPT;
    const { matrix } = lie;
    this.#mesh!.matrixInto(matrix, time);
    for (let axis = 0; axis < 3; axis++) for (let k = 0; k < 3; k++) matrix[axis * 4 + k]! /= this.#stretch[axis]!;
    lie.time = time;
    lie.share = this.#mesh!.other?.shareAt(time) ?? 0;
    lie.times = Math.max(...[0, 1, 2].map((axis) => lengthOf(matrix, axis)));
    return lie;
  }

  bearInto(...[out, ask]: Parameters<SourceReader['bearInto']>): void {
    this.#births!.bearInto(out, ask, this.#lieAt(ask.time).times);
  }

  originInto(out: Float64Array, time: number): void {
    if (!this.#mesh) return void out.fill(0, 0, 3);
    const { matrix } = this.#lieAt(time);
    for (let axis = 0; axis < 3; axis++) out[axis] = matrix[12 + axis]!;
  }

  restInto(out: Float64Array, spot: number, second: number, third: number): void {
    restPlaceInto(out, 0, this.#rig!.mesh, spot, second, third);
  }

  carrierInto(out: Float64Array, o: number, time: number, spot: number, second: number, third: number): void {
    const { matrix: m, share } = this.#lieAt(time);
    const { positions, indices } = this.#rig!.mesh;
    const toward = this.#mesh!.other?.positions;
    const corners = this.#corners;
    for (let corner = 0; corner < 3; corner++) {
      const v = indices[spot * 3 + corner]! * 3;
      let [x, y, z] = [positions[v]!, positions[v + 1]!, positions[v + 2]!];
      if (toward) {
        const stretch = this.#stretch;
        x += (toward[v]! * stretch[0]! - x) * share;
        y += (toward[v + 1]! * stretch[1]! - y) * share;
        z += (toward[v + 2]! * stretch[2]! - z) * share;
      }
      for (let axis = 0; axis < 3; axis++)
        corners[corner * 3 + axis] = m[axis]! * x + m[4 + axis]! * y + m[8 + axis]! * z + m[12 + axis]!;
    }
    cornersSpotInto(out, o, corners, second, third);
  }
}

const lengthOf = (matrix: Float64Array, axis: number): number => {
  const [x, y, z] = [matrix[axis * 4]!, matrix[axis * 4 + 1]!, matrix[axis * 4 + 2]!];
  return Math.sqrt(x * x + y * y + z * z);
};

/** How long each axis is beside the longest; what is flat or not there at all counts as a thousandth. */
function stretchOf(matrix: Float64Array): number[] {
  const lengths = [0, 1, 2].map((axis) => lengthOf(matrix, axis));
  const most = Math.max(...lengths);
  return most > 0 ? lengths.map((length) => Math.max(1e-3, Math.fround(length / most))) : [1, 1, 1];
}

const MOST_KEPT = 8;
const kept = new WeakMap<Rig, Map<string, Rig>>();

/** A rig whose rest mesh is stretched, made once: sites are known by their rig. */
function stretchedRig(rig: Rig, stretch: readonly number[]): Rig {
  if (stretch.every((times) => times === 1)) return rig;
  const all = kept.get(rig) ?? new Map<string, Rig>();
  kept.set(rig, all);
  const key = stretch.join();
  const known = all.get(key);
  if (known) return known;
  if (all.size >= MOST_KEPT) all.clear();
  const positions = rig.mesh.positions.map((value, i) => value * stretch[i % 3]!);
  const made = { ...rig, mesh: { ...rig.mesh, positions } };
  all.set(key, made);
  return made;
}
