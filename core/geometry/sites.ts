import { draw, SRGB_TO_LINEAR } from '../maths/index.ts';
import { isInside, restTree } from './boundingTree.ts';
import { candidateDraws, evenOrder } from './evenOrder.ts';
import { boneNamed, type Rig } from './rig.ts';
import { restPlaceInto, restSpotFrame, type Spot } from './skin.ts';
import { SurfaceSampler } from './surface.ts';

/** Where on a mesh births fall. */
export type SiteRegion = 'surface' | 'edge' | 'volume' | 'vertices';

interface LooseSpot {
  triangle: number;
  second: number;
  third: number;
}

/** Evenly spread spots that are kept; births beyond fall anywhere, no two alike. */
const MOST_EVEN = 4096;
/** Points that are kept inside a mesh. */
const INSIDE = 2048;
const MOST_TRIED = 60_000;

/** Places of a rig's rest mesh that births may fall on, in a random or in an even order. */
export class MeshSites {
  /** Square metres of the surface, counting each triangle by the share that the chosen bones hold. */
  readonly area: number;
  readonly #rig: Rig;
  readonly #region: SiteRegion;
  readonly #sampler: SurfaceSampler;
  /** Vertices, edges or inside points: spots, and running sums of their weights. */
  readonly #spots: Spot[] = [];
  readonly #sums: number[] = [];
  /** Of inside points: how far they are from their spot, in its rest frame. */
  readonly #offsets: [number, number, number][] = [];
  #even: Spot[] | null = null;

  constructor(rig: Rig, boneNames: readonly string[], region: SiteRegion) {
    this.#rig = rig;
    this.#region = region;
    this.#sampler = new SurfaceSampler(rig, boneNames);
    this.area = this.#sampler.area;
    if (region === 'vertices') this.#findVertices(boneNames);
    else if (region === 'edge') this.#findEdges(boneNames);
    else if (region === 'volume' && this.area > 0) this.#findInside(boneNames);
  }

  get isEmpty(): boolean {
    return this.#region === 'surface' ? !(this.area > 0) : this.#spots.length === 0;
  }

  /** Share of a vertex's weight that the chosen bones hold; 1 without any chosen. */
  #held(boneNames: readonly string[]): (vertex: number) => number {
    const chosen = new Set(boneNames.map((name) => boneNamed(this.#rig, name)));
    const { joints, weights } = this.#rig.mesh;
    return (vertex) => {
      if (boneNames.length === 0) return 1;
      let sum = 0;
      for (let k = 0; k < 4; k++) if (chosen.has(joints[vertex * 4 + k]!)) sum += weights[vertex * 4 + k]!;
      return sum;
    };
  }

  #add(spot: Spot, weight: number): void {
    this.#spots.push(spot);
    this.#sums.push((this.#sums[this.#sums.length - 1] ?? 0) + weight);
  }

  /** Vertices that stand in one place are one. */
  #placesOfVertices(): Int32Array {
    const { positions } = this.#rig.mesh;
    const seen = new Map<string, number>();
    return Int32Array.from({ length: positions.length / 3 }, (_, vertex) => {
      const name = `${positions[vertex * 3]} ${positions[vertex * 3 + 1]} ${positions[vertex * 3 + 2]}`;
      const known = seen.get(name);
      if (known !== undefined) return known;
      seen.set(name, vertex);
      return vertex;
    });
  }

