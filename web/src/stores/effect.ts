import { apply, diff, inverted, newId, type Change, type Effect, type Layer } from '@jinx/core/document';
import { produce } from 'immer';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import type { StoredEffect } from '../api';

/** One step of undo: what was changed, under a name people read. */
interface Entry {
  readonly label: string;
  readonly changes: readonly Change[];
  /** Set while a drag goes on: its many small changes are one step. */
  gesture: string | null;
}

export const random32 = (): number => crypto.getRandomValues(new Uint32Array(1))[0]!;

/** The effect on the bench: its document, what is chosen, and the way back. */
export const useEffectStore = defineStore('effect', () => {
  const id = ref('');
  const projectId = ref('');
  const revision = ref(0);
  const effect = shallowRef<Effect | null>(null);
  const chosenId = ref('');
  const past = shallowRef<Entry[]>([]);
  const future = shallowRef<Entry[]>([]);

  const chosen = computed<Layer | null>(() => effect.value?.layers.byId[chosenId.value] ?? null);

  function open(stored: StoredEffect): void {
    id.value = stored.id;
    projectId.value = stored.projectId;
    revision.value = stored.revision;
    effect.value = stored.document;
    chosenId.value =
      stored.document.layers.order.find(
        (layer) =>
          stored.document.layers.byId[layer]!.settings['births.standing'].base.kind === 'fixed' &&
          (stored.document.layers.byId[layer]!.settings['births.standing'].base as { value: number }).value === 0,
      ) ??
      stored.document.layers.order[0] ??
      '';
    past.value = [];
    future.value = [];
  }

  /** Changes the document by `recipe`, which may write into its draft; what it leaves alone is shared with the old one. Changes of one `gesture` in a row are one step of undo. */
  function change(label: string, recipe: (draft: Effect) => void, gesture: string | null = null): void {
    const before = effect.value;
    if (!before) return;
    const after = produce(before, (draft: Effect) => void recipe(draft));
    const changes = diff(before, after);
    if (changes.length === 0) return;
    const last = past.value[past.value.length - 1];
    if (gesture && last?.gesture === gesture) {
      const start = apply(before, inverted(last.changes));
      past.value = [...past.value.slice(0, -1), { label, changes: diff(start, after), gesture }];
    } else past.value = [...past.value, { label, changes, gesture }];
    future.value = [];
    effect.value = after;
    keepChoice();
  }

  /** Changes the chosen layer. */
  function changeLayer(
    label: string,
    recipe: (layer: Layer) => void,
    gesture: string | null = null,
    layerId = chosenId.value,
  ): void {
    change(label, (draft) => draft.layers.byId[layerId] && recipe(draft.layers.byId[layerId]!), gesture);
  }

  /** Ends a drag: the next change is a step of its own. */
  function endGesture(): void {
    const last = past.value[past.value.length - 1];
    if (last) last.gesture = null;
  }

  function keepChoice(): void {
    if (effect.value && !effect.value.layers.byId[chosenId.value])
      chosenId.value = effect.value.layers.order[0] ?? '';
  }

  function undo(): void {
    const entry = past.value[past.value.length - 1];
    if (!entry || !effect.value) return;
    effect.value = apply(effect.value, inverted(entry.changes));
    past.value = past.value.slice(0, -1);
    future.value = [...future.value, { ...entry, gesture: null }];
    keepChoice();
  }

  function redo(): void {
    const entry = future.value[future.value.length - 1];
    if (!entry || !effect.value) return;
    effect.value = apply(effect.value, entry.changes);
    future.value = future.value.slice(0, -1);
    past.value = [...past.value, entry];
    keepChoice();
  }

  const undoLabel = computed(() => past.value[past.value.length - 1]?.label ?? '');
  const redoLabel = computed(() => future.value[future.value.length - 1]?.label ?? '');

  return {
    id,
    projectId,
    revision,
    effect,
    chosenId,
    chosen,
    past,
    undoLabel,
    redoLabel,
    open,
    change,
    changeLayer,
    endGesture,
    undo,
    redo,
    newId: () => newId(random32),
  };
});
