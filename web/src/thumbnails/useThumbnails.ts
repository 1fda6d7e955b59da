import { DEFAULT_BUDGET, EffectClock } from '@jinx/core/simulation';
import { firstCamera, PICTURE_VIEW } from '@jinx/player/scene';
import type { StageTone } from '@jinx/stage';
import { onBeforeUnmount, shallowReactive } from 'vue';
import { api, type AssetSummary, type EffectSummary } from '../api';
import { pictureFile, PictureTaker } from '../engine/pictureTaker';
import { SharedByPage } from '../engine/shared';
import { effectWith, pictureWithin, viewOfMesh } from './assetPicture';

const [WIDTH, HEIGHT] = [400, 250];
/** Where along the time sheet an effect is pictured. */
export const PICTURED_SHARE = 0.45;
/** Thumbnails that are worked on at once: one is drawn, while others are computed, fetched, or kept. */
const AT_ONCE = 6;
/** What figures and meshes are pictured with. */
const USUAL_TONE: StageTone = { kind: 'filmic' };

/**
 * Makes, in the background, the thumbnails that the server does not have: of effects that changed since, and of figures and
 * pictures that were just taken in. The server keeps them.
 */
export function useThumbnails(shared: () => SharedByPage = () => new SharedByPage()) {
  /** Those that were made, by the id of the effect or the hash of the asset. */
  const made = shallowReactive(new Map<string, ImageBitmap>());
  const underWay = new Set<string>();
  let common: SharedByPage | null = null;
  let taker: PictureTaker | null = null;
  const gone = new AbortController();
  function stop(): void {
    taker?.stop();
    taker = null;
  }
  onBeforeUnmount(() => {
    gone.abort();
    stop();
  });

  /** The tone curves of projects, each asked for once. */
  const tones = new Map<string, ReturnType<typeof api.tone>>();
  function toneOf(projectId: string): ReturnType<typeof api.tone> {
    const tone = tones.get(projectId) ?? api.tone(projectId);
    tones.set(projectId, tone);
    return tone;
  }
  async function makeEffect({ id }: EffectSummary): Promise<void> {
    const { document: effect, revision, projectId } = await api.effect(id);
    const tone = await toneOf(projectId);
    const seconds = [new EffectClock(effect.stretches).length * PICTURED_SHARE];
    const view = firstCamera(effect) ?? PICTURE_VIEW;
    const wanted = { effect, budget: DEFAULT_BUDGET, seconds, view, tone };
    for await (const picture of taker!.take(wanted, gone.signal)) {
      made.set(id, picture);
      await api.savePicture(id, revision, await pictureFile(picture));
    }
  }
  async function makeAsset(projectId: string, { hash, name, kind }: AssetSummary): Promise<void> {
    const keep = async (picture: ImageBitmap) => {
      made.set(hash, picture);
      await api.saveThumbnail(projectId, hash, await pictureFile(picture));
    };
    if (kind === 'picture') {
      await common!.pictures.ensure([hash]);
      const picture = common!.pictures.get(hash);
      return picture && keep(await pictureWithin(picture, [WIDTH, HEIGHT]));
    }
    await common!.rigs.ensure([hash]);
    const rig = common!.rigs.get(hash);
    if (!rig) return;
    const wanted = {
      effect: effectWith(hash, name, rig),
      budget: DEFAULT_BUDGET,
      seconds: [0],
      view: viewOfMesh(rig),
      tone: USUAL_TONE,
    };
    for await (const picture of taker!.take(wanted, gone.signal)) await keep(picture);
  }

  async function makeAll(all: readonly { key: string; make: () => Promise<void> }[]): Promise<void> {
    const waiting = all.filter(({ key }) => !underWay.has(key));
    if (waiting.length === 0 || gone.signal.aborted) return;
    taker ??= new PictureTaker((common ??= shared()), WIDTH, HEIGHT);
    for (const { key } of waiting) underWay.add(key);
    const makeNext = async (): Promise<void> => {
      const next = waiting.shift();
      if (!next || gone.signal.aborted) return;
      // A thumbnail is a nicety: what cannot be pictured is still listed.
      await next.make().catch(() => undefined);
      underWay.delete(next.key);
      await makeNext();
    };
    await Promise.all(Array.from({ length: AT_ONCE }, makeNext));
    // Its threads are of no use until something else is to be pictured.
    if (underWay.size === 0) stop();
  }
  const makeOfEffects = (effects: readonly EffectSummary[]) =>
    makeAll(
      effects
        .filter(({ id, pictureRevision, revision }) => pictureRevision !== revision && !made.has(id))
        .map((effect) => ({ key: effect.id, make: () => makeEffect(effect) })),
    );
  const makeOfAssets = (projectId: string, assets: readonly AssetSummary[]) =>
    makeAll(
      assets
        .filter(({ hash, hasThumbnail }) => !hasThumbnail && !made.has(hash))
        .map((asset) => ({ key: asset.hash, make: () => makeAsset(projectId, asset) })),
    );
  return { made, makeOfEffects, makeOfAssets };
}
