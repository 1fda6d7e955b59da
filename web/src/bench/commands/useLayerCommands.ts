import { message } from 'ant-design-vue';
import { useEffectStore } from '../../stores/effect';
import type { Engine } from '../../engine/engine';
import { countText, plainNumber } from '../entry/numbers';
import { COMMANDS } from './list';
import { useCommands, type Commands } from './registry';
import { multiplyBirths } from '../values/births';
import type { useClipboard } from '../rulers/useClipboard';
import type { LayerActs } from '../rulers/useLayerActs';

/** Commands that lead to what is set for the effect as a whole. */
const WHOLE = Object.keys(COMMANDS).filter((id) => id.startsWith('whole.'));

/** What can be done with the chosen layers, as commands: found by the box, and some of them by keys. */
export function useLayerCommands(
  acts: LayerActs,
  clipboard: ReturnType<typeof useClipboard>,
  engine: Engine,
  registry: Commands,
): void {
  const store = useEffectStore();
  const on = (act: (id: string) => void) => () => void (store.chosen && act(store.chosenId));

  /** Doubles or halves the births, and says what the next doubling would cost by what these cost now. */
  function multiply(by: number): void {
    if (!store.chosen) return;
    let told = '';
    store.changeLayers(by > 1 ? 'double births' : 'halve births', (layer, id) => {
      const what = multiplyBirths(layer, by);
      if (id === store.chosenId) told = what;
    });
    const count = engine.state.layers.find(({ salt }) => salt === store.chosen!.salt);
    const next = count
      ? ` Doubled again: about ${countText(Math.round(count.living * by * 2))} alive, ${plainNumber(count.milliseconds * by * 2)} ms a step.`
      : '';
    void message.info({ content: `${store.chosen.name}: ${told}.${next}`, key: 'births' });
  }
  useCommands(
    {
      'layer.double': () => multiply(2),
      'layer.halve': () => multiply(0.5),
      'layer.all': () => store.choose([...store.effect!.layers.order]),
      'layer.duplicate': on((id) => acts.copy(id)),
      'layer.mirrored': on((id) => acts.copy(id, true)),
      'layer.mirror': () =>
        store.groupId ? acts.mirrorAll(store.groupId) : store.chosen && acts.mirror(store.chosenId),
      'layer.hide': on((id) => acts.flip(id, 'hidden')),
      'layer.alone': on((id) => acts.flip(id, 'solo')),
      'layer.lock': on((id) => acts.flip(id, 'locked')),
      'layer.group': on((id) => acts.group(id)),
      'layer.remove': on((id) => acts.remove(id)),
      'layer.clip': () => void clipboard.copy(),
      'layer.front': on((id) => acts.moveBy(id, -1)),
      'layer.back': on((id) => acts.moveBy(id, 1)),
      ...Object.fromEntries(WHOLE.map((id) => [id, () => (store.page = 'effect')])),
    },
    registry,
  );
}
