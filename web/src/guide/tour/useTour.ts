import { ref } from 'vue';

/** Whether the tour to the first effect is on. */
export const isTouring = ref(false);
