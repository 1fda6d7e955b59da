import type { Key } from '@jinx/core/document';
import { shallowRef } from 'vue';

/** Keys of a curve that were copied, to be put into any other. */
export const copiedKeys = shallowRef<readonly Key[]>([]);
