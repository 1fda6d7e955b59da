import { DEFAULT_BUDGET, EffectClock } from '@jinx/core/simulation';
import { onBeforeUnmount } from 'vue';
import { api, type EffectSummary } from '../api';
import { PictureTaker } from '../engine/pictureTaker';
import { firstCamera, PICTURE_VIEW } from '@jinx/player/scene';

const WIDTH = 400;
const HEIGHT = 250;
/** Where along the time sheet an effect is pictured. */
const INSTANT = 0.45;

/** Makes the pictures of effects that have none of their present revision, one after another, in the background. */
export function usePictures(
  onMade: (id: string, revision: number) => void,
): (effects: readonly EffectSummary[]) => Promise<void> {
  let taker: PictureTaker | null = null;
  let isGone = false;
  onBeforeUnmount(() => {
    isGone = true;
    taker?.stop();
  });

  async function make(summary: EffectSummary): Promise<void> {
    taker ??= new PictureTaker(WIDTH, HEIGHT);
    const { document, revision } = await api.effect(summary.id);
    await taker.load(document, DEFAULT_BUDGET);
    const { length } = new EffectClock(document.stretches);
    const picture = await taker.at(length * INSTANT, firstCamera(document) ?? PICTURE_VIEW);
    if (isGone) return;
    await api.savePicture(summary.id, revision, picture);
    onMade(summary.id, revision);
  }

  return async (effects) => {
    for (const effect of effects) {
      if (isGone) return;
      // A picture is a nicety: an effect that cannot be pictured is still listed.
      if (effect.pictureRevision !== effect.revision) await make(effect).catch(() => undefined);
    }
  };
}
