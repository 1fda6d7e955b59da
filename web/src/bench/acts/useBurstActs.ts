import { burst, withItem, type Burst, type Effect } from '@jinx/core/document';
import { useEffectStore } from '../../stores/effect';

/** How many a new burst holds. */
export const FIRST_COUNT = 18;

/** A burst that an effect begins with: in its hold, or its opening where it has none. */
export const firstBurst = ({ stretches: { hold } }: Pick<Effect, 'stretches'>): Burst =>
  burst(hold.kind === 'none' ? 'opening' : 'hold', 0, FIRST_COUNT);

/** Adds bursts to the chosen layers. */
export function useBurstActs() {
  const store = useEffectStore();
  /** Of several layers each gets one, under the same id: they are changed together from then on. */
  function add(): void {
    const id = store.newId();
    store.changeLayers('add a burst', (layer, _, draft) => {
      layer.bursts = withItem(layer.bursts, id, firstBurst(draft));
    });
  }
  return { add };
}
