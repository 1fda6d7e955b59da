import { EffectClock, DEFAULT_BUDGET } from '@jinx/core/simulation';
import { onBeforeUnmount } from 'vue';
import { api, type EffectSummary } from '../api';
import { Engine } from '../engine/engine';
import { PICTURE_VIEW } from '../engine/view';

const WIDTH = 400;
const HEIGHT = 250;
/** Where along the time sheet an effect is pictured. */
const INSTANT = 0.45;

async function pngOf(rgba: Uint8Array): Promise<Blob> {
  const canvas = new OffscreenCanvas(WIDTH, HEIGHT);
  canvas.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(rgba), WIDTH, HEIGHT), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}

/** Makes the pictures of effects that have none of their present revision, one after another, in the background. */
export function usePictures(
  onMade: (id: string, revision: number) => void,
): (effects: readonly EffectSummary[]) => Promise<void> {
  let engine: Engine | null = null;
  let isGone = false;
  onBeforeUnmount(() => {
    isGone = true;
    engine?.stop();
  });

  async function make(summary: EffectSummary): Promise<void> {
    if (!engine) {
      engine = new Engine();
      engine.startStage(new OffscreenCanvas(WIDTH, HEIGHT), WIDTH, HEIGHT);
      engine.view(PICTURE_VIEW);
      engine.guides([], false);
    }
    const { document, revision } = await api.effect(summary.id);
    await engine.load(document, DEFAULT_BUDGET);
    const clock = new EffectClock(document.stretches);
    engine.seek(clock.stepAt(clock.length * INSTANT));
    await engine.hash();
    const { rgba } = await engine.pixels(WIDTH, HEIGHT);
    if (isGone) return;
    await api.savePicture(summary.id, revision, await pngOf(rgba));
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
