import { ref } from 'vue';

/** Whether the first page is there as far as it is looked at; what no page needs before waits for that. */
export const isMade = ref(false);
export const tellMade = (): void => void (isMade.value = true);
