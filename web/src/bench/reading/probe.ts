import type { Engine } from '../../engine/engine';
import type { Census, Pull } from '@jinx/core/simulation';
import { inject, provide, reactive, type InjectionKey } from 'vue';

/** What is under the glass, a particle or a pixel, and what a press on the stage does: by itself it chooses a layer. */
export interface Probe {
  isPicking: 'particle' | 'pixel' | 'strike' | 'tape' | null;
  layerId: string;
  /** What tells the particle from every other; null while none is chosen. */
  key: number | null;
  /** What each force does to the particle; null while that is not known. */
  pulls: readonly Pull[] | null;
  /** A place of the stage, 0 to 1 from its left and its top; null while none is chosen. */
  pixel: { x: number; y: number } | null;
}

const PROBE: InjectionKey<Probe> = Symbol('probe');
export function provideProbe(): Probe {
  const probe = reactive<Probe>({ isPicking: null, layerId: '', key: null, pulls: null, pixel: null });
  provide(PROBE, probe);
  return probe;
}
export const useProbe = (): Probe => inject(PROBE)!;

/** A cell of a census, by the id of its column; NaN where it has none. */
export const cellOf = ({ columns, values }: Census, row: number, id: string): number => {
  const n = columns.findIndex((column) => column.id === id);
  return n < 0 ? NaN : values[row * columns.length + n]!;
};
/** The row of a particle; −1 where it does not live. */
export const rowOf = ({ keys }: Census, key: number | null): number => (key === null ? -1 : keys.indexOf(key));

/** Stops, and lets a particle or a pixel be pressed that goes under the glass. */
export function pickOne(
  engine: { readonly playback: Pick<Engine['playback'], 'pause'> },
  probe: Probe,
  what: 'particle' | 'pixel' = 'particle',
): void {
  engine.playback.pause();
  probe.isPicking = what;
}
