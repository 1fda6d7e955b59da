import { message } from 'ant-design-vue';
import { inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { countText, plainNumber } from '../chips/numbers';
import { useCommands } from '../commands/registry';
import { multiplyBirths } from '../values/births';
import type { useClipboard } from './useClipboard';
import type { LayerActs } from './useLayerActs';

/** What can be done with the chosen layers, as commands: found by the box, and some of them by keys. */
export function useLayerCommands(acts: LayerActs, clipboard: ReturnType<typeof useClipboard>): void {
  const store = useEffectStore();
  const engine = inject(ENGINE)!;
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
  useCommands([
    {
      id: 'layer.double',
      label: 'double the births of the chosen layers',
      otherWords: ['twice as many', 'more particles'],
      key: ']',
      run: () => multiply(2),
    },
    {
      id: 'layer.halve',
      label: 'halve the births of the chosen layers',
      otherWords: ['half as many', 'fewer particles'],
      key: '[',
      run: () => multiply(0.5),
    },
    {
      id: 'layer.duplicate',
      label: 'duplicate the chosen layers',
      otherWords: ['copy layer', 'clone'],
      key: null,
      run: on((id) => acts.copy(id)),
    },
    {
      id: 'layer.mirrored',
      label: 'duplicate the chosen layers, mirrored',
      otherWords: ['mirror copy', 'left and right'],
      key: null,
      run: on((id) => acts.copy(id, true)),
    },
    {
      id: 'layer.mirror',
      label: 'mirror the chosen layers left and right',
      otherWords: ['flip', 'mirror'],
      key: null,
      run: on((id) => acts.mirror(id)),
    },
    {
      id: 'layer.hide',
      label: 'hide or show the chosen layers',
      otherWords: ['visibility', 'disable', 'mute layer'],
      key: null,
      run: on((id) => acts.flip(id, 'hidden')),
    },
    {
      id: 'layer.alone',
      label: 'see the chosen layers alone',
      otherWords: ['solo', 'isolate'],
      key: null,
      run: on((id) => acts.flip(id, 'solo')),
    },
    {
      id: 'layer.lock',
      label: 'lock or unlock the chosen layers',
      otherWords: ['freeze', 'protect'],
      key: null,
      run: on((id) => acts.flip(id, 'locked')),
    },
    {
      id: 'layer.group',
      label: 'group the chosen layers',
      otherWords: ['parent', 'folder'],
      key: null,
      run: on((id) => acts.group(id)),
    },
    {
      id: 'layer.remove',
      label: 'remove the chosen layers',
      otherWords: ['delete layer'],
      key: null,
      run: on((id) => acts.remove(id)),
    },
    {
      id: 'layer.clip',
      label: 'copy the chosen layers, for another effect',
      otherWords: ['clipboard', 'copy to another effect'],
      key: null,
      run: () => void clipboard.copy(),
    },
    {
      id: 'layer.front',
      label: 'move the chosen layer toward the front',
      otherWords: ['draw order up', 'bring forward'],
      key: null,
      run: on((id) => acts.moveBy(id, -1)),
    },
    {
      id: 'layer.back',
      label: 'move the chosen layer toward the back',
      otherWords: ['draw order down', 'send backward'],
      key: null,
      run: on((id) => acts.moveBy(id, 1)),
    },
    ...(
      [
        [
          'size',
          'size and tempo of the whole effect',
          ['scale effect', 'overall scale', 'time scale', 'playback rate of the effect'],
        ],
        ['palette', 'palette: colours with names', ['swatches', 'named colors', 'color variables']],
        ['measures', 'measures: lengths, times and counts with names', ['variables', 'shared values', 'constants']],
        [
          'dials',
          'dials: what others may turn',
          ['parameter', 'expose', 'exposed parameters', 'user parameters', 'public variables'],
        ],
        ['signals', 'signals: moments that the game announces', ['events', 'triggers', 'gameplay event']],
        ['cameras', 'cameras that were kept', ['viewpoints', 'bookmarks']],
        [
          'quality',
          'quality: what low and middle leave out',
          ['level of detail', 'LOD', 'scalability', 'culling', 'distance'],
        ],
        ['linked', 'linked effects', ['nested effect', 'sub-effect', 'instance of an effect']],
        ['siblings', 'siblings of this effect', ['variant', 'variation', 'derived effect', 'inheritance of effects']],
      ] as const
    ).map(([name, label, otherWords]) => ({
      id: `whole.${name}`,
      label,
      otherWords,
      key: null,
      run: () => (store.page = 'effect'),
    })),
  ]);
}