  #findVertices(boneNames: readonly string[]): void {
    const held = this.#held(boneNames);
    const place = this.#placesOfVertices();
    const { indices } = this.#rig.mesh;
    const done = new Set<number>();
    for (let i = 0; i < indices.length; i++) {
      const vertex = place[indices[i]!]!;
      if (done.has(vertex) || held(vertex) < 0.5) continue;
      done.add(vertex);
      const corner = i % 3;
      this.#add({ triangle: (i - corner) / 3, second: corner === 1 ? 1 : 0, third: corner === 2 ? 1 : 0 }, 1);
    }
  }

  #findEdges(boneNames: readonly string[]): void {
    const held = this.#held(boneNames);
    const place = this.#placesOfVertices();
    const { indices, positions } = this.#rig.mesh;
    const done = new Set<number>();
    const vertices = positions.length / 3;
    for (let i = 0; i < indices.length; i++) {
      const corner = i % 3;
      const [a, b] = [place[indices[i]!]!, place[indices[i - corner + ((corner + 1) % 3)]!]!];
      const key = Math.min(a, b) * vertices + Math.max(a, b);
      if (a === b || done.has(key) || (held(a) + held(b)) / 2 < 0.5) continue;
      done.add(key);
      const [x, y, z] = [0, 1, 2].map((axis) => positions[a * 3 + axis]! - positions[b * 3 + axis]!) as [
        number,
        number,
        number,
      ];
      // An edge is remembered by its triangle and which side of it: 0 to the second corner, 1 on, 2 back to the first.
      this.#add({ triangle: (i - corner) / 3, second: corner, third: 0 }, Math.sqrt(x * x + y * y + z * z));
    }
  }

  #findInside(boneNames: readonly string[]): void {
    const held = this.#held(boneNames);
    const { mesh } = this.#rig;
    const tree = restTree(mesh);
    const near = new Float64Array(3);
    const box = tree.box;
    for (let n = 0; n < MOST_TRIED && this.#spots.length < INSIDE; n++) {
      const [u, v, w] = evenPoint(n);
      const x = box[0]! + (box[3]! - box[0]!) * u;
      const y = box[1]! + (box[4]! - box[1]!) * v;
      const z = box[2]! + (box[5]! - box[2]!) * w;
      if (!isInside(tree, x, y, z)) continue;
      tree.nearestInto(near, x, y, z);
      const spot = { triangle: near[0]!, second: Math.fround(near[1]!), third: Math.fround(near[2]!) };
      const corners = [0, 1, 2].map((k) => held(mesh.indices[spot.triangle * 3 + k]!));
      if ((corners[0]! + corners[1]! + corners[2]!) / 3 < 0.5) continue;
      this.#offsets.push(restSpotFrame(this.#rig, spot).toLocal([x, y, z]));
      this.#add(spot, 1);
    }
  }

  /** Writes the site for three random numbers 0 ≤ u < 1, and how far it is from its spot. */
  spotInto(spot: LooseSpot, offset: Float64Array, u: number, v: number, w: number): void {
    if (this.#region === 'surface') {
      this.#sampler.spotInto(spot, u, v, w);
      return;
    }
    const wanted = u * this.#sums[this.#sums.length - 1]!;
    let [low, high] = [0, this.#sums.length - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.#sums[middle]! > wanted) high = middle;
      else low = middle + 1;
    }
    this.#siteInto(spot, offset, low, v);
  }

  #siteInto(spot: LooseSpot, offset: Float64Array, n: number, along: number): void {
    const site = this.#spots[n]!;
    spot.triangle = site.triangle;
    spot.second = site.second;
    spot.third = site.third;
    if (this.#region === 'edge') {
      const t = Math.fround(along);
      const side = site.second;
      spot.second = side === 0 ? t : side === 1 ? 1 - t : 0;
      spot.third = side === 0 ? 0 : side === 1 ? t : 1 - t;
    } else if (this.#region === 'volume') offset.set(this.#offsets[n]!);
  }

  /** Writes the site of birth `number` in the even order. Only vertices, and points inside, are as many as they are. */
  evenInto(spot: LooseSpot, offset: Float64Array, number: number): void {
    if (this.#region === 'volume') return this.#siteInto(spot, offset, number % this.#spots.length, 0);
    const isEndless = this.#region !== 'vertices' || this.#spots.length > MOST_EVEN;
    if (isEndless && number >= MOST_EVEN) return this.spotInto(spot, offset, ...evenPoint(number));
    if (this.#region === 'vertices' && this.#spots.length <= MOST_EVEN) {
      this.#even ??= this.#evenly(this.#spots.length, (n) => this.#spots[n % this.#spots.length]!);
    } else if (this.#region === 'surface')
      this.#even ??= this.#evenly(MOST_EVEN, (n) => {
        const made = { triangle: 0, second: 0, third: 0 };
        this.#sampler.spotInto(made, ...candidateDraws(n));
        return made;
      });
    else
      this.#even ??= this.#evenly(MOST_EVEN, (n) => {
        const made = { triangle: 0, second: 0, third: 0 };
        this.spotInto(made, offset, ...candidateDraws(n));
        return made;
      });
    const site = this.#even[number % this.#even.length]!;
    spot.triangle = site.triangle;
    spot.second = site.second;
    spot.third = site.third;
  }

  #evenly(count: number, candidate: (n: number) => Spot): Spot[] {
    const { mesh } = this.#rig;
    return evenOrder(count, candidate, ({ triangle, second, third }, out, o) =>
      restPlaceInto(out, o, mesh, triangle, second, third),
    );
  }

  /** Writes the UV of a spot, and its colour: the texture's there (linear, bilinear), white without one. */
  looksInto(
    out: Float64Array,
    uvAt: number,
    colourAt: number,
    triangle: number,
    second: number,
    third: number,
  ): void {
    const { uvs, indices, colours } = this.#rig.mesh;
    const [a, b, c] = [indices[triangle * 3]!, indices[triangle * 3 + 1]!, indices[triangle * 3 + 2]!];
    const first = 1 - second - third;
    for (let k = 0; k < 2; k++)
      out[uvAt + k] = uvs[a * 2 + k]! * first + uvs[b * 2 + k]! * second + uvs[c * 2 + k]! * third;
    out[colourAt] = out[colourAt + 1] = out[colourAt + 2] = 1;
    if (this.#rig.texture) texelInto(out, colourAt, this.#rig.texture, out[uvAt]!, out[uvAt + 1]!);
    if (!colours) return;
    for (let k = 0; k < 3; k++)
      out[colourAt + k]! *= colours[a * 3 + k]! * first + colours[b * 3 + k]! * second + colours[c * 3 + k]! * third;
  }
}

