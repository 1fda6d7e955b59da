import { forceWord, structuredCopy, withItem, type ForceKind, type Id } from '@jinx/core/document';
import { forceForSource } from '@jinx/core/editing';
import { inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';

/** Adds forces to the chosen layers, each as suits the source of the first of them. */
export function useForceActs() {
  const store = useEffectStore();
  const engine = inject(ENGINE)!;
  const bonesOf = (thing: string) => (engine.rigs.value.get(thing)?.bones ?? []).map(({ name }) => name);
  /** Adds a force of a kind to every chosen layer, under one id. Returns it. */
  function add(kind: ForceKind): Id {
    const [id, force] = [store.newId(), forceForSource(store.effect!, store.chosenId, kind, bonesOf)];
    store.changeLayers(`add ${forceWord(kind)}`, (target) => {
      target.forces = withItem(target.forces, id, structuredCopy(force));
    });
    return id;
  }
  return { add };
}
