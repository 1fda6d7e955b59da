import type { Surround } from '@jinx/core/document';

/** What the stage can stand in, from dark to light, and what each is also called. */
export const SURROUNDS: readonly {
  readonly value: Surround;
  readonly text: string;
  readonly help: string;
  readonly otherWords: readonly string[];
}[] = [
  { value: 'night', text: 'night', help: 'Nearly black', otherWords: ['dark', 'black background'] },
  {
    value: 'dusk',
    text: 'dusk',
    help: 'Evening: what glows is seen best',
    otherWords: ['evening', 'dark background'],
  },
  { value: 'overcast', text: 'overcast', help: 'A grey sky', otherWords: ['grey sky', 'cloudy'] },
  {
    value: 'noon',
    text: 'noon',
    help: 'Daylight: what only adds light is lost',
    otherWords: ['daylight', 'bright background'],
  },
  { value: 'busy', text: 'busy', help: 'A restless background', otherWords: ['busy background', 'cluttered'] },
  {
    value: 'bare',
    text: 'bare',
    help: 'Without sky, ground and light: only the effect and lights of your own',
    otherWords: ['no sky', 'no ground', 'empty background', 'unlit', 'void'],
  },
];
