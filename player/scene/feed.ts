import { listed, type Effect } from '@jinx/core/document';
import type { StageRigs } from '@jinx/core/checks';
import { picturesOf, rigsOf } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import type { StageMesh, StageOrder, StagePicture } from '@jinx/stage';
import {
  AS_IT_IS,
  drawnFog,
  drawnLayers,
  drawnLens,
  drawnOwnLights,
  drawnSurroundings,
  textOfLayers,
  type Seen,
} from './drawn.ts';
import { figuresOf, thingsById } from './figures.ts';

/** Assets that are here, by hash. */
interface Here<T> {
  get(hash: string): T | undefined;
  has(hash: string): boolean;
}
export interface SceneAssets {
  readonly rigs: Here<Rig>;
  readonly pictures: Here<StagePicture>;
}

/** The hashes of the pictures that looks show, each once. */
export const pictureHashes = (effect: Effect): string[] => picturesOf(effect).sort();

/** Which things stand on the stage, what each is made of, and which meshes the effect has beside. */
export const thingsText = (effect: Effect): string =>
  JSON.stringify([
    listed(effect.stage.things)
      .map(({ id, item }) => [id, item.asset])
      .sort(),
    rigsOf(effect).sort(),
  ]);

/** The effect with only those things on its stage that are here: what could not be had leaves the rest alone. */
function withThingsOf(effect: Effect, rigs: Here<Rig>): Effect {
  const { things } = effect.stage;
  const order = things.order.filter((id) => rigs.has(things.byId[id]!.asset));
  return order.length === things.order.length
    ? effect
    : { ...effect, stage: { ...effect.stage, things: { ...things, order } } };
}

/** Tells the stage what of an effect is not in its frames, each part only when it has changed. */
export class SceneFeed {
  /** The rigs of the things on the stage, by the id of the thing; a new map when they change. */
  rigs: StageRigs = new Map();
  /** Every mesh the effect uses, by the hash of its asset. */
  meshes: ReadonlyMap<string, Rig> = new Map();
  readonly #assets: SceneAssets;
  readonly #send: (order: StageOrder) => void;
  #seen: Seen = AS_IT_IS;
  #figuresText = '';
  #picturesText = '';
  #meshesText = '';
  #layersText = '';

  constructor(assets: SceneAssets, send: (order: StageOrder) => void) {
    this.#assets = assets;
    this.#send = send;
  }

  /** Shows an effect, as far as its assets are here. */
  show(effect: Effect, edit: number): void {
    this.#sendFigures(effect);
    this.#sendHidden(effect);
    this.#sendPictures(effect);
    this.#sendMeshes(effect);
    const layers = drawnLayers(withThingsOf(effect, this.#assets.rigs), this.#seen);
    const text = textOfLayers(layers);
    if (text !== this.#layersText) this.#send({ kind: 'layers', layers });
    this.#layersText = text;
    this.#send({ kind: 'surround', surround: effect.stage.surround });
    this.#send({ kind: 'ownLights', lights: drawnOwnLights(effect) });
    this.#send({ kind: 'lens', lens: drawnLens(effect, this.#seen) });
    this.#send({
      kind: 'air',
      fog: drawnFog(effect, this.#seen),
      mirrored: drawnSurroundings(effect, this.#seen),
    });
    this.#send({ kind: 'edited', edit });
  }

  /** Raw, or dimmed, or a step of a look alone, or as it is: from the next `show` on. */
  see(seen: Seen): void {
    this.#seen = seen;
  }

  #sendFigures(effect: Effect): void {
    const { rigs } = this.#assets;
    const known = rigsOf(effect).filter((hash) => rigs.has(hash));
    const staged = withThingsOf(effect, rigs);
    const text = JSON.stringify([thingsText(staged), known]);
    if (text === this.#figuresText) return;
    this.#figuresText = text;
    const { figures } = figuresOf(staged, rigs);
    const things = thingsById(staged);
    this.rigs = new Map(things.map(({ id, item }) => [id, rigs.get(item.asset)!]));
    this.meshes = new Map(known.map((hash) => [hash, rigs.get(hash)!]));
    const [first] = staged.stage.things.order;
    const followed = things.findIndex(({ id }) => id === first);
    this.#send({ kind: 'figures', figures, followed: Math.max(0, followed) });
  }

  #sendHidden(effect: Effect): void {
    const hidden = thingsById(withThingsOf(effect, this.#assets.rigs)).flatMap(({ item }, n) =>
      item.hidden ? [n] : [],
    );
    this.#send({ kind: 'hiddenFigures', hidden });
  }

  #sendPictures(effect: Effect): void {
    const pictures = pictureHashes(effect).flatMap((hash) => this.#assets.pictures.get(hash) ?? []);
    const text = pictures.map(({ hash }) => hash).join();
    if (text === this.#picturesText) return;
    this.#picturesText = text;
    this.#send({ kind: 'pictures', pictures });
  }

  /** The meshes that particles are drawn as. */
  #sendMeshes(effect: Effect): void {
    const hashes = listed(effect.layers).flatMap(({ item: { drawn } }) =>
      drawn.kind === 'mesh' ? listed(drawn.meshes).map(({ item }) => item.asset) : [],
    );
    const known = [...new Set(hashes)].sort().filter((hash) => this.#assets.rigs.has(hash));
    if (known.join() === this.#meshesText) return;
    this.#meshesText = known.join();
    const meshes = known.map((hash): StageMesh => {
      const { mesh, texture } = this.#assets.rigs.get(hash)!;
      return { hash, mesh, texture };
    });
    this.#send({ kind: 'meshes', meshes });
  }
}
