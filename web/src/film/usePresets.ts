import type { FilmSettings } from '@jinx/core/formats';
import { Button, message } from 'ant-design-vue';
import { h, shallowRef } from 'vue';
import { api } from '../api';
import { tell } from '../tell';

export interface Preset {
  readonly name: string;
  /** Null where another version kept it, and it cannot be read. */
  readonly settings: FilmSettings | null;
}

/** How pictures are taken, kept in a project under names. */
export function usePresets(projectId: string) {
  const presets = shallowRef<readonly Preset[]>([]);
  const load = () => api.presets(projectId).then((found) => (presets.value = found), tell);
  void load();
  async function keep(name: string, settings: FilmSettings): Promise<void> {
    try {
      await api.keepPreset(projectId, name, settings);
      void message.success(`“${name}” is kept in the project.`);
      await load();
    } catch (error) {
      tell(error);
    }
  }
  async function forget({ name, settings }: Preset): Promise<void> {
    try {
      await api.deletePreset(projectId, name);
      await load();
      const undo = () => {
        message.destroy('preset');
        if (settings) void keep(name, settings);
      };
      const button = settings ? [h(Button, { size: 'small', onClick: undo }, () => 'Undo')] : [];
      const content = () => [`“${name}” is taken away. `, ...button];
      void message.info({ content, key: 'preset', duration: 6 });
    } catch (error) {
      tell(error);
    }
  }
  return { presets, keep, forget };
}
