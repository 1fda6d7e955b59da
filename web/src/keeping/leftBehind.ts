import { api, ApiError } from '../api';
import { tellRefused } from '../tell';
import { metIn, type Met } from './met';
import { outbox, type Unsaved } from './outbox';
import { openWindows, thisWindow } from './thisWindow';

/** What windows that are closed now could not save, the oldest first. */
export async function leftBehind(effectId?: string): Promise<Unsaved[]> {
  const all = (await outbox.all()).filter((unsaved) => effectId === undefined || unsaved.effectId === effectId);
  if (all.length === 0) return [];
  const open = await openWindows();
  return all.filter(({ window }) => !open.has(window) || (effectId !== undefined && window === thisWindow()));
}

/** What a closed window made and what it clashes with. */
export interface Clashing {
  readonly unsaved: Unsaved;
  readonly met: Met;
  /** How many of its edits the server has. */
  readonly taken: number;
}

/** What a closed window made and the server will not have, as it is. */
export interface Refused {
  readonly unsaved: Unsaved;
  readonly sentence: string;
}

/**
 * Sends what a closed window could not save. Returns null when the server has it, or what it clashes with, or why it will
 * not have it.
 * @throws ApiError when there is no answer.
 */
export async function sendLeftBehind(unsaved: Unsaved): Promise<Clashing | Refused | null> {
  if (unsaved.refused !== undefined) return { unsaved, sentence: unsaved.refused };
  try {
    await api.sendEdits(unsaved.effectId, unsaved, unsaved.edits);
  } catch (error) {
    if (!(error instanceof ApiError) || !error.isFinal) throw error;
    if (error.body['code'] !== 'clash') {
      await outbox.keep({ ...unsaved, refused: error.message });
      return { unsaved, sentence: error.message };
    }
    const { stand, theirs, by, taken } = metIn(error);
    return { unsaved, met: { stand, theirs: theirs ?? [], by, sentence: error.message }, taken };
  }
  await outbox.forget(unsaved.effectId, unsaved.window);
  return null;
}

/** Sends all that closed windows could not save, and states that were put by. Returns the names of the effects it was of. */
export async function sendAllLeftBehind(): Promise<string[]> {
  const sent: string[] = [];
  for (const unsaved of await leftBehind()) {
    if (unsaved.refused !== undefined) continue;
    // What clashes waits until its effect is opened; what is refused stays, and so does the rest while there is no answer.
    const met = await sendLeftBehind(unsaved).catch((error: unknown) =>
      error instanceof ApiError ? error : Promise.reject(error),
    );
    if (met === null) sent.push(unsaved.name);
  }
  tellRefused(await sendStates());
  return [...new Set(sent)];
}

/**
 * Sends states that were put by while there was no answer. What the server will not have stays in this browser, and is not
 * sent again. Returns why, for each that was refused now.
 */
export async function sendStates(): Promise<string[]> {
  const refused: string[] = [];
  for (const state of await outbox.states()) {
    if (state.refused !== undefined) continue;
    try {
      await api.putBy(state.effectId, state.body);
      await outbox.forgetState(state.id);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      // Of an effect that is gone nothing is put by.
      if (error.status === 404) await outbox.forgetState(state.id);
      else if (error.isFinal) {
        await outbox.keepState({ ...state, refused: error.message });
        refused.push(error.message);
      }
    }
  }
  return refused;
}
