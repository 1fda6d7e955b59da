import { message } from 'ant-design-vue';
import { onBeforeUnmount, shallowRef, watch } from 'vue';
import { sendStates } from '../../keeping/leftBehind';
import { api } from '../../api';
import type { Present } from '../../api';
import { listen } from '../../keeping/live';
import { useSavingStore } from '../../stores/saving';
import { tell, tellRefused } from '../../tell';

const SECONDS = 6;
const MOST_TOLD = 3;

/** Who else has an effect open; what they change is taken in, and told. */
export function useOthers(id: string) {
  const saving = useSavingStore();
  const others = shallowRef<readonly Present[]>([]);
  const stop = listen(id, {
    people: (people) => (others.value = people),
    edit: saving.announced,
    following: saving.followed,
    // The answer to this says why: it leads to the sign-in, or tells what is gone.
    forbidden: () => void api.effect(id).catch(tell),
    back: () => {
      saving.isBack();
      void sendStates().then(tellRefused);
    },
  });
  onBeforeUnmount(stop);
  watch(
    () => saving.tookIn,
    (since) => {
      if (!since) return;
      const who = since.by.filter(Boolean).join(', ') || 'Another window';
      const what = since.labels.slice(0, MOST_TOLD).join('; ');
      const more = since.labels.length > MOST_TOLD ? ' and more' : '';
      void message.info({
        content: `${who} changed this too: ${what}${more}. It was taken in.`,
        key: 'tookIn',
        duration: SECONDS,
      });
    },
  );
  return { others };
}
