import { apply, DocumentError, type Effect } from '@jinx/core/document';
import type { Clash } from '@jinx/core/editing';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { api, type Following, type Since, type StoredEffect } from '../api';
import { Keeper } from '../keeping/keeper';
import type { Met, SavingState } from '../keeping/met';
import { leftBehind, sendLeftBehind, type Clashing, type Refused } from '../keeping/leftBehind';
import { outbox } from '../keeping/outbox';
import { thisWindow } from '../keeping/thisWindow';
import { putBy } from '../keeping/tray';
import { useEffectStore } from './effect';

const TAKEN_UP = 'What a closed window had not saved was taken up. History tells what it was.';

/** Keeps the effect on the bench on the server as it is made, and in this browser until the server has it. */
export const useSavingStore = defineStore('saving', () => {
  const effects = useEffectStore();
  const state = ref<SavingState>('saved');
  const sentence = ref('');
  const isKeptHere = ref(true);
  /** Since when something is not saved, in milliseconds since 1970. */
  const unsavedSince = ref<number | null>(null);
  /** What others made, where it clashes with what was made here. */
  const met = shallowRef<Met | null>(null);
  /** What others changed and was taken in, the latest. */
  const tookIn = shallowRef<Since | null>(null);
  /** How far the effects that follow this one have come. */
  const following = shallowRef<Following>({ at: 0, waiting: 0, failed: [] });
  let keeper: Keeper | null = null;

  function show(): void {
    if (!keeper) return;
    [state.value, sentence.value, isKeptHere.value] = [keeper.state, keeper.sentence, keeper.isKeptHere];
    [unsavedSince.value, met.value] = [keeper.unsavedSince, keeper.met];
  }

  /** Those that are left go on until all is saved; of one effect there is never more than one. */
  const leftKeepers = new Map<string, Keeper>();

  /** Opens an effect; what a closed window could not save is sent first. Returns what there is to say of that, if anything. */
  async function open(id: string): Promise<string> {
    if (keeper) {
      leftKeepers.set(keeper.id, keeper);
      void keeper.save();
      keeper = null;
    }
    const before = leftKeepers.get(id);
    await before?.save();
    const left = await leftBehind(id).catch(() => []);
    const met: (Clashing | Refused)[] = [];
    for (const unsaved of left) {
      const outcome = await sendLeftBehind(unsaved);
      if (outcome) met.push(outcome);
    }
    // What the page began to ask for was answered before that.
    const stored = await api.effect(id, left.length > 0);
    before?.stop();
    leftKeepers.delete(id);
    keeper = keeperOf(id, stored);
    tookIn.value = null;
    following.value = stored.following;
    effects.open(stored);
    // One at a time: what else was left waits until it is opened again.
    const told = met[0] ? await takeUp(met[0]) : left.length > 0 ? TAKEN_UP : '';
    show();
    return told;
  }

  function keeperOf(id: string, stored: StoredEffect): Keeper {
    const mine: Keeper = new Keeper(id, stored, {
      send: async (...sent) => {
        const taken = await api.sendEdits(...sent);
        if (keeper === mine) followed(taken.following);
        return taken;
      },
      since: api.since,
      outbox,
      window: thisWindow(),
      changed: () => keeper === mine && show(),
      tookIn: (document, since) => {
        if (keeper !== mine) return;
        effects.takeIn(document);
        tookIn.value = since;
      },
    });
    return mine;
  }

  /** Answers and news overtake each other: the one that was read later counts. */
  function followed(now: Following): void {
    if (now.at >= following.value.at) following.value = now;
  }

  /** Goes on with what a closed window made and could not save. What cannot be gone on with stays kept as it is. */
  async function takeUp(left: Clashing | Refused): Promise<string> {
    const { unsaved } = left;
    try {
      if ('met' in left) effects.takeIn(keeper!.takeUp(unsaved, left.met, left.taken));
      else {
        const made = unsaved.edits.reduce((document, { changes }) => apply(document, changes), effects.effect!);
        effects.change('take up unsaved work', (draft) => Object.assign(draft, made));
      }
    } catch (error) {
      if (!(error instanceof DocumentError)) throw error;
      return `What a closed window had not saved does not go with what the effect is now, and stays in this browser: ${error.message}.`;
    }
    if (unsaved.window !== thisWindow()) await outbox.forget(unsaved.effectId, unsaved.window);
    return 'met' in left
      ? TAKEN_UP
      : `What a closed window had not saved was taken up, and was not saved: ${left.sentence}`;
  }

  effects.onTransition((transition) => {
    if (keeper?.id === effects.id && transition.after !== keeper.local) keeper.take(transition);
  });

  const save = (): Promise<void> => keeper?.save() ?? Promise.resolve();

  /** Saves what is not saved yet. Returns whether the server now has all that is seen. */
  async function settle(): Promise<boolean> {
    await save();
    if (state.value === 'waiting') await save();
    return state.value === 'saved';
  }

  /** Puts one's own state by before it is given up in part, so that nothing is lost by a choice. */
  const putMineBy = (mine: Effect) => putBy(effects.id, mine, 'Mine, before the choice', 0, null);

  /**
   * After a clash: goes on with both, and of what clashes with what is chosen.
   * @throws DocumentError when that does not go together.
   */
  async function choose(keepMine: (clash: Clash) => boolean): Promise<void> {
    if (!keeper?.met) return;
    const mine = keeper.local;
    effects.takeIn(keeper.choose(keepMine));
    await putMineBy(mine);
  }

  /** After a clash: goes on with what the server has. */
  async function takeTheirs(): Promise<void> {
    if (!keeper?.met) return;
    const mine = keeper.local;
    effects.takeIn(keeper.takeTheirs());
    await putMineBy(mine);
  }

  /** After a clash: keeps one's own as an effect beside the other, and goes on with that of the server. Returns its id. */
  async function keepMineAsCopy(): Promise<string> {
    const mine = { ...effects.effect!, name: `${effects.effect!.name}, mine`.slice(0, 80) };
    const copy = await api.addEffect(effects.projectId, mine);
    effects.takeIn(keeper!.takeTheirs());
    return copy.id;
  }

  window.addEventListener('pagehide', () => keeper?.leave());
  window.addEventListener('beforeunload', (event) => {
    if (state.value === 'saved') return;
    void save();
    if (!isKeptHere.value) event.preventDefault();
  });

  return {
    state,
    sentence,
    isKeptHere,
    unsavedSince,
    met,
    tookIn,
    following,
    followed,
    open,
    save,
    settle,
    choose,
    takeTheirs,
    keepMineAsCopy,
    clashes: () => keeper?.clashes ?? [],
    announced: (revision: number) => keeper?.announced(revision),
    isBack: () => keeper?.isBack(),
  };
});
