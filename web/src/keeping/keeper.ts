import {
  apply,
  composeChanges,
  diff,
  inverted,
  parseEffect,
  wordsOfChange,
  type Change,
  type Edit,
  type Effect,
  type Transition,
} from '@jinx/core/document';
import { merged, type Clash } from '@jinx/core/editing';
import { ApiError, type Since, type Standing } from '../api';
import { metIn, type Met, type SavingState, type Stand } from './met';
import type { Outbox, Unsaved } from './outbox';

export interface Ports {
  readonly send: (id: string, from: Standing, edits: readonly Edit[]) => Promise<Since>;
  readonly since: (id: string, from: Standing) => Promise<Since>;
  readonly outbox: Pick<Outbox, 'keep' | 'keepLast' | 'forget'>;
  readonly window: string;
  /** Something of how it stands has changed. */
  readonly changed: () => void;
  /** Others changed the effect, and that goes with what was made here: it is this now. */
  readonly tookIn: (document: Effect, since: Since) => void;
}

const QUIET_MILLISECONDS = 500;
/** Of a drag, this browser keeps how it stands so often at most. */
const WRITE_MILLISECONDS = 250;
const RETRY_MILLISECONDS = 3000;
/** What the server fails at so often is not sent again as it is. */
const MOST_FAILURES = 5;
const MOST_LABELS = 60;
const SAME_THING = 'Somebody else changed the same thing.';

/** Keeps one effect on the server as it is made here, and in this browser until the server has it. */
export class Keeper {
  readonly id: string;
  readonly #ports: Ports;
  #stand: Stand;
  #local: Effect;
  #labels: string[] = [];
  /** The changes that were made from what the server has to what is here, as far as they are known. */
  #made: { readonly base: Effect; readonly local: Effect; readonly changes: readonly Change[] } | null = null;
  /** Sent, with its outcome not known: it is sent again as it is. */
  #inFlight: (Edit & { readonly document: Effect }) | null = null;
  /** The id of the edit that is sent next. */
  #nextId = crypto.randomUUID() as string;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #running: Promise<void> = Promise.resolve();
  #isWriting = false;
  #mustWrite = false;
  #announced = 0;
  /** How often the server failed at what is on its way. */
  #failures = 0;
  /** Whether the server may have taken what is on its way, though it did not say so. */
  #isUncertain = false;
  #isOver = false;

  state: SavingState = 'saved';
  sentence = '';
  /** Whether this browser keeps what is not saved yet. */
  isKeptHere = true;
  /** Since when something is not saved, in milliseconds since 1970. */
  unsavedSince: number | null = null;
  met: Met | null = null;

  constructor(id: string, stand: Stand, ports: Ports) {
    this.id = id;
    this.#stand = stand;
    this.#local = stand.document;
    this.#ports = ports;
  }

  get local(): Effect {
    return this.#local;
  }

