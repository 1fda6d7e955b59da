import {
  canonicalText,
  composeChanges,
  diff,
  DocumentError,
  inverted,
  newId,
  parseEffect,
  type Change,
  type Effect,
  type Layer,
  type SettingAddress,
  type Transition,
} from '@jinx/core/document';
import { applyOver, type ChapterName, type DrawnBefore } from '@jinx/core/editing';
import { produce } from 'immer';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import type { StoredEffect } from '../api';

/** One step of undo: what was changed, under a name people read. */
export interface Entry {
  readonly label: string;
  readonly changes: readonly Change[];
  /** Set while a drag goes on: its many small changes are one step. */
  gesture: string | null;
}

/** What may be changed of a layer that is locked. */
const FREE_OF_LOCK: readonly (string | undefined)[] = ['locked', 'hidden', 'solo'];

/** The first locked layer that changes would write into, if any. */
const lockedLayerOf = (before: Effect, changes: readonly Change[]): string | undefined =>
  changes.find(
    ({ path: [part, , id, field] }) =>
      part === 'layers' && id !== undefined && before.layers.byId[id]?.locked && !FREE_OF_LOCK.includes(field),
  )?.path[2];

/** Whether what a change leads away from is no longer what stands there. Orders are laid over each other. */
function isOthers(document: Effect, { path, before }: Change): boolean {
  const now = path.reduce<unknown>((value, name) => (value as Record<string, unknown> | undefined)?.[name], document);
  return path[path.length - 1] !== 'order' && canonicalText(now ?? null) !== canonicalText(before ?? null);
}

export const random32 = (): number => crypto.getRandomValues(new Uint32Array(1))[0]!;

