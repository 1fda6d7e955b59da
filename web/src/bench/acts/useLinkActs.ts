import { newLink, withItem, type Id } from '@jinx/core/document';
import { random32, useEffectStore } from '../../stores/effect';

/** Lets the chosen layer's particles set off those of another. */
export function useLinkActs() {
  const store = useEffectStore();
  function setOff(layer: Id): Id {
    const id = store.newId();
    store.changeLayer(
      'add a link',
      (own) => (own.links = withItem(own.links, id, newLink('death', layer, random32()))),
    );
    return id;
  }
  return { setOff };
}
