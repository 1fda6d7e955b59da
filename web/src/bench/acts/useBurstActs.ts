import { burst, withItem, type Burst } from '@jinx/core/document';
import { useEffectStore } from '../../stores/effect';

/** How many a new burst holds. */
export const FIRST_COUNT = 18;

/** Adds bursts to the chosen layers. */
export function useBurstActs() {
  const store = useEffectStore();
  /** Of several layers each gets one, under the same id: they are changed together from then on. */
  function add(part: Partial<Burst> = {}): void {
    const id = store.newId();
    const stretch = store.effect!.stretches.hold.kind === 'none' ? 'opening' : 'hold';
    store.changeLayers('add a burst', (layer) => {
      layer.bursts = withItem(layer.bursts, id, { ...burst(stretch, 0, FIRST_COUNT), ...part });
    });
  }
  return { add };
}
