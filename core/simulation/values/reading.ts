import { EffectClock } from '../time/clock.ts';

/** What particles carry under names, as a reading asks for it (channels.ts). */
export interface ChannelValues {
  /** What the particle that a reading tells of carries; 0 in a channel that its layer does not have. */
  read(id: string, reading: Reading): number;
}

/** What is about the particles of a layer, as a reading asks for it (around.ts). */
export interface ReadingAround {
  /** How fast what the layer is born on goes at a time, m/s. */
  carrierSpeed(time: number): number;
  /** Metres from a place to the aim of the layer, at a time. */
  aimDistance(x: number, y: number, z: number, time: number): number;
}

/** What shapers may read of one particle at one moment. Reused from particle to particle. */
export interface Reading {
  /** What random draws are made with: the particle's key, or that of an event of its. */
  key: number;
  /** The particle's key. */
  particle: number;
  /** Seconds of the effect's time, and where the particle is. */
  time: number;
  x: number;
  y: number;
  z: number;
  around: ReadingAround | null;
  /** Where along a ribbon, from its head at 0 to its tail at 1. */
  along: number;
  /** 0 at birth to 1 at death. */
  age: number;
  /** Lifetime in seconds. */
  life: number;
  /** Metres a second. */
  speed: number;
  /** Metres travelled since its birth. */
  distance: number;
  /** Place on the time sheet, 0..1. */
  effectTime: number;
  /** Place within the present stretch, 0..1. */
  stretchTime: number;
  /** The channels its layer has, if any; with what it began, where that is kept, and its place there. */
  channels: ChannelValues | null;
  begun: readonly Float32Array[];
  place: number;
  /** Each dial's value as a share of its range. */
  dials: Readonly<Record<string, number>>;
}

const NONE: readonly Float32Array[] = [];

export const newReading = (): Reading => ({
  key: 0,
  particle: 0,
  time: 0,
  x: 0,
  y: 0,
  z: 0,
  around: null,
  along: 0,
  age: 0,
  life: 1,
  speed: 0,
  distance: 0,
  effectTime: 0,
  stretchTime: 0,
  channels: null,
  begun: NONE,
  place: 0,
  dials: {},
});

/** Sets what all particles share at a time of the effect. */
export function setTime(
  reading: Pick<Reading, 'time' | 'effectTime' | 'stretchTime'>,
  clock: Pick<EffectClock, 'share' | 'stretchShare'>,
  time: number,
): void {
  reading.time = time;
  reading.effectTime = clock.share(time);
  reading.stretchTime = clock.stretchShare(time);
}
