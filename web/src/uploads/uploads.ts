import { shallowReactive } from 'vue';
import { ApiError } from '../api';
import { Cancelled, type Watch } from './sending';

/** Files that are sent at once; the others wait. */
const AT_ONCE = 2;
/** Milliseconds that one which has arrived is still shown. */
const DONE_MILLISECONDS = 2500;

/** A file on its way into a project. */
export interface Upload {
  readonly id: number;
  readonly name: string;
  readonly bytes: number;
  readonly state: 'waiting' | 'sending' | 'reading' | 'done' | 'failed';
  /** Which part of it is sent, from 0 to 1. */
  readonly sent: number;
  /** Why it was not taken. */
  readonly problem: string;
  readonly cancel: () => void;
}

/** All of the page, in the order in which they were dropped. */
export const uploads = shallowReactive<Upload[]>([]);
let lastId = 0;
let underWay = 0;
const waiting: (() => void)[] = [];

function change(id: number, part: Partial<Upload>): void {
  const at = uploads.findIndex((one) => one.id === id);
  if (at >= 0) uploads[at] = { ...uploads[at]!, ...part };
}
export function dismiss(id: number): void {
  const at = uploads.findIndex((one) => one.id === id);
  if (at >= 0) uploads.splice(at, 1);
}
/** Waits until fewer than the most are sent. @throws Cancelled */
async function takeTurn(signal: AbortSignal): Promise<void> {
  if (underWay < AT_ONCE) return void underWay++;
  await new Promise<void>((begin, fail) => {
    waiting.push(begin);
    signal.addEventListener('abort', () => {
      const at = waiting.indexOf(begin);
      if (at < 0) return;
      waiting.splice(at, 1);
      fail(new Cancelled());
    });
  });
}
/** Hands the turn to the next that waits. */
function endTurn(): void {
  const next = waiting.shift();
  if (next) next();
  else underWay--;
}

/**
 * Sends a file, shown with its progress and a way to give it up. Resolves to what `send` gives, or to null where it was
 * given up or refused, which its row says. Faults that are no refusal are thrown on; `send` may keep some to itself.
 */
export async function upload<T>(file: File, send: (watch: Watch) => Promise<T | null>): Promise<T | null> {
  const id = ++lastId;
  const aborter = new AbortController();
  const { signal } = aborter;
  uploads.push({
    ...{ id, name: file.name, bytes: file.size, state: 'waiting', sent: 0, problem: '' },
    cancel: () => {
      aborter.abort();
      dismiss(id);
    },
  });
  let hasTurn = false;
  try {
    await takeTurn(signal);
    hasTurn = true;
    change(id, { state: 'sending' });
    const progress = (sent: number) => change(id, { sent, state: sent < 1 ? 'sending' : 'reading' });
    const answer = await send({ progress, signal });
    // Where something is open first, it is asked elsewhere.
    if (answer === null) dismiss(id);
    else change(id, { state: 'done', sent: 1 });
    setTimeout(() => dismiss(id), DONE_MILLISECONDS);
    return answer;
  } catch (error) {
    if (error instanceof Cancelled) dismiss(id);
    else if (error instanceof ApiError) change(id, { state: 'failed', problem: error.message });
    else {
      dismiss(id);
      throw error;
    }
    return null;
  } finally {
    if (hasTurn) endTurn();
  }
}