/** The effect on the bench: its document, what is chosen, and the way back. */
export const useEffectStore = defineStore('effect', () => {
  const id = ref('');
  const projectId = ref('');
  /** How many particles may live at once in its project. */
  const livingBudget = ref(0);
  const effect = shallowRef<Effect | null>(null);
  /** The document as it was opened. */
  const opened = shallowRef<Effect | null>(null);
  /** The layer whose chapters are shown, and others that are edited with it. */
  const primaryId = ref('');
  const besideIds = ref<readonly string[]>([]);
  /** Whom it keeps what it does not change of, and who does so of it. */
  const kin = shallowRef<Pick<StoredEffect, 'siblingOf' | 'siblings'>>({ siblingOf: null, siblings: [] });
  /** What the page at the right is about: the chosen layers, a group, the effect as a whole, or one particle. */
  const page = ref<'layers' | 'group' | 'effect' | 'probe' | 'pixel'>('layers');
  const shownGroupId = ref('');
  /** Where the chapters' page was last led to: a chapter, and a chip of it by its address. */
  const lead = shallowRef<{
    readonly chapter: ChapterName;
    readonly chip: string | null;
    readonly label: string | null;
  } | null>(null);
  /** Leads to a chapter, and to a chip of it by its address, or by what it is called. */
  function leadTo(chapter: ChapterName, chip: string | null = null, label: string | null = null): void {
    if (isTrying) return;
    page.value = 'layers';
    lead.value = { chapter, chip, label };
  }
  /** The line of the life sheet that was chosen, in whichever layer; null for the first. */
  const lifeLine = shallowRef<SettingAddress | null>(null);
  const past = shallowRef<Entry[]>([]);
  const future = shallowRef<Entry[]>([]);
  /** Whether somebody else's changes were taken in: what was done here may no longer be undone as it was done. */
  let hasOthers = false;

  const chosenId = computed({ get: () => primaryId.value, set: (layerId: string) => choose([layerId]) });
  const chosenIds = computed<readonly string[]>(() =>
    [primaryId.value, ...besideIds.value].filter((one) => one !== ''),
  );
  const chosen = computed<Layer | null>(() => effect.value?.layers.byId[primaryId.value] ?? null);
  /** The group whose page is shown, if one is. */
  const groupId = computed(() => (page.value === 'group' ? shownGroupId.value : ''));

  /** Chooses layers, the first of them to be shown. */
  function choose(layerIds: readonly string[]): void {
    if (isTrying) return;
    primaryId.value = layerIds[0] ?? '';
    besideIds.value = layerIds.slice(1);
    page.value = 'layers';
  }
  function chooseGroup(group: string): void {
    shownGroupId.value = group;
    page.value = 'group';
  }

  function open(stored: StoredEffect): void {
    id.value = stored.id;
    projectId.value = stored.projectId;
    livingBudget.value = stored.livingBudget;
    effect.value = stored.document;
    opened.value = stored.document;
    kin.value = { siblingOf: stored.siblingOf, siblings: stored.siblings };
    choose([
      stored.document.layers.order.find(
        (layer) =>
          stored.document.layers.byId[layer]!.settings['births.standing'].base.kind === 'fixed' &&
          (stored.document.layers.byId[layer]!.settings['births.standing'].base as { value: number }).value === 0,
      ) ??
        stored.document.layers.order[0] ??
        '',
    ]);
    // Lines of another document may be none of this one's.
    lifeLine.value = null;
    lead.value = null;
    past.value = [];
    future.value = [];
    hasOthers = false;
  }

  const listeners = new Set<(transition: Transition) => void>();
  /** Hears every edit once, as it is made, whoever made it. Returns what ends it. */
  function onTransition(heard: (transition: Transition) => void): () => void {
    listeners.add(heard);
    return () => listeners.delete(heard);
  }
  function goOn(transition: Transition): void {
    effect.value = transition.after;
    keepChoice();
    for (const heard of listeners) heard(transition);
  }

  /** Goes on with what came of somebody else's changes and one's own; what was done here can still be undone. */
  function takeIn(document: Effect): void {
    hasOthers = true;
    const before = effect.value!;
    goOn({ before, after: document, changes: diff(before, document), label: '', gesture: null });
  }

  /** What is shown in place of the document while something is pointed at that could be chosen; null when nothing is. */
  const previewed = shallowRef<Effect | null>(null);
  let isTrying = false;
  /** Shows what `act` would make of the document, without making it; null shows the document again. */
  function preview(act: (() => void) | null): void {
    previewed.value = null;
    if (!act) return;
    isTrying = true;
    try {
      act();
    } finally {
      isTrying = false;
    }
  }

  /** Makes one step of undo of all that were made after the first `count`. */
  function joinSteps(count: number, label: string): void {
    const made = past.value.slice(count);
    if (made.length < 2) return;
    const changes = made.slice(1).reduce((all, entry) => composeChanges(all, entry.changes), made[0]!.changes);
    past.value = [...past.value.slice(0, count), { label, changes, gesture: null }];
  }

  /** Shows the document as it was before the last change, until what is previewed ends. */
  function previewBefore(): void {
    const last = past.value[past.value.length - 1];
    if (effect.value && last && !previewed.value) previewed.value = applyOver(effect.value, inverted(last.changes));
  }

  /** Changes the document by `recipe`, which may write into its draft; what it leaves alone is shared with the old one. Changes of one `gesture` in a row are one step of undo. */
  function change(label: string, recipe: (draft: Effect) => void, gesture: string | null = null): void {
    const before = effect.value;
    if (!before) return;
    if (isTrying) {
      previewed.value = produce(previewed.value ?? before, (draft: Effect) => void recipe(draft));
      return;
    }
    const after = produce(before, (draft: Effect) => void recipe(draft));
    const changes = diff(before, after);
    if (changes.length === 0) return;
    const locked = lockedLayerOf(before, changes);
    if (locked) return tellLocked(locked);
    const last = past.value[past.value.length - 1];
    if (gesture && last?.gesture === gesture) {
      const together = composeChanges(last.changes, changes);
      past.value = [...past.value.slice(0, -1), { label, changes: together, gesture }];
    } else past.value = [...past.value, { label, changes, gesture }];
    future.value = [];
    goOn({ before, after, changes, label, gesture });
  }

  /** Changes the chosen layer whose chapters are shown, or another. */
  function changeLayer(
    label: string,
    recipe: (layer: Layer) => void,
    gesture: string | null = null,
    layerId = primaryId.value,
  ): void {
    change(label, (draft) => draft.layers.byId[layerId] && recipe(draft.layers.byId[layerId]!), gesture);
  }

  /** Which of the chosen layers may be written into. */
  const openIds = (draft: Pick<Effect, 'layers'>): string[] =>
    chosenIds.value.filter((layerId) => draft.layers.byId[layerId]?.locked === false);

  /** Changes every chosen layer that is not locked; that all of them are is told. */
  function changeLayers(
    label: string,
    recipe: (layer: Layer, layerId: string, draft: Effect) => void,
    gesture: string | null = null,
  ): void {
    if (effect.value && openIds(effect.value).length === 0) return isTrying ? undefined : tellLocked(primaryId.value);
    change(
      label,
      (draft) => {
        for (const layerId of openIds(draft)) recipe(draft.layers.byId[layerId]!, layerId, draft);
      },
      gesture,
    );
  }

  /** What there is to say of the last change, as why it was not made; each time anew. */
  const told = shallowRef<{ readonly sentence: string } | null>(null);
  function tellLocked(layerId: string): void {
    const name = effect.value?.layers.byId[layerId]?.name;
    if (name) told.value = { sentence: `${name} is locked. Unlock it in its row to change it.` };
  }

  /** How layers were drawn before they were drawn otherwise, by effect, layer and kind: until the page is left. */
  const drawnBefore = new Map<string, DrawnBefore>();

  /** Ends a drag: the next change is a step of its own. */
  function endGesture(): void {
    const last = past.value[past.value.length - 1];
    if (last) last.gesture = null;
  }

  /** What is gone is no longer chosen. */
  function keepChoice(): void {
    if (!effect.value) return;
    const { layers, groups } = effect.value;
    if (page.value === 'group' && !groups.byId[shownGroupId.value]) page.value = 'layers';
    const kept = chosenIds.value.filter((layerId) => layers.byId[layerId]);
    if (kept.length === chosenIds.value.length && kept.length > 0) return;
    [primaryId.value, besideIds.value] = [kept[0] ?? layers.order[0] ?? '', kept.slice(1)];
  }

  /** Takes a step of undo or redo. Returns whether it could: others may have taken away what it changed. */
  function step(label: string, changes: readonly Change[]): boolean {
    const before = effect.value!;
    try {
      const after = applyOver(before, changes);
      if (hasOthers) parseEffect(after);
      if (hasOthers && changes.some((change) => isOthers(before, change)))
        told.value = { sentence: `${label}: what somebody else had changed there since went with it.` };
      // Over what others did, it may come to something else than it was.
      goOn({ before, after, changes: hasOthers ? diff(before, after) : changes, label, gesture: null });
      return true;
    } catch (error) {
      if (!(error instanceof DocumentError)) throw error;
      told.value = { sentence: `${label} is not possible: somebody else took away what it is about.` };
      return false;
    }
  }

  function undo(): void {
    const entry = past.value[past.value.length - 1];
    if (!entry || !effect.value) return;
    past.value = past.value.slice(0, -1);
    if (step(`undo: ${entry.label}`, inverted(entry.changes)))
      future.value = [...future.value, { ...entry, gesture: null }];
  }

  function redo(): void {
    const entry = future.value[future.value.length - 1];
    if (!entry || !effect.value) return;
    future.value = future.value.slice(0, -1);
    if (step(`redo: ${entry.label}`, entry.changes)) past.value = [...past.value, entry];
  }

  const undoLabel = computed(() => past.value[past.value.length - 1]?.label ?? '');
  const redoLabel = computed(() => future.value[future.value.length - 1]?.label ?? '');

  return {
    id,
    projectId,
    livingBudget,
    effect,
    opened,
    chosenId,
    chosenIds,
    chosen,
    page,
    kin,
    lead,
    leadTo,
    lifeLine,
    groupId,
    choose,
    chooseGroup,
    openIds,
    told,
    changeLayers,
    past,
    future,
    undoLabel,
    redoLabel,
    open,
    change,
    changeLayer,
    drawnBefore,
    endGesture,
    previewed,
    preview,
    /** Whether what is changed now is only shown. */
    isTrying: () => isTrying,
    previewBefore,
    joinSteps,
    takeIn,
    onTransition,
    undo,
    redo,
    newId: () => newId(random32),
  };
});
