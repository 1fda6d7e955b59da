import { message } from 'ant-design-vue';
import { provide, ref, shallowRef, watch, type InjectionKey, type Ref } from 'vue';
import { api, type ProjectDetail, type ToneChoice } from '../../api';
import type { Engine } from '../../engine/engine';
import { useEffectStore } from '../../stores/effect';
import { tell } from '../../tell';
import { REFERENCE } from '../bench';

/** The project's tone curve, and what sets it. */
export interface Tone {
  readonly choice: Readonly<Ref<ToneChoice>>;
  /** The name of the project's table; '' without one. */
  readonly table: Readonly<Ref<string>>;
  readonly choose: (choice: Exclude<ToneChoice, 'table'>) => Promise<void>;
  readonly bring: (file: File) => Promise<void>;
}
export const TONE: InjectionKey<Tone> = Symbol('tone');

/** What the project keeps for its pictures: something to compare with, and a tone curve. Both are brought to the stage. */
export function useProjectFiles(engine: Engine, project: Readonly<Ref<ProjectDetail | null>>) {
  const store = useEffectStore();
  const reference = shallowRef<File | null>(null);
  async function setReference(file: File | null): Promise<void> {
    reference.value = file;
    try {
      if (file === null) await api.removeProjectFile(store.projectId, 'reference');
      else await api.keepProjectFile(store.projectId, 'reference', file, file.name, file.type);
    } catch (error) {
      tell(error);
      // It is seen all the same until the page is left.
      if (file) void message.info(`${file.name} is shown, and not kept with the project.`, 6);
    }
  }
  provide(REFERENCE, { file: reference, set: setReference });

  const choice = ref<ToneChoice>('filmic');
  const table = ref('');
  function show(text: string | null): void {
    const kind = choice.value;
    engine.stage.send({
      kind: 'tone',
      tone: kind === 'table' ? (text === null ? { kind: 'filmic' } : { kind, text }) : { kind },
    });
  }
  provide(TONE, {
    choice,
    table,
    async choose(to) {
      try {
        await api.setTone(store.projectId, to);
        choice.value = to;
        show(null);
      } catch (error) {
        tell(error);
      }
    },
    async bring(file) {
      try {
        await api.keepProjectFile(store.projectId, 'tone', file, file.name, 'text/plain');
        [choice.value, table.value] = ['table', file.name];
        show(await file.text());
      } catch (error) {
        tell(error);
      }
    },
  });

  async function load({ id, tone, files }: ProjectDetail): Promise<void> {
    choice.value = tone;
    const [kept, shown] = [
      files.find(({ purpose }) => purpose === 'reference'),
      files.find((file) => file.purpose === 'tone'),
    ];
    table.value = shown?.name ?? '';
    try {
      show(tone === 'table' && shown ? await (await api.projectFile(id, 'tone')).text() : null);
      if (!kept) return;
      const blob = await api.projectFile(id, 'reference');
      reference.value = new File([blob], kept.name, { type: kept.type });
    } catch (error) {
      tell(error);
    }
  }
  watch(project, (now) => now && void load(now));
  return { reference, setReference };
}
