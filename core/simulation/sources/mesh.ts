import type { Layer } from '../../document/index.ts';
import { meshSites, restPlaceInto, type SiteRegion } from '../../geometry/index.ts';
import type { BirthAsk, SourceReader, SourceSurroundings } from './source.ts';
import { SiteBirths } from './siteBirths.ts';
import { regionOf } from './spread.ts';
import { StageThing } from '../scene/stageThing.ts';

/** Births on the surface, the vertices or edges of a thing's mesh, or inside it, as it moves and bends. */
export class MeshSource implements SourceReader {
  readonly rides = 'spot';
  readonly canBear: boolean;
  readonly area: number;
  readonly #thing: StageThing | null;
  readonly #births: SiteBirths | null;
  readonly #root = new Float64Array(16);

  constructor(around: SourceSurroundings) {
    const { layer, scene } = around;
    const source = layer.source as Extract<Layer['source'], { kind: 'mesh' }>;
    this.#thing = scene.thing(source.thing);
    const sites = this.#thing && meshSites(this.#thing.rig, source.bones, regionOf(layer) as SiteRegion);
    this.area = sites?.area ?? 0;
    this.canBear = sites !== null && !sites.isEmpty;
    this.#births = sites && new SiteBirths(around, sites, this);
  }

  bearInto(out: Float64Array, ask: BirthAsk): void {
    this.#births!.bearInto(out, ask);
  }

  originInto(out: Float64Array, time: number): void {
    if (!this.#thing) return void out.fill(0, 0, 3);
    this.#thing.rootInto(time, this.#root);
    for (let axis = 0; axis < 3; axis++) out[axis] = this.#root[12 + axis]!;
  }

  restInto(out: Float64Array, spot: number, second: number, third: number): void {
    restPlaceInto(out, 0, this.#thing!.rig.mesh, spot, second, third);
  }

  carrierInto(out: Float64Array, o: number, time: number, spot: number, second: number, third: number): void {
    this.#thing!.spotInto(out, o, time, spot, second, third);
  }
}
