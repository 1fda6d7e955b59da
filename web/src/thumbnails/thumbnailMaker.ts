import { DEFAULT_BUDGET, EffectClock } from '@jinx/core/simulation';
import { firstCamera, PICTURE_VIEW } from '@jinx/player/scene';
import type { StageTone } from '@jinx/stage';
import { api, type AssetSummary } from '../api';
import { pictureFile, PictureTaker, type WantedPictures } from '../engine/pictureTaker';
import { SharedByPage } from '../engine/shared';
import { effectWith, pictureWithin, viewOfMesh } from './assetPicture';
import { PICTURED_SHARE } from './pictured';

const [WIDTH, HEIGHT] = [400, 250];
/** What figures and meshes are pictured with. */
const USUAL_TONE: StageTone = { kind: 'filmic' };
/** Hears of a thumbnail as it is made, by the id of the effect or the hash of the asset. */
type Made = (key: string, picture: ImageBitmap) => void;

/** Makes thumbnails, and hands them to the server. It is fetched once one is to be made. */
export class ThumbnailMaker {
  readonly #shared: SharedByPage;
  readonly #made: Made;
  readonly #gone: AbortSignal;
  /** Its threads run as long as there is something to be made. */
  #taker: PictureTaker | null = null;
  /** The tone curves of projects, each asked for once. */
  readonly #tones = new Map<string, Promise<StageTone>>();

  constructor(made: Made, gone: AbortSignal, shared = new SharedByPage()) {
    [this.#made, this.#gone, this.#shared] = [made, gone, shared];
  }
  stop(): void {
    this.#taker?.stop();
    this.#taker = null;
  }

  async #take(wanted: WantedPictures, key: string, keep: (file: Blob) => Promise<unknown>): Promise<void> {
    this.#taker ??= new PictureTaker(this.#shared, WIDTH, HEIGHT);
    for await (const picture of this.#taker.take(wanted, this.#gone)) {
      this.#made(key, picture);
      await keep(await pictureFile(picture));
    }
  }
  #toneOf(projectId: string): Promise<StageTone> {
    const tone = this.#tones.get(projectId) ?? api.tone(projectId);
    this.#tones.set(projectId, tone);
    return tone;
  }

  async ofEffect(id: string): Promise<void> {
    const { document: effect, revision, projectId } = await api.effect(id);
    const wanted = {
      effect,
      budget: DEFAULT_BUDGET,
      seconds: [new EffectClock(effect.stretches).length * PICTURED_SHARE],
      view: firstCamera(effect) ?? PICTURE_VIEW,
      tone: await this.#toneOf(projectId),
    };
    await this.#take(wanted, id, (file) => api.savePicture(id, revision, file));
  }
  async ofAsset(projectId: string, { hash, name, kind }: AssetSummary): Promise<void> {
    const keep = (file: Blob) => api.saveThumbnail(projectId, hash, file);
    if (kind === 'picture') {
      await this.#shared.pictures.ensure([hash]);
      const found = this.#shared.pictures.get(hash);
      if (!found) return;
      const picture = await pictureWithin(found, [WIDTH, HEIGHT]);
      this.#made(hash, picture);
      await keep(await pictureFile(picture));
      return;
    }
    await this.#shared.rigs.ensure([hash]);
    const rig = this.#shared.rigs.get(hash);
    if (!rig) return;
    const wanted = {
      effect: effectWith(hash, name, rig),
      budget: DEFAULT_BUDGET,
      seconds: [0],
      view: viewOfMesh(rig),
      tone: USUAL_TONE,
    };
    await this.#take(wanted, hash, keep);
  }
}
