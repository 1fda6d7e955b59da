import type { Census } from '@jinx/core/simulation';
import { inject, provide, reactive, type InjectionKey } from 'vue';

/** One particle under the glass, and whether the stage is ready to have one picked. */
export interface Probe {
  isPicking: boolean;
  layerId: string;
  /** What tells the particle from every other; null while none is chosen. */
  key: number | null;
}

const PROBE: InjectionKey<Probe> = Symbol('probe');
export function provideProbe(): Probe {
  const probe = reactive<Probe>({ isPicking: false, layerId: '', key: null });
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

/** Stops, and lets a particle be pressed that goes under the glass. */
export function pickOne(engine: { readonly pause: () => void }, probe: Probe): void {
  engine.pause();
  probe.isPicking = true;
}
