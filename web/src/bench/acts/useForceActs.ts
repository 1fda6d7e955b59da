import { FORCES, forceWord, structuredCopy, withItem, type ForceKind, type Id } from '@jinx/core/document';
import { forceForSource, shareSize } from '@jinx/core/editing';
import { message } from 'ant-design-vue';
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
    let shared: string | null = null;
    store.changeLayers(`add ${forceWord(kind)}`, (target, layerId, draft) => {
      target.forces = withItem(target.forces, id, structuredCopy(force));
      const name = shareSize(draft, layerId, id, store.newId());
      if (layerId === store.chosenId) shared = name;
    });
    if (shared !== null && !store.previewed)
      void message.info({
        content: `${FORCES[kind].name} goes round as far out as its source bears: both have the measure “${shared as string}”.`,
        key: 'shared',
      });
    return id;
  }
  return { add };
}
