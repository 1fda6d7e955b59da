import { message } from 'ant-design-vue';
import type { Engine } from '../engine/engine';
import { useEffectStore } from '../stores/effect';
import { tell } from '../tell';
import { useCommands, type Commands } from './commands/registry';
import { putStateBy } from './history/putStateBy';
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
  useCommands(
    [
      {
        id: 'glass.particle',
        label: 'put a particle of the stage under the glass',
        otherWords: ['inspect', 'probe'],
        key: 'g',
        run: () => pickOne(engine, probe),
      },
      {
        id: 'glass.pixel',
        label: 'take a pixel of the stage apart: what made it',
        otherWords: ['inspect', 'colour'],
        key: 'p',
        run: () => pickOne(engine, probe, 'pixel'),
      },
      {
        id: 'tray.keep',
        label: 'keep the present state in the tray, with its picture',
        otherWords: ['put by', 'variant'],
        key: 't',
        run: () => void keepState(),
      },
      { id: 'undo', label: 'undo', otherWords: ['back'], key: 'ctrl+z', run: () => store.undo() },
      { id: 'redo', label: 'redo', otherWords: ['again'], key: ['ctrl+shift+z', 'ctrl+y'], run: () => store.redo() },
    ],
    commands,
  );
}
