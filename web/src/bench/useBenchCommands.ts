import { useEventListener } from '@vueuse/core';
import { message } from 'ant-design-vue';
import type { Engine } from '../engine/engine';
import { useEffectStore } from '../stores/effect';
import { tell } from '../tell';
import { keyOf } from './commands/keys';
import { useCommands, type Commands } from './commands/registry';
import { putStateBy } from './history/putStateBy';
import { SURROUNDS } from './stage/surrounds';
import { pickOne, type Probe } from './reading/probe';

/** Commands of the bench as a whole: those that no part of it carries out by itself. */
export function useBenchCommands(engine: Engine, probe: Probe, commands: Commands): void {
  const store = useEffectStore();
  /** Puts the present state by, with its picture, without leaving the work. */
  async function keepState(): Promise<void> {
    try {
      await putStateBy(engine, store.id, store.effect!);
      void message.success({ content: 'Kept in the tray.', key: 'tray' });
    } catch (error) {
      tell(error);
    }
  }
  // It is seen for as long as the key is held.
  useEventListener(
    window,
    'keyup',
    (event) => commands.keysOf('stage.before').includes(keyOf(event) ?? '') && store.preview(null),
  );
  useEventListener(window, 'blur', () => store.preview(null));
  useCommands(
    {
      'glass.particle': () => pickOne(engine, probe),
      'glass.pixel': () => pickOne(engine, probe, 'pixel'),
      'stage.before': () => store.previewBefore(),
      'tray.keep': () => void keepState(),
      ...Object.fromEntries(
        SURROUNDS.map(({ value, text }) => [
          `surround.${value}`,
          () => store.change(`choose ${text}`, ({ stage }) => (stage.surround = value)),
        ]),
      ),
      undo: () => store.undo(),
      redo: () => store.redo(),
    },
    commands,
  );
}
