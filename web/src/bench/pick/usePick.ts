import { computed, type Ref } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { openPick, type Pick } from './pick';

/** What a control offers to choose from; with `previews`, what is pointed at is seen in the effect. */
export type Offered = Omit<Pick, 'anchor' | 'typed' | 'point'> & { readonly previews: boolean };

/** The list of one control: whether it is open, and opening it at `root` with what was typed already. */
export function usePick(root: Ref<HTMLElement | undefined>, offered: () => Offered) {
  const store = useEffectStore();
  const isOpen = computed(() => root.value !== undefined && openPick.value?.anchor === root.value);
  function open(typed = ''): void {
    const { previews, chosen, choose, ...rest } = offered();
    openPick.value = {
      ...rest,
      chosen,
      typed,
      anchor: root.value!,
      choose: (value) => value !== chosen && choose(value),
      point: (value) => previews && store.preview(value === null || value === chosen ? null : () => choose(value)),
    };
  }
  return { isOpen, open };
}
