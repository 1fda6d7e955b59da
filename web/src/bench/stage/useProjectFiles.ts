import { message } from 'ant-design-vue';
import { provide, ref, shallowRef, watch, type InjectionKey, type Ref } from 'vue';
import { api, type ProjectDetail, type ProjectFile, type ToneChoice } from '../../api';
import type { StageTone } from '@jinx/stage';
import type { Engine } from '../../engine/engine';
import { useEffectStore } from '../../stores/effect';
import { tell } from '../../tell';
import { REFERENCE } from '../bench';

/** The project's tone curve, and what sets it. */
export interface Tone {
  readonly choice: Readonly<Ref<ToneChoice>>;
  /** The name of the project's table; '' without one. */
  readonly table: Readonly<Ref<string>>;
  /** The curve as every stage takes it. */
  readonly shown: Readonly<Ref<StageTone>>;
  readonly choose: (choice: ToneChoice) => Promise<void>;
  readonly bring: (file: File) => Promise<void>;
}
export const TONE: InjectionKey<Tone> = Symbol('tone');

/** What the project keeps for its pictures: something to compare with, and a tone curve. Both are brought to the stage. */
export function useProjectFiles(engine: Engine, project: Readonly<Ref<ProjectDetail | null>>) {
  const store = useEffectStore();
  const reference = shallowRef<File | null>(null);
  /** The name of what the project keeps to compare with; '' where it keeps nothing. */
  const kept = ref('');
  async function bringReference(file: File): Promise<void> {
    reference.value = file;
    try {
      await api.keepProjectFile(store.projectId, 'reference', file, file.name, file.type);
      kept.value = file.name;
    } catch (error) {
      tell(error);
      // It is seen all the same until the page is left.
      void message.info(`${file.name} is shown, and not kept with the project.`, 6);
    }
  }
  async function showReference(): Promise<void> {
    try {
      const blob = await api.projectFile(store.projectId, 'reference');
      reference.value = new File([blob], kept.value, { type: blob.type });
    } catch (error) {
      tell(error);
    }
  }
  async function removeReference(): Promise<void> {
    try {
      await api.removeProjectFile(store.projectId, 'reference');
      [kept.value, reference.value] = ['', null];
    } catch (error) {
      tell(error);
    }
  }
  provide(REFERENCE, { file: reference, kept, bring: bringReference, show: showReference, remove: removeReference });

  const choice = ref<ToneChoice>('filmic');
  const table = ref('');
  const shown = shallowRef<StageTone>({ kind: 'filmic' });
  /** Brings the chosen curve to the stage; a table comes from the server. */
  async function showTone(projectId: string): Promise<void> {
    const kind = choice.value;
    shown.value = kind === 'table' ? await api.tone(projectId) : { kind };
    engine.stage.send({ kind: 'tone', tone: shown.value });
  }
  provide(TONE, {
    choice,
    table,
    shown,
    async choose(to) {
      try {
        await api.setTone(store.projectId, to);
        choice.value = to;
        await showTone(store.projectId);
      } catch (error) {
        tell(error);
      }
    },
    async bring(file) {
      try {
        await api.keepProjectFile(store.projectId, 'tone', file, file.name, 'text/plain');
        [choice.value, table.value] = ['table', file.name];
        await showTone(store.projectId);
      } catch (error) {
        tell(error);
      }
    },
  });

  async function load({ id, tone, files }: ProjectDetail): Promise<void> {
    choice.value = tone;
    const nameOf = (purpose: ProjectFile['purpose']) => files.find((file) => file.purpose === purpose)?.name ?? '';
    [kept.value, table.value] = [nameOf('reference'), nameOf('tone')];
    try {
      await showTone(id);
    } catch (error) {
      tell(error);
    }
  }
  watch(project, (now) => now && void load(now));
  return { reference };
}
