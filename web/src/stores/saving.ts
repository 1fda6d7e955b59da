import { CanonicalTexts, parseEffectText, type Effect } from '@jinx/core/document';
import { defineStore } from 'pinia';
import { ref, shallowRef, watch } from 'vue';
import { api, ApiError, type StoredEffect } from '../api';
import { useEffectStore } from './effect';

export type SavingState = 'saved' | 'waiting' | 'saving' | 'offline' | 'stale' | 'refused';

const QUIET_MILLISECONDS = 500;
const RETRY_MILLISECONDS = 3000;
/** What was changed is kept on this machine at least this often. */
const KEEP_MILLISECONDS = 150;

const draftName = (id: string) => `jinx draft ${id}`;

/** Forgets a draft, if it still is this text: what was changed since stays. */
function forgetDraft(id: string, text: string): void {
  const draft = localStorage.getItem(draftName(id));
  if (draft && (JSON.parse(draft) as { text: string }).text === text) localStorage.removeItem(draftName(id));
}

/** Keeps the effect on the server as it is made, and on this machine until the server has it. */
export const useSavingStore = defineStore('saving', () => {
  const effects = useEffectStore();
  const state = ref<SavingState>('saved');
  const sentence = ref('');
  /** Whether this browser keeps what is not saved yet. */
  const isKeptHere = ref(true);
  /** What the server holds when it refused a save made from an older revision. */
  const theirs = shallowRef<{ revision: number; document: Effect } | null>(null);
  /** Versions of an effect share most of their parts: these are written out once. */
  const texts = new CanonicalTexts();
  let savedText = '';
  /** The very document the server is known to hold. */
  let savedEffect: Effect | null = null;
  let timer = 0;
  let keepTimer = 0;
  let running: Promise<void> = Promise.resolve();

  /** Opens an effect; takes up a draft that never reached the server. Returns whether there was one. */
  async function open(id: string): Promise<boolean> {
    window.clearTimeout(timer);
    if (keepTimer) keepNow();
    const stored: StoredEffect = await api.effect(id);
    savedText = texts.of(stored.document);
    savedEffect = stored.document;
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
      if (!effect || !effects.id || effect === savedEffect) return;
      if (state.value !== 'saving' && state.value !== 'stale') state.value = 'waiting';
      // Writing the whole effect out at every movement of a drag would make it stutter.
      keepTimer ||= window.setTimeout(keepNow, KEEP_MILLISECONDS);
      later(QUIET_MILLISECONDS);
    },
  );

  /** Keeps what is not saved yet on this machine; an effect undone back to what the server holds is saved already. */
  function keepNow(): void {
    window.clearTimeout(keepTimer);
    keepTimer = 0;
    if (!effects.effect || effects.effect === savedEffect) return;
    const text = texts.of(effects.effect);
    if (text !== savedText || state.value === 'saving' || state.value === 'stale') return keepDraft(text);
    window.clearTimeout(timer);
    localStorage.removeItem(draftName(effects.id));
    state.value = 'saved';
  }

  /** Keeps the effect on this machine. A full or forbidden store must not stop it from going to the server. */
  function keepDraft(text: string): void {
    try {
      localStorage.setItem(draftName(effects.id), JSON.stringify({ revision: effects.revision, text }));
      isKeptHere.value = true;
    } catch {
      isKeptHere.value = false;
      sentence.value = 'This browser keeps nothing: leave the page open until it says Saved.';
    }
  }

  function later(milliseconds: number): void {
    window.clearTimeout(timer);
    timer = window.setTimeout(() => void save(), milliseconds);
  }

  /** Saves now, after any save that is under way. */
  function save(): Promise<void> {
    running = running.catch(() => undefined).then(saveOnce);
    return running;
  }

  async function saveOnce(): Promise<void> {
    const effect = effects.effect;
    const id = effects.id;
    if (!effect || state.value === 'stale') return;
    const text = texts.of(effect);
    if (text === savedText) {
      state.value = 'saved';
      forgetDraft(id, text);
      return;
    }
    state.value = 'saving';
    try {
      const { revision } = await api.saveEffect(id, effects.revision, effect);
      forgetDraft(id, text);
      if (effects.id !== id) return;
      effects.revision = revision;
      savedText = text;
      savedEffect = effect;
      sentence.value = '';
      const isLatest = texts.of(effects.effect) === text;
      state.value = isLatest ? 'saved' : 'waiting';
      if (!isLatest) later(QUIET_MILLISECONDS);
    } catch (error) {
      if (effects.id === id) fail(error);
    }
  }

  function fail(error: unknown): void {
    if (!(error instanceof ApiError)) {
      state.value = 'refused';
      sentence.value = 'Jinx failed at it. Your work is kept on this machine: reload the page.';
      throw error;
    }
    sentence.value = error.message;
    if (error.isOffline || error.status >= 500) {
      state.value = 'offline';
      later(RETRY_MILLISECONDS);
    } else if (error.status === 409) {
      state.value = 'stale';
      theirs.value = { revision: error.body['revision'] as number, document: error.body['document'] as Effect };
    } else state.value = 'refused';
  }

  /** Saves what is not saved yet. Returns whether the server now has all that is seen. */
  async function settle(): Promise<boolean> {
    await save();
    return state.value === 'saved';
  }

  /** After a stale save: goes on with what the server holds. Undo brings one's own back. */
  function takeTheirs(): void {
    const other = theirs.value;
    if (!other) return;
    effects.revision = other.revision;
    savedText = texts.of(other.document);
    savedEffect = null;
    theirs.value = null;
    state.value = 'saved';
    localStorage.removeItem(draftName(effects.id));
    effects.change('take the other version', (target) => Object.assign(target, other.document));
  }

  /** After a stale save: keeps one's own as an effect beside the other. Returns its id. */
  async function keepMineAsCopy(): Promise<string> {
    const mine = { ...effects.effect!, name: `${effects.effect!.name}, mine`.slice(0, 80) };
    const copy = await api.addEffect(effects.projectId, mine);
    // Nothing of it is left to be kept here, also not as the page goes away.
    savedEffect = effects.effect;
    localStorage.removeItem(draftName(effects.id));
    theirs.value = null;
    return copy.id;
  }

  window.addEventListener('beforeunload', () => state.value === 'waiting' && void save());
  window.addEventListener('pagehide', keepNow);

  return { state, sentence, isKeptHere, theirs, open, save, settle, takeTheirs, keepMineAsCopy };
});
