import { forceWord, newForce, structuredCopy, withItem, type ForceKind, type Id } from '@jinx/core/document';
import { placeForForce } from '@jinx/core/editing';
import { inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';

/** Adds forces to the chosen layers, each where the first of them is born. */
export function useForceActs() {
  const store = useEffectStore();
  const engine = inject(ENGINE)!;
  const bonesOf = (thing: string) => (engine.rigs.value.get(thing)?.bones ?? []).map(({ name }) => name);
  /** Adds a force of a kind to every chosen layer, under one id. Returns it. */
  function add(kind: ForceKind): Id {
    const [id, place] = [store.newId(), placeForForce(store.effect!, store.chosenId, bonesOf)];
    store.changeLayers(`add ${forceWord(kind)}`, (target) => {
      target.forces = withItem(target.forces, id, newForce(kind, structuredCopy(place)));
    });
    return id;
  }
  return { add };
}
