import { ownNumbersAt, type LifeSample } from '@jinx/core/checks';
import type { Effect } from '@jinx/core/document';
import type { ParticlePicturesAsked, ParticleSample } from '@jinx/stage';
import { inject, onBeforeUnmount, onMounted } from 'vue';
import { answered } from '../../engine/calls';
import { ENGINE } from '../bench';

/** Asked for a little after the last change, so that a drag asks seldom. */
const WAIT_MILLISECONDS = 340;
const AGAIN_MILLISECONDS = 700;

/** A middling particle of a layer at the ages of `life`, with an opacity of each, as the stage draws pictures of it. */
export function particleSamples(
  effect: Effect,
  layerId: string,
  life: readonly LifeSample[],
  seconds: number,
  opacityOf: (sample: LifeSample) => number,
): ParticleSample[] {
  const ages = life.map(({ age }) => age);
  const own = ownNumbersAt(effect, layerId, ages);
  return life.map((sample, n) => {
    const { age, rgb, intensity } = sample;
    const colour = [rgb[0] * intensity, rgb[1] * intensity, rgb[2] * intensity, opacityOf(sample)] as const;
    return { age, seconds: age * seconds, colour, own: own[n]! };
  });
}

/**
 * Small pictures of a layer's particles, side by side, asked of the stage: once mounted, and a little after each
 * `later`. `take` is given null while `question` is null, and where the stage does not show the layer: as one that was
 * just made may not be drawn yet, it is then asked again.
 */
export function useParticlePictures(
  question: () => ParticlePicturesAsked | null,
  take: (pictures: ImageBitmap | null) => void,
): { later: () => void } {
  const engine = inject(ENGINE)!;
  let timer = 0;
  let isGone = false;
  const after = (milliseconds: number) => {
    window.clearTimeout(timer);
    timer = window.setTimeout(() => void ask(), milliseconds);
  };
  async function ask(): Promise<void> {
    const asked = question();
    if (!asked) return take(null);
    const answer = await answered(engine.stage.particlePictures(asked));
    if (isGone || !answer) return;
    if (!answer.bitmap) after(AGAIN_MILLISECONDS);
    take(answer.bitmap);
  }
  const later = () => after(WAIT_MILLISECONDS);
  onMounted(later);
  onBeforeUnmount(() => {
    isGone = true;
    window.clearTimeout(timer);
  });
  return { later };
}