/** Writes a texture's linear colour at a UV: four texels blended, repeating beyond its edges. */
function texelInto(out: Float64Array, o: number, texture: NonNullable<Rig['texture']>, u: number, v: number): void {
  const { width, height, rgba } = texture;
  const [x, y] = [(u - Math.floor(u)) * width - 0.5, (v - Math.floor(v)) * height - 0.5];
  const [x0, y0] = [Math.floor(x), Math.floor(y)];
  const [tx, ty] = [x - x0, y - y0];
  const texel = (i: number, j: number, c: number) =>
    SRGB_TO_LINEAR[rgba[(((j + height) % height) * width + ((i + width) % width)) * 4 + c]!]!;
  for (let c = 0; c < 3; c++) {
    const top = texel(x0, y0, c) * (1 - tx) + texel(x0 + 1, y0, c) * tx;
    const low = texel(x0, y0 + 1, c) * (1 - tx) + texel(x0 + 1, y0 + 1, c) * tx;
    out[o + c] = top * (1 - ty) + low * ty;
  }
}

/** Point `n` of an even sequence in three dimensions (Roberts, 2018), each 0 ≤ x < 1. */
function evenPoint(n: number): [number, number, number] {
  const fraction = (x: number) => x - Math.floor(x);
  return [
    fraction(draw(1, 1) + n * 0.8191725133961645),
    fraction(draw(1, 2) + n * 0.6710436067037893),
    fraction(draw(1, 3) + n * 0.5497004779019703),
  ];
}

const MOST_KEPT = 32;
const kept = new WeakMap<Rig, Map<string, MeshSites>>();

/** The sites of a rig's mesh, made once: every edit of a document asks for them again. */
export function meshSites(rig: Rig, boneNames: readonly string[], region: SiteRegion): MeshSites {
  const all = kept.get(rig) ?? new Map<string, MeshSites>();
  kept.set(rig, all);
  const key = JSON.stringify([region, boneNames]);
  const known = all.get(key);
  if (known) return known;
  if (all.size >= MOST_KEPT) all.clear();
  const made = new MeshSites(rig, boneNames, region);
  all.set(key, made);
  return made;
}
