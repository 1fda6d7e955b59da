import { listed, ownerOf, type Effect, type Layer } from '../../document/index.ts';
import type { Running } from '../run/running.ts';

/** A layer that is drawn, with the population it shows: its own or that of the layer it follows. */
export interface Drawn {
  readonly id: string;
  readonly layer: Layer;
  readonly running: Running;
  readonly isOwn: boolean;
}

/** Every layer of an effect with what it shows, by salt: no order on screen reaches what is computed. */
export function drawnLayers(effect: Effect, running: readonly Running[]): Drawn[] {
  return listed(effect.layers)
    .flatMap(({ id, item }) => {
      const owner = ownerOf(effect, id);
      const shown = running.find(({ compiled }) => compiled.id === owner);
      return shown ? [{ id, layer: item, running: shown, isOwn: owner === id }] : [];
    })
    .sort((a, b) => a.layer.salt - b.layer.salt || (a.id < b.id ? -1 : 1));
}
