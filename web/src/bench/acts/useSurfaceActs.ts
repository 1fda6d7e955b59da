import { inWorld, listed, newSurface, withItem, type Id, type Surface } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { api } from '../../api';
import { useEffectStore } from '../../stores/effect';
import { ASSETS } from '../bench';
import { SURFACE_NAMES } from '../chapters/surfaceWords';

/** Adds something that the chosen layer's particles meet. */
export function useSurfaceActs() {
  const store = useEffectStore();
  const assets = inject(ASSETS)!;
  /** Surfaces that are a shape, and how high their middles stand at first. */
  const PLAIN = ['ground', 'sphere', 'box'] as const;
  const HEIGHTS = { ground: 0, sphere: 1, box: 0.5 };
  /** A thing of the stage or a mesh of the project is offered by its name, nothing to be chosen twice. */
  const choices = computed(() => [
    ...PLAIN.map((kind) => ({
      value: kind as string,
      text: SURFACE_NAMES[kind],
      otherWords: kind === 'ground' ? ['floor', 'collide', 'bounce off the ground'] : [],
      make: () => newSurface(kind, { place: inWorld([0, HEIGHTS[kind], 0]) }) as Surface,
    })),
    ...listed(store.effect!.stage.things).map(({ id, item }) => ({
      value: `thing ${id}`,
      text: `${item.name}’s body`,
      make: (): Surface => newSurface('thing', { thing: id }),
    })),
    ...listed(store.effect!.layers)
      .filter(({ id, item }) => id !== store.chosenId && item.drawn.kind === 'mesh')
      .map(({ id, item }) => ({
        value: `layer ${id}`,
        text: `The mesh of ${item.name}`,
        make: (): Surface => newSurface('layer', { layer: id }),
      })),
    ...assets.value
      .filter(({ kind }) => kind === 'rig')
      .map(({ hash, name }) => ({
        value: `mesh ${hash}`,
        text: `${name} as a mesh of the effect’s own`,
        picture: api.thumbnailAddress(store.projectId, hash),
        make: (): Surface => newSurface('mesh', { place: inWorld(), asset: hash, name }),
      })),
  ]);
  function add(chosen: string): Id {
    const id = store.newId();
    store.change('add a surface', (draft) => {
      const surface = choices.value.find(({ value }) => value === chosen)!.make();
      // A surface holds for all layers only where there is but one.
      if (draft.layers.order.length > 1) surface.layers = [store.chosenId];
      draft.surfaces = withItem(draft.surfaces, id, surface);
    });
    return id;
  }
  return { choices, add };
}
