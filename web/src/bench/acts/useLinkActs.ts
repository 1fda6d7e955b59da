import { newLink, withItem, type Id } from '@jinx/core/document';
import { addSetOffLayer } from '@jinx/core/editing';
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
  /** Adds a layer for what they set off. Returns the link. */
  function setOffNew(): Id {
    const made = { layer: store.newId(), link: store.newId() };
    const parent = store.chosenId;
    store.change('set off a new layer', (draft) => addSetOffLayer(draft, parent, made, random32));
    return made.link;
  }
  return { setOff, setOffNew };
}
