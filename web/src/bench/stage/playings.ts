import type { Playing } from '@jinx/core/editing';
import type { PickItem } from '../pick/pick';

/** How an effect can play, each with what it means. */
export const PLAYINGS: readonly (PickItem & { readonly value: Playing })[] = [
  {
    value: 'once',
    text: 'once',
    help: 'It opens and closes, and is over: a one-shot.',
    otherWords: ['one-shot', 'plays once', 'no loop'],
  },
  {
    value: 'held',
    text: 'holds until let go',
    help: 'It opens, goes on until it is let go, and closes. The hold runs on for as long as that takes.',
    otherWords: ['sustain until released', 'running on'],
  },
  {
    value: 'looped',
    text: 'loops without a seam',
    help: 'As held, but the hold repeats: its last picture is its first, bit for bit.',
    otherWords: ['loop', 'looping', 'seamless loop'],
  },
];
