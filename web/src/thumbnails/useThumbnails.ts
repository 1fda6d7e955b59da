import { onBeforeUnmount, shallowReactive } from 'vue';
import type { AssetSummary, EffectSummary } from '../api';
import type { SharedByPage } from '../engine/shared';
import type { ThumbnailMaker } from './thumbnailMaker';

/** Thumbnails that are worked on at once: one is drawn, while others are computed, fetched, or kept. */
const AT_ONCE = 6;

interface Wanted {
  readonly key: string;
  readonly make: (maker: ThumbnailMaker) => Promise<void>;
}

/**
 * Makes, in the background, the thumbnails that the server does not have: of effects that changed since, and of figures and
 * pictures that were just taken in. The server keeps them.
 */
export function useThumbnails(shared?: () => SharedByPage) {
  /** Those that were made, by the id of the effect or the hash of the asset. */
  const made = shallowReactive(new Map<string, ImageBitmap>());
  const underWay = new Set<string>();
  let maker: Promise<ThumbnailMaker> | null = null;
  const gone = new AbortController();
  onBeforeUnmount(() => {
    gone.abort();
    void maker?.then((made) => made.stop());
  });
  const fetched = async (): Promise<ThumbnailMaker> => {
    const { ThumbnailMaker } = await import('./thumbnailMaker');
    return new ThumbnailMaker((key, picture) => void made.set(key, picture), gone.signal, shared?.());
  };

  async function makeAll(all: readonly Wanted[]): Promise<void> {
    const waiting = all.filter(({ key }) => !underWay.has(key));
    if (waiting.length === 0 || gone.signal.aborted) return;
    for (const { key } of waiting) underWay.add(key);
    const at = await (maker ??= fetched());
    const makeNext = async (): Promise<void> => {
      const next = waiting.shift();
      if (!next || gone.signal.aborted) return;
      // A thumbnail is a nicety: what cannot be pictured is still listed.
      await next.make(at).catch(() => undefined);
      underWay.delete(next.key);
      await makeNext();
    };
    await Promise.all(Array.from({ length: AT_ONCE }, makeNext));
    // Its threads are of no use until something else is to be pictured.
    if (underWay.size === 0) at.stop();
  }
  const makeOfEffects = (effects: readonly EffectSummary[]) =>
    makeAll(
      effects
        .filter(({ id, pictureRevision, revision }) => pictureRevision !== revision && !made.has(id))
        .map(({ id }) => ({ key: id, make: (maker) => maker.ofEffect(id) })),
    );
  const makeOfAssets = (projectId: string, assets: readonly AssetSummary[]) =>
    makeAll(
      assets
        .filter(({ hash, hasThumbnail }) => !hasThumbnail && !made.has(hash))
        .map((asset) => ({ key: asset.hash, make: (maker) => maker.ofAsset(projectId, asset) })),
    );
  return { made, makeOfEffects, makeOfAssets };
}
