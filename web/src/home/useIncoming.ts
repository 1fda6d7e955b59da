import { parcelRefusal } from '@jinx/core/answers';
import { message } from 'ant-design-vue';
import { shallowRef } from 'vue';
import { api, ApiError, type ParcelQuestion } from '../api';
import type { Chosen } from '../parcels/ParcelQuestion.vue';
import { tell } from '../tell';
import { upload } from '../uploads/uploads';

/** Endings of files that a project takes. */
export const TAKEN_FILES = '.glb,.zip,.png,.jpg,.jpeg,.webp';
const NONE_CHOSEN: Chosen = { clashes: {}, figures: {}, bones: [] };

/** What every zip begins with. */
const ZIP_MARK = 'PK\u0003\u0004';
/** A parcel is known by its name, or by how it begins where the name has no ending. */
const isParcel = async (file: File): Promise<boolean> =>
  /\.zip$/i.test(file.name) || (await file.slice(0, ZIP_MARK.length).text()) === ZIP_MARK;

/** A parcel of which something is open, until it is chosen what to do. */
interface Asking {
  readonly file: File;
  readonly question: ParcelQuestion;
}

/** Takes figures, pictures and parcels into a project, several at once. `arrived` is called whenever one is there. */
export function useIncoming(projectId: () => string, arrived: () => Promise<void>) {
  const asking = shallowRef<readonly Asking[]>([]);
  const leave = (file: File) => (asking.value = asking.value.filter((one) => one.file !== file));

  async function bringParcel(file: File, { bones, ...choices } = NONE_CHOSEN): Promise<void> {
    leave(file);
    const id = projectId();
    const taken = await upload(file, async (watch) => {
      for (const each of bones) await api.keepBones(id, each.from, each.to, each.bones);
      try {
        return await api.importParcel(id, file, choices, watch);
      } catch (error) {
        const { data: question } = parcelRefusal.safeParse(error instanceof ApiError ? error.body : null);
        if (!question) throw error;
        asking.value = [...asking.value, { file, question }];
        return null;
      }
    });
    if (!taken) return;
    const names = taken.effects.map((effect) => effect.name).join(', ');
    const are = taken.effects.length === 1 ? 'is' : 'are';
    const sentence = taken.isKnown
      ? `${names} ${are} here already, with all that is used: nothing was changed.`
      : `${names} ${are} in this project now, with all that is used.`;
    void message.success(sentence, 5);
    await arrived();
  }
  async function bringFile(file: File): Promise<void> {
    if (await upload(file, (watch) => api.importFile(projectId(), file, watch))) await arrived();
  }
  const bring = (file: File): Promise<void> =>
    isParcel(file)
      .then((is) => (is ? bringParcel(file) : bringFile(file)))
      .catch(tell);
  function drop(event: DragEvent): void {
    for (const file of event.dataTransfer?.files ?? []) void bring(file);
  }
  return {
    asking,
    leave,
    bring,
    bringParcel: (file: File, chosen: Chosen) => bringParcel(file, chosen).catch(tell),
    drop,
  };
}
