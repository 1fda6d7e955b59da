import {
  apply,
  canonicalText,
  collectionOf,
  diff,
  inverted,
  newEffect,
  newLayer,
  parseEffect,
  setNumber,
  type Change,
  type Edit,
  type Effect,
} from '@jinx/core/document';
import { merged } from '@jinx/core/editing';
import { ApiError, type Since, type Standing } from '../api';

export const LAYERS = ['body', 'sparks', 'smoke'];
/** For tests: an effect of three layers. */
export function flame(): Effect {
  const effect = newEffect('Flame', 1);
  effect.layers = collectionOf(LAYERS.map((name, n) => [name, newLayer(name, n)]));
  return parseEffect(effect);
}
/** For tests: lets so many of a layer be born a second. */
export const rate = (layer: string, value: number) => (draft: Effect) =>
  setNumber(draft.layers.byId[layer]!, 'births.rate', value);

/** For tests: a server of one effect that takes edits as the real one does, and can be made to fail as it may. */
export class FakeServer {
  document: Effect;
  /** Every edit that was taken: the revision it made and what it changed. */
  readonly log: { id: string; changes: Change[]; labels: readonly string[] }[] = [];
  mode: 'well' | 'gone' | 'broken' | 'deaf' = 'well';

  constructor(document: Effect) {
    this.document = document;
    this.log.push({ id: 'made', changes: [], labels: [] });
  }

  get standing(): Standing {
    return { revision: this.log.length, head: this.log[this.log.length - 1]!.id };
  }

  #mustAnswer(): void {
    if (this.mode === 'gone') throw new ApiError(0, 'The server does not answer.');
    if (this.mode === 'broken') throw new ApiError(500, 'The server failed.');
  }

  #before(revision: number): Effect {
    return this.log
      .slice(revision)
      .reduceRight((document, { changes }) => apply(document, inverted(changes)), this.document);
  }

  #clash(theirs: readonly Change[] | null, taken: number): ApiError {
    const { revision, head } = this.standing;
    const body = { code: 'clash', revision, head, document: this.document, theirs, by: ['Sedge'], taken };
    return new ApiError(409, 'Somebody else changed the same thing.', body);
  }

  readonly since = async (_id: string, { revision }: Standing): Promise<Since> => {
    this.#mustAnswer();
    const labels = this.log.slice(revision).flatMap((edit) => edit.labels);
    return { ...this.standing, theirs: diff(this.#before(revision), this.document), by: ['Sedge'], labels };
  };

  /** As somebody else saves. */
  change(recipe: (draft: Effect) => void): void {
    const draft = JSON.parse(canonicalText(this.document)) as Effect;
    recipe(draft);
    this.#write(draft, `other${this.log.length}`, ['something']);
  }

  #write(made: Effect, id: string, labels: readonly string[]): void {
    const changes = diff(this.document, made);
    if (changes.length === 0) return;
    this.document = apply(this.document, changes);
    this.log.push({ id, changes, labels });
  }

  readonly send = async (_id: string, from: Standing, edits: readonly Edit[]): Promise<Since> => {
    this.#mustAnswer();
    if (this.log[from.revision - 1]?.id !== from.head) throw this.#clash(null, 0);
    const known = edits.filter(({ id }) => this.log.slice(from.revision).some((past) => past.id === id));
    let seen = known.reduce((document, { changes }) => apply(document, changes), this.#before(from.revision));
    for (const { id, changes, labels } of edits.slice(known.length)) {
      const theirs = diff(seen, this.document);
      const { document, clashes } = merged(this.document, theirs, changes);
      if (clashes.length > 0) throw this.#clash(theirs, known.length);
      this.#write(parseEffect(document), id, labels);
      seen = apply(seen, changes);
    }
    // It was taken, and nobody hears of it.
    if (this.mode === 'deaf') throw new ApiError(0, 'The server does not answer.');
    return { ...this.standing, theirs: diff(seen, this.document), by: ['Sedge'], labels: ['something'] };
  };
}
