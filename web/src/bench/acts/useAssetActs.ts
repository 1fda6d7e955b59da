import { stepToChange, type Effect, type Id, type PictureRef, type Step } from '@jinx/core/document';
import { message } from 'ant-design-vue';
import type { AssetSummary } from '../../api';
import type { Engine } from '../../engine/engine';
import { useEffectStore } from '../../stores/effect';
import { isOpaque, setPicture, showPicture } from '../values/pictures';

/** Lets layers show pictures of the project; what has no transparency is given its opacity by its brightness. */
export function useAssetActs(engine: Pick<Engine, 'assets'>) {
  const store = useEffectStore();
  /** Whether a picture covers all of its area; null where it is not here yet. */
  function coversAll(hash: string): boolean | null {
    const picture = engine.assets.pictures.get(hash);
    return picture ? isOpaque(picture.texture.rgba) : null;
  }
  function change(hash: string, label: string, recipe: (draft: Effect, isOpaque: boolean) => Step | null): void {
    const covers = coversAll(hash) ?? false;
    let opacity = '';
    store.change(label, (draft) => {
      const step = recipe(draft, covers);
      opacity = step?.kind === 'picture' ? step.settings.opacity.base.value : '';
    });
    if (covers && opacity === 'its brightness' && !store.previewed)
      void message.info(
        {
          content:
            'The picture has no transparency: it is opaque where it is bright. That can be changed in its step.',
          key: 'picture',
        },
        6,
      );
  }
  /** Waits for the picture itself where it is not here; what is only pointed at is shown by what is known. */
  function once(hash: string, act: () => void): void {
    const wait = store.isTrying() ? null : engine.assets.pictures.ensure([hash]);
    if (wait) void wait.then(act);
    else act();
  }
  /** Lets a layer show a picture. */
  const show = (asset: Pick<AssetSummary, 'hash' | 'name'>, layerId = store.chosenId): void =>
    once(asset.hash, () =>
      change(asset.hash, `show ${asset.name}`, (draft, covers) =>
        showPicture(draft, layerId, asset, store.newId(), covers),
      ),
    );
  /** Gives a step of the chosen layer's look a picture, or none. */
  function giveStep(stepId: Id, picture: PictureRef | null): void {
    const give = (draft: Effect, covers: boolean): Step | null => {
      const step = stepToChange(draft, store.chosenId, stepId);
      if (step && 'picture' in step) setPicture(step, picture, covers);
      return step;
    };
    if (picture) return once(picture.asset, () => change(picture.asset, `show ${picture.name}`, give));
    store.change('show no picture', (draft) => void give(draft, false));
  }
  return { show, giveStep };
}
