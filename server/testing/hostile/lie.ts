import type { Materials } from './materials.ts';
import type { Random } from './random.ts';

/** What is sent, and where to: a parcel, a document, a file, or how pictures are taken. */
export interface Sent {
  readonly to: 'parcels' | 'effects' | 'assets' | 'presets';
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** Well-formed in all but one thing. */
export type Lie = (materials: Materials, random: Random) => Sent;

// What is spoilt is spoilt without regard to its type.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type Loose = any;

/** JSON that is nested deeper than anything is read. */
export const DEEP = `${'['.repeat(200)}${']'.repeat(200)}`;
