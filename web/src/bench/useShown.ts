import type { StageView } from '@jinx/stage';
import { message } from 'ant-design-vue';
import { useDebounceFn, useStorage } from '@vueuse/core';
import { computed, onBeforeUnmount, provide, ref, watch } from 'vue';
import type { Engine } from '../engine/engine';
import { useEffectStore } from '../stores/effect';
import { ALONE, SHOWN } from './bench';
import { useCommands, type Commands } from './commands/registry';
import { useDimsOthers, usePulled } from './stage/usePulled';
import { keyInstants } from './stage/views';

/** An edit rests this long before silhouettes of other instants are computed anew. */
const REST_MILLISECONDS = 250;

/** How the stage shows the effect: which view, raw, dimmed, a step of a look alone, with guides, from a camera that follows. */
export function useShown(engine: Engine, commands: Commands) {
  const store = useEffectStore();
  const showGuides = ref(true);
  const follows = ref(true);
  const isRaw = ref(false);
  const isDim = ref(false);
  const alone = ref<{ layer: string; step: string } | null>(null);
  provide(ALONE, alone);
  watch([isRaw, isDim, alone], () => engine.see({ isRaw: isRaw.value, isDim: isDim.value, alone: alone.value }));

  const view = ref<StageView>('picture');
  /** What was shown in place of the picture last. */
  let lastView: StageView = 'grey';
  watch(view, (shown) => {
    if (shown !== 'picture') lastView = shown;
    engine.stage.show(shown);
  });
  const instants = computed(() =>
    view.value === 'silhouette' && store.effect ? keyInstants(store.effect.stretches) : [],
  );
  let timer = 0;
  watch([() => store.effect, instants], ([, seconds], before) => {
    window.clearTimeout(timer);
    if (seconds.length === 0 && !before?.[1]?.length) return;
    timer = window.setTimeout(() => engine.layInstants(seconds), seconds.length > 0 ? REST_MILLISECONDS : 0);
  });

  const isPulled = usePulled();
  /** While something is pulled, the chosen layers stay bright and the others are dimmed. */
  const dimsOthers = useDimsOthers();
  watch([isPulled, dimsOthers], ([isOn, isWanted]) => {
    const layers = store.effect?.layers.byId ?? {};
    engine.stage.dimOthers(isOn && isWanted ? store.chosenIds.flatMap((id) => layers[id]?.salt ?? []) : []);
  });

  const turn = (what: { value: boolean }) => () => void (what.value = !what.value);
  useCommands(
    {
      'stage.guides': turn(showGuides),
      'stage.raw': turn(isRaw),
      'stage.view': () => (view.value = view.value === 'picture' ? lastView : 'picture'),
      'stage.dim': turn(isDim),
      'stage.dimOthers': () => {
        dimsOthers.value = !dimsOthers.value;
        void message.info({
          content: dimsOthers.value
            ? 'While something is pulled, the other layers are dimmed.'
            : 'While something is pulled, all layers stay as they are.',
          key: 'dim',
        });
      },
    },
    commands,
  );
  const replays = useStorage('jinx replay on every change', false);
  // What is dragged plays again once it is let go.
  const replay = () => engine.playback.replay();
  const replaySoon = useDebounceFn(replay, REST_MILLISECONDS);
  onBeforeUnmount(store.onTransition(() => replays.value && void replaySoon()));
  const shown = { showGuides, follows, isRaw, isDim, replays, view };
  provide(SHOWN, shown);
  return { ...shown, instants };
}
