import type { Surround } from './api.ts';

/** What an effect can be seen in front of, from dark to light. */
export const SURROUNDS: readonly Surround[] = ['night', 'dusk', 'overcast', 'noon', 'busy', 'bare'];
