import type { Effect } from '@jinx/core/document';

/** What the stage can stand in, and what each is also called. */
export const SURROUNDS: readonly {
  readonly value: Effect['stage']['surround'];
  readonly text: string;
  readonly otherWords: readonly string[];
}[] = [
  { value: 'dusk', text: 'dusk', otherWords: ['evening', 'dark background'] },
  { value: 'overcast', text: 'overcast', otherWords: ['grey sky', 'cloudy'] },
  { value: 'noon', text: 'noon', otherWords: ['daylight', 'bright background'] },
  { value: 'busy', text: 'busy', otherWords: ['busy background', 'cluttered'] },
];
