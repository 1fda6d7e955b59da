import { nextTick, ref, watch, type Ref } from 'vue';
import { useEffectStore } from '../../stores/effect';

/** What is typed into a field, until it is taken or taken back. */
export interface Typed {
  readonly isTyping: Ref<boolean>;
  readonly typed: Ref<string>;
  /** Why it was not taken; '' when nothing is wrong. */
  readonly problem: Ref<string>;
  /** Takes the field's element, where it comes with opening. */
  hold(element: unknown): void;
  /** Opens it with what is shown, all chosen; or with what was typed already. */
  open(begun?: string): Promise<void>;
  /** Takes what was typed. Returns false when it cannot be: then it stays as it was typed, with the reason. */
  commit(): boolean;
  cancel(): void;
}

/** A field that is opened with what is `shown`; `take` reads what was typed. @throws in `take`: a sentence that is shown. */
export function useTyped(shown: () => string, take: (text: string) => void): Typed {
  const store = useEffectStore();
  const isTyping = ref(false);
  const typed = ref('');
  const problem = ref('');
  let field: HTMLInputElement | null = null;

  function cancel(): void {
    isTyping.value = false;
    problem.value = '';
  }
  async function open(begun?: string): Promise<void> {
    typed.value = begun ?? shown();
    problem.value = '';
    isTyping.value = true;
    await nextTick();
    if (begun === undefined) field?.select();
    else field?.focus();
  }
  function commit(): boolean {
    if (!isTyping.value) return true;
    try {
      if (typed.value !== shown()) take(typed.value);
      cancel();
      return true;
    } catch (error) {
      problem.value = (error as Error).message;
      return false;
    }
  }
  watch(typed, () => (problem.value = ''));
  // What was typed for one layer is not for another.
  watch(() => store.chosenId, cancel);
  const hold = (element: unknown) => (field = element as HTMLInputElement | null);
  return { isTyping, typed, problem, hold, open, commit, cancel };
}
