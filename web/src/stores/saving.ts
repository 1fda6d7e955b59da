import { canonicalText, parseEffectText, type Effect } from '@jinx/core/document';
import { defineStore } from 'pinia';
import { ref, shallowRef, watch } from 'vue';
import { api, ApiError, type StoredEffect } from '../api';
import { useEffectStore } from './effect';

export type SavingState = 'saved' | 'waiting' | 'saving' | 'offline' | 'stale' | 'refused';

const QUIET_MILLISECONDS = 500;
const RETRY_MILLISECONDS = 3000;

const draftName = (id: string) => `jinx draft ${id}`;

/** Keeps the effect on the server as it is made, and on this machine until the server has it. */
export const useSavingStore = defineStore('saving', () => {
  const effects = useEffectStore();
  const state = ref<SavingState>('saved');
  const sentence = ref('');
  /** What the server holds when it refused a save made from an older revision. */
  const theirs = shallowRef<{ revision: number; document: Effect } | null>(null);
  let savedText = '';
  let timer = 0;

  /** Opens an effect; takes up a draft that never reached the server. Returns whether there was one. */
  async function open(id: string): Promise<boolean> {
    window.clearTimeout(timer);
    const stored: StoredEffect = await api.effect(id);
    savedText = canonicalText(stored.document);
    theirs.value = null;
    state.value = 'saved';
    effects.open(stored);
    const draft = localStorage.getItem(draftName(id));
    if (!draft) return false;
    try {
      const { revision, text } = JSON.parse(draft) as { revision: number; text: string };
      const document = parseEffectText(text);
      if (text === savedText) throw new Error('already saved');
      effects.revision = revision;
      effects.change('take up unsaved work', (target) => Object.assign(target, document));
      return true;
    } catch {
      localStorage.removeItem(draftName(id));
      return false;
    }
  }

  watch(
    () => effects.effect,
    (effect) => {
      if (!effect || !effects.id || state.value === 'stale') return;
      const text = canonicalText(effect);
      if (text === savedText && state.value !== 'saving') {
        // Undone back to what the server holds: there is nothing left to keep here.
        window.clearTimeout(timer);
        localStorage.removeItem(draftName(effects.id));
        state.value = 'saved';
        return;
      }
      localStorage.setItem(draftName(effects.id), JSON.stringify({ revision: effects.revision, text }));
      if (state.value !== 'saving') state.value = 'waiting';
      later(QUIET_MILLISECONDS);
    },
  );

  function later(milliseconds: number): void {
    window.clearTimeout(timer);
    timer = window.setTimeout(() => void save(), milliseconds);
  }

  async function save(): Promise<void> {
    const effect = effects.effect;
    const id = effects.id;
    if (!effect || state.value === 'saving' || state.value === 'stale') return;
    const text = canonicalText(effect);
    if (text === savedText) {
      state.value = 'saved';
      return;
    }
    state.value = 'saving';
    try {
      const { revision } = await api.saveEffect(id, effects.revision, effect);
      if (effects.id !== id) return;
      effects.revision = revision;
      savedText = text;
      sentence.value = '';
      const isLatest = canonicalText(effects.effect) === text;
      state.value = isLatest ? 'saved' : 'waiting';
      if (isLatest) localStorage.removeItem(draftName(id));
      else later(QUIET_MILLISECONDS);
    } catch (error) {
      fail(error);
    }
  }

  function fail(error: unknown): void {
    if (!(error instanceof ApiError)) throw error;
    sentence.value = error.message;
    if (error.isOffline || error.status >= 500) {
      state.value = 'offline';
      later(RETRY_MILLISECONDS);
    } else if (error.status === 409) {
      state.value = 'stale';
      theirs.value = { revision: error.body['revision'] as number, document: error.body['document'] as Effect };
    } else state.value = 'refused';
  }

  /** After a stale save: goes on with what the server holds. Undo brings one's own back. */
  function takeTheirs(): void {
    const other = theirs.value;
    if (!other) return;
    effects.revision = other.revision;
    savedText = canonicalText(other.document);
    theirs.value = null;
    state.value = 'saved';
    localStorage.removeItem(draftName(effects.id));
    effects.change('take the other version', (target) => Object.assign(target, other.document));
  }

  /** After a stale save: keeps one's own as an effect beside the other. Returns its id. */
  async function keepMineAsCopy(): Promise<string> {
    const mine = { ...effects.effect!, name: `${effects.effect!.name}, mine`.slice(0, 80) };
    const copy = await api.addEffect(effects.projectId, mine);
    localStorage.removeItem(draftName(effects.id));
    theirs.value = null;
    return copy.id;
  }

  window.addEventListener('beforeunload', () => state.value === 'waiting' && void save());

  return { state, sentence, theirs, open, save, takeTheirs, keepMineAsCopy };
});
