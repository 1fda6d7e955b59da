import { evenAges, lifetimesOf, samplesOf, type LifeSample } from '@jinx/core/checks';
import { ownerOf, type Layer } from '@jinx/core/document';
import { computed, type ComputedRef } from 'vue';
import { useEffectStore } from '../../stores/effect';

/**
 * A layer as rows and rulers read it. Each value holds as long as its own part of the document does: an edit of one
 * layer makes nothing of the others anew.
 */
export function useLayer(layerId: () => string) {
  const store = useEffectStore();
  const layer = computed<Layer>(() => store.effect!.layers.byId[layerId()]!);
  /** The layer whose particles are seen: itself, or the one it follows. */
  const owner = computed<Layer>(() => store.effect!.layers.byId[ownerOf(store.effect!, layerId())]!);
  const palette = computed(() => store.effect!.palette);
  const measures = computed(() => store.effect!.measures);
  const dials = computed(() => store.effect!.dials);
  const shared = computed(() => ({ palette: palette.value, measures: measures.value, dials: dials.value }));
  const lifetimes = computed(() => lifetimesOf(owner.value, measures.value));
  /** Samples of a particle's life at `count` + 1 even ages. */
  const life = (count: number): ComputedRef<readonly LifeSample[]> =>
    computed(() => samplesOf(layer.value, owner.value, shared.value, evenAges(count)));
  return { layer, owner, palette, measures, dials, lifetimes, life };
}
