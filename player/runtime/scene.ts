import type { Effect } from '@jinx/core/document';
import { rigsOf } from '@jinx/core/formats';
import type { World } from '@jinx/core/simulation';
import type { DrawnLayer, StageFigure, StageMesh, StagePicture } from '@jinx/stage';
import { AS_IT_IS, drawnFog, drawnLayers, drawnLens, drawnSurroundings } from '../scene/drawn.ts';
import { figuresOf } from '../scene/figures.ts';
import type { PlayingEffect } from './playings.ts';
import type { Screen } from './screen.ts';

/** Tells the stage what is drawn of all effects that play, beside their frames. */
export class PlayedScene {
  readonly #stage: Pick<Screen, 'take'>;
  #pictures = '';
  #meshes = '';
  #figures: readonly StageFigure[] = [];
  /** The effect whose lens, air and surround are seen: the one that began first. */
  #first: Effect | null = null;

  constructor(stage: Pick<Screen, 'take'>) {
    this.#stage = stage;
  }

  /** The effects that play were changed, or are others. */
  show(world: World, playing: readonly PlayingEffect[]): void {
    this.#showPictures(playing);
    this.#showMeshes(playing);
    this.#showFigures(world, playing);
    const layers = new Map<number, DrawnLayer[]>();
    for (const { instance } of playing) {
      const looks = world.looksOf(instance);
      if (!layers.has(looks))
        layers.set(
          looks,
          drawnLayers(instance.effect).map((layer) => ({ ...layer, looks })),
        );
    }
    this.#stage.take({ kind: 'layers', layers: [...layers.values()].flat() });
    const [first] = playing;
    if (first && first.instance.effect !== this.#first) this.#showAir(first.instance.effect);
  }

  #showAir(effect: Effect): void {
    if (!this.#first) this.#stage.take({ kind: 'surround', surround: effect.stage.surround });
    this.#first = effect;
    this.#stage.take({ kind: 'lens', lens: drawnLens(effect, AS_IT_IS) });
    const [fog, mirrored] = [drawnFog(effect, AS_IT_IS), drawnSurroundings(effect, AS_IT_IS)];
    this.#stage.take({ kind: 'air', fog, mirrored });
  }

  #showPictures(playing: readonly PlayingEffect[]): void {
    const pictures = new Map<string, StagePicture>();
    for (const { parcel } of playing) for (const picture of parcel.pictures) pictures.set(picture.hash, picture);
    const text = [...pictures.keys()].sort().join();
    if (text === this.#pictures) return;
    this.#pictures = text;
    this.#stage.take({ kind: 'pictures', pictures: [...pictures.values()] });
  }

  #showMeshes(playing: readonly PlayingEffect[]): void {
    const meshes = new Map<string, StageMesh>();
    for (const { parcel, instance } of playing)
      for (const hash of rigsOf(instance.effect)) {
        const rig = parcel.rigs.get(hash);
        if (rig) meshes.set(hash, { hash, mesh: rig.mesh, texture: rig.texture });
      }
    const text = [...meshes.keys()].sort().join();
    if (text === this.#meshes) return;
    this.#meshes = text;
    this.#stage.take({ kind: 'meshes', meshes: [...meshes.values()] });
  }

  /** Shows the figures of every instance, in the order of the world's bones. */
  #showFigures(world: World, playing: readonly PlayingEffect[]): void {
    const byInstance = new Map(playing.map((each) => [each.instance, each]));
    const figures: StageFigure[] = [];
    let boneStart = 0;
    for (const instance of world.instances) {
      const of = byInstance.get(instance);
      if (!of) continue;
      const own = figuresOf(instance.effect, of.parcel.rigs, boneStart);
      figures.push(...own.figures);
      boneStart = own.next;
    }
    const known = this.#figures;
    const isKnown = ({ mesh, boneStart: at }: StageFigure, n: number) =>
      mesh === known[n]?.mesh && at === known[n]?.boneStart;
    if (figures.length === known.length && figures.every(isKnown)) return;
    this.#figures = figures;
    this.#stage.take({ kind: 'figures', figures, followed: 0 });
  }
}
