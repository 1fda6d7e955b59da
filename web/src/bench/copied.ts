import type { Step } from '@jinx/core/document';
import { shallowRef } from 'vue';

/** The step of a look that was copied last, to be pasted into any look. */
export const copiedStep = shallowRef<Step | null>(null);
