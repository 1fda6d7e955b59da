import { DEFAULT_BUDGET, EffectClock } from '@jinx/core/simulation';
import { firstCamera, PICTURE_VIEW } from '@jinx/player/scene';
import { onBeforeUnmount, shallowReactive } from 'vue';
import { api, type EffectSummary } from '../api';
import { pictureFile, PictureTaker } from '../engine/pictureTaker';
import { SharedByPage } from '../engine/shared';

const WIDTH = 400;
const HEIGHT = 250;
/** Where along the time sheet an effect is pictured. */
const INSTANT = 0.45;
/** Effects that are worked on at once: one is drawn, while others are computed, fetched, or kept. */
const AT_ONCE = 6;

/** Makes the pictures of effects that have none of their present revision, in the background. */
export function usePictures() {
  /** Those that were made, by the id of the effect. */
  const pictures = shallowReactive(new Map<string, ImageBitmap>());
  const underWay = new Set<string>();
  let taker: PictureTaker | null = null;
  const gone = new AbortController();
  onBeforeUnmount(() => {
    gone.abort();
    taker?.stop();
  });

  async function make({ id }: EffectSummary): Promise<void> {
    const { document: effect, revision } = await api.effect(id);
    const seconds = [new EffectClock(effect.stretches).length * INSTANT];
    const view = firstCamera(effect) ?? PICTURE_VIEW;
    for await (const picture of taker!.take({ effect, budget: DEFAULT_BUDGET, seconds, view }, gone.signal)) {
      pictures.set(id, picture);
      await api.savePicture(id, revision, await pictureFile(picture));
    }
  }

  async function makePictures(effects: readonly EffectSummary[]): Promise<void> {
    const waiting = effects.filter(
      ({ id, pictureRevision, revision }) => pictureRevision !== revision && !underWay.has(id),
    );
    if (waiting.length === 0) return;
    taker ??= new PictureTaker(new SharedByPage(), WIDTH, HEIGHT);
    for (const { id } of waiting) underWay.add(id);
    const makeNext = async (): Promise<void> => {
      const next = waiting.shift();
      if (!next || gone.signal.aborted) return;
      // A picture is a nicety: an effect that cannot be pictured is still listed.
      await make(next).catch(() => undefined);
      underWay.delete(next.id);
      await makeNext();
    };
    await Promise.all(Array.from({ length: AT_ONCE }, makeNext));
  }
  return { pictures, makePictures };
}