  /** Takes an edit that was just made here. */
  take({ before, after, changes, label }: Transition): void {
    const base = this.#base;
    const isKnown = this.#made?.base === base && this.#made.local === before;
    this.#made = isKnown ? { base, local: after, changes: composeChanges(this.#made!.changes, changes) } : null;
    this.#local = after;
    if (label !== '' && this.#labels[this.#labels.length - 1] !== label) this.#labels.push(label);
    const isResting = this.state === 'saved' || this.state === 'waiting' || this.state === 'refused';
    if (isResting) this.#become(this.#mine().length === 0 ? 'saved' : 'waiting');
    this.#keep();
    if (this.state === 'waiting') this.#later(QUIET_MILLISECONDS);
    else if (this.state === 'saved') {
      clearTimeout(this.#timer);
      if (this.#announced > this.#stand.revision) void this.save();
    }
  }

  /** What the server is known to have of what was made here, with what is on its way. */
  get #base(): Effect {
    return (this.#inFlight ?? this.#stand).document;
  }

  /** What was made here since. Edits are added up as they come; only what others made, or a failure, is compared anew. */
  #mine(): readonly Change[] {
    const [base, local] = [this.#base, this.#local];
    if (this.#made?.base !== base || this.#made.local !== local)
      this.#made = { base, local, changes: base === local ? [] : diff(base, local) };
    return this.#made.changes;
  }

  #become(state: SavingState, sentence = ''): void {
    this.state = state;
    this.sentence = sentence;
    if (state === 'saved') this.unsavedSince = null;
    else this.unsavedSince ??= Date.now();
    this.#ports.changed();
  }

  #later(milliseconds: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.save(), milliseconds);
  }

  /** What was done since, in words where that is short. */
  #words(): readonly string[] {
    const words = wordsOfChange(this.#base, this.#local, '');
    return words[0] === '' ? this.#labels.slice(-MOST_LABELS) : words;
  }

  /** What is to be sent after what is on its way. */
  #next(): Edit | null {
    const changes = this.#mine();
    if (changes.length === 0) return null;
    return { id: this.#nextId, changes, labels: this.#labels.slice(-MOST_LABELS) };
  }

  /**
   * Writes what is not saved into this browser: at once, and what comes meanwhile together, a quarter of a second later. That
   * nothing is left waits for nothing: what was undone must not be sent when the page is opened again.
   */
  #keep(): void {
    this.#mustWrite = true;
    if (this.#edits().length === 0) this.#endPause();
    if (this.#isWriting) return;
    this.#isWriting = true;
    void (async () => {
      while (this.#mustWrite) {
        this.#mustWrite = false;
        await this.#write();
        await this.#pause();
      }
      this.#isWriting = false;
    })();
  }

  #endPause: () => void = () => undefined;
  #pause(): Promise<void> {
    if (this.#mustWrite && this.#edits().length === 0) return Promise.resolve();
    return new Promise((resolve) => {
      this.#endPause = resolve;
      setTimeout(resolve, WRITE_MILLISECONDS);
    });
  }

  /** What the server is not known to have. */
  #edits(): Edit[] {
    return [this.#inFlight, this.#next()].filter((edit) => edit !== null);
  }

  /** The page goes away: what is not saved is kept without waiting for anything. */
  leave(): void {
    const edits = this.#edits();
    if (edits.length > 0) this.#ports.outbox.keepLast(this.#unsaved(edits));
  }

  async #write(): Promise<void> {
    if (this.#isOver) return;
    const { outbox, window } = this.#ports;
    const edits = this.#edits();
    const wasKept = this.isKeptHere;
    try {
      if (edits.length === 0) await outbox.forget(this.id, window);
      else await outbox.keep(this.#unsaved(edits));
      this.isKeptHere = true;
    } catch {
      // A full or forbidden store must not stop it from going to the server.
      this.isKeptHere = edits.length === 0;
    }
    if (wasKept !== this.isKeptHere) this.#ports.changed();
  }

  #unsaved(edits: readonly Edit[]): Unsaved {
    const { revision, head } = this.#stand;
    return {
      effectId: this.id,
      window: this.#ports.window,
      name: this.#local.name,
      revision,
      head,
      edits: edits.map(({ id, changes, labels }) => ({ id, changes, labels })),
      since: this.unsavedSince ?? Date.now(),
    };
  }

  /** Saves now, after whatever is under way. */
  save(): Promise<void> {
    // A fault in one save must not keep the next from being tried.
    this.#running = this.#running.catch(() => undefined).then(() => this.#saveOnce());
    return this.#running;
  }

  async #saveOnce(): Promise<void> {
    clearTimeout(this.#timer);
    if (this.#isOver || this.state === 'clash') return;
    if (!this.#inFlight) {
      const next = this.#next();
      if (!next) {
        this.#become('saved');
        return this.#catchUp();
      }
      this.#inFlight = { ...next, labels: this.#words(), document: this.#local };
      this.#labels = [];
      this.#nextId = crypto.randomUUID();
    }
    this.#become('saving');
    const sent = this.#inFlight;
    // It is kept here before it is sent, so that it is known whatever becomes of this page.
    await this.#write();
    try {
      this.#goOn(await this.#ports.send(this.id, this.#stand, [sent]));
    } catch (error) {
      this.#fail(error);
    }
  }

  /** Goes on from where others brought the effect, with what was made here since. */
  #goOn(since: Since): void {
    const { revision, head, theirs } = since;
    const [document, mine] = [apply(this.#base, theirs), this.#mine()];
    const stand = { revision, head, document };
    if (theirs.length > 0) {
      const together = merged(document, theirs, mine);
      // What was sent stays as it is until it is chosen what to do: it is known to have been taken, however often it is sent.
      if (together.clashes.length > 0 || (mine.length > 0 && !isWhole(together.document)))
        return this.#meet({ stand, theirs, by: since.by, sentence: SAME_THING });
      this.#local = together.document;
    }
    [this.#stand, this.#inFlight] = [stand, null];
    this.#isUncertain = false;
    this.#failures = 0;
    if (theirs.length > 0) this.#ports.tookIn(this.#local, since);
    this.#keep();
    if (this.#mine().length === 0) this.#become('saved');
    else {
      this.#become('waiting');
      this.#later(QUIET_MILLISECONDS);
    }
    if (this.#announced > revision) void this.save();
  }

  #meet(met: Met): void {
    this.met = met;
    this.#keep();
    this.#become('clash', met.sentence);
  }

  #fail(error: unknown): void {
    if (!(error instanceof ApiError)) {
      // Nobody waits for what this was called by: it is said on the page, and for engineers in the console.
      console.error(error);
      return this.#become('refused', 'Jinx failed at it. Your work is kept in this browser: reload the page.');
    }
    const code = error.body['code'];
    // Without an answer, or cut off as it was written down, it may have been taken.
    if (error.isOffline || code === 'outcome.unknown') this.#isUncertain = true;
    this.#failures = code === 'server' ? this.#failures + 1 : 0;
    if (!error.isFinal && this.#failures < MOST_FAILURES) {
      this.#become('away', error.message);
      return this.#later(RETRY_MILLISECONDS);
    }
    if (error.status === 409 && code === 'clash') return this.#refusedAs(error);
    this.#failures = 0;
    // What the server may have is sent again under the same id, and in no other way, until it says what became of it.
    if (code === 'server' && this.#isUncertain) return this.#become('refused', error.message);
    this.#takeBack();
    this.#keep();
    // Another edit has this id: the next has one of its own.
    if (error.status === 409 && code === 'known') {
      this.#become('waiting');
      return this.#later(0);
    }
    this.#become('refused', error.message);
  }

  /** What was refused is no longer sent as it was: the next change may put it right. */
  #takeBack(): void {
    if (this.#inFlight) this.#labels = [...this.#inFlight.labels, ...this.#labels];
    this.#inFlight = null;
    this.#isUncertain = false;
  }

  #refusedAs(error: ApiError): void {
    const { stand, theirs, by } = metIn(error);
    this.#takeBack();
    this.#meet({ stand, theirs: theirs ?? diff(this.#stand.document, stand.document), by, sentence: error.message });
  }

  /** The server said that the effect was written over. */
  announced(revision: number): void {
    this.#announced = Math.max(this.#announced, revision);
    if (this.#announced > this.#stand.revision && this.state !== 'saving') void this.save();
  }

  /** The server is there again. */
  isBack(): void {
    this.#announced = Math.max(this.#announced, this.#stand.revision + 1);
    void this.save();
  }

  async #catchUp(): Promise<void> {
    if (this.#announced <= this.#stand.revision) return;
    try {
      const since = await this.#ports.since(this.id, this.#stand);
      this.#announced = since.revision;
      this.#goOn(since);
    } catch (error) {
      // Without an answer it is asked again when the server is back; nothing was made here that could be lost.
      if (error instanceof ApiError && error.body['code'] === 'clash') this.#refusedAs(error);
    }
  }

  /** What was made here since the server had it, and what of it clashes with what others made. */
  get clashes(): readonly Clash[] {
    if (!this.met) return [];
    return merged(this.met.stand.document, this.met.theirs, this.#mine()).clashes;
  }

  /**
   * Ends a clash: goes on from what others made, with all that was made here and does not clash, and of what does with
   * what is chosen.
   * @throws DocumentError when that does not go together.
   */
  choose(keepMine: (clash: Clash) => boolean): Effect {
    const { stand, theirs } = this.met!;
    const { document } = merged(stand.document, theirs, this.#mine(), keepMine);
    return this.#goOnWith(parseEffect(document));
  }

  /** Ends a clash with what others made. */
  takeTheirs(): Effect {
    return this.#goOnWith(this.met!.stand.document);
  }

  #goOnWith(document: Effect): Effect {
    [this.#stand, this.#inFlight] = [this.met!.stand, null];
    this.#local = document;
    this.met = null;
    this.#become('waiting');
    this.#keep();
    this.#later(0);
    return document;
  }

  /**
   * Takes up what an earlier window made and could not save, because it clashes.
   * @param taken how many of its edits the server has.
   * @throws DocumentError when it was made from something that is not known any more.
   */
  takeUp(unsaved: Unsaved, met: Met, taken: number): Effect {
    const base = apply(met.stand.document, inverted(met.theirs));
    this.#local = unsaved.edits.slice(taken).reduce((document, { changes }) => apply(document, changes), base);
    this.#stand = { revision: unsaved.revision, head: unsaved.head, document: base };
    this.#inFlight = taken > 0 ? { ...unsaved.edits[0]!, document: base } : null;
    this.#labels = unsaved.edits.slice(taken).flatMap(({ labels }) => labels);
    this.unsavedSince = unsaved.since;
    this.#meet(met);
    return this.#local;
  }

  /** Has nothing more to do with the effect: whoever follows goes on with what is kept. */
  stop(): void {
    this.#isOver = true;
    clearTimeout(this.#timer);
  }
}

function isWhole(document: Effect): boolean {
  try {
    parseEffect(document);
    return true;
  } catch {
    return false;
  }
}
